import { slotRecipe } from '../define';
import { listAnatomy } from '@chakra-ui/react/anatomy';

/** Lines one under another. */
export const list = slotRecipe({
  className: 'zb-list',
  slots: listAnatomy.keys(),
  base: {
    root: { listStyle: 'none', margin: 0, padding: 0 },
    item: { paddingBlock: '2px' },
  },
  variants: {
    marks: {
      none: {},
      square: { root: { listStyle: 'square', paddingInlineStart: '18px' } },
      steps: { root: { listStyle: 'decimal', paddingInlineStart: '18px' } },
    },
  },
  defaultVariants: { marks: 'none' },
});
