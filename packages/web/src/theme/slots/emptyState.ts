import { slotRecipe } from '../define';
import { emptyStateAnatomy } from '@chakra-ui/react/anatomy';

/** Nothing is here yet, and the first real act. */
export const emptyState = slotRecipe({
  className: 'zb-emptyState',
  slots: emptyStateAnatomy.keys(),
  base: {
    root: { width: '100%' },
    content: {
      display: 'flex',
      flexDirection: 'column',
      gap: '3',
      alignItems: 'flex-start',
      paddingBlock: '6',
      borderTop: 'thin',
      borderBottom: 'thin',
    },
    title: { textStyle: 'strong' },
    description: { color: 'fg.muted', maxWidth: '60ch' },
    indicator: { color: 'fg.muted', _icon: { boxSize: '24px' } },
  },
});
