import { recipe } from '../define';
import { controlBase } from './control';

/** A line to type into. */
export const input = recipe({
  className: 'zb-input',
  base: controlBase,
  variants: {
    variant: { text: {}, data: { textStyle: 'data' } },
    size: { md: { height: 'control' }, lg: { height: 'touch' } },
  },
  defaultVariants: { variant: 'text', size: 'md' },
});
