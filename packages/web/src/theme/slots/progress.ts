import { slotRecipe } from '../define';
import { progressAnatomy } from '@chakra-ui/react/anatomy';

/** How far it is: ruled paper that fills. */
export const progress = slotRecipe({
  className: 'zb-progress',
  slots: progressAnatomy.keys(),
  base: {
    root: { textStyle: 'body', position: 'relative', width: '100%' },
    label: { textStyle: 'label' },
    track: { height: '12px', border: 'firm', bg: 'bg', overflow: 'hidden', position: 'relative' },
    range: {
      height: '100%',
      bg: 'work',
      _indeterminate: {
        width: '40%',
        backgroundImage: 'repeating-linear-gradient(90deg, {colors.work} 0 6px, transparent 6px 12px)',
        bg: 'transparent',
      },
    },
    valueText: { textStyle: 'data' },
  },
});
