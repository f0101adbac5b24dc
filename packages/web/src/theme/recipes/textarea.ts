import { recipe } from '../define';
import { controlBase } from './control';

/** Several lines to type into. */
export const textarea = recipe({
  className: 'zb-textarea',
  base: { ...controlBase, paddingBlock: '2', minHeight: '66px', resize: 'vertical' },
  variants: { variant: { text: {}, data: { textStyle: 'data' } } },
  defaultVariants: { variant: 'text' },
});
