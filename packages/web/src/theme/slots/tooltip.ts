import { slotRecipe } from '../define';
import { tooltipAnatomy } from '@chakra-ui/react/anatomy';

/** The word of an icon. */
export const tooltip = slotRecipe({
  className: 'zb-tooltip',
  slots: tooltipAnatomy.keys(),
  base: {
    content: {
      bg: 'fg',
      color: 'bg',
      paddingInline: '2',
      paddingBlock: '1',
      fontSize: 'small',
      borderRadius: 'corner',
      zIndex: 'tooltip',
      maxWidth: '280px',
    },
    arrow: { '--arrow-size': '8px', '--arrow-background': '{colors.fg}' },
  },
});
