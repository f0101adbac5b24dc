import { slotRecipe } from '../define';
import { alertAnatomy } from '@chakra-ui/react/anatomy';

/** A line that is said: what happened, what is unharmed, what to do. */
export const alert = slotRecipe({
  className: 'zb-alert',
  slots: alertAnatomy.keys(),
  base: {
    root: { display: 'flex', gap: '2.5', alignItems: 'flex-start', textStyle: 'body' },
    content: { flex: 1, minWidth: 0 },
    title: { fontWeight: 'strong' },
    description: { display: 'block' },
    indicator: { flexShrink: 0 },
  },
  variants: {
    status: {
      info: { root: { layerStyle: 'said.note' } },
      warning: { root: { layerStyle: 'said.check' } },
      error: { root: { layerStyle: 'said.stop' } },
      success: { root: { layerStyle: 'said.proven' } },
      neutral: { root: { layerStyle: 'said.note' } },
    },
  },
  defaultVariants: { status: 'info' },
});
