import { slotRecipe } from '../define';
import { drawerAnatomy } from '@chakra-ui/react/anatomy';
import { over } from './over';

/** A margin that comes in from the side: rail and ledger on a phone. */
export const drawer = slotRecipe({
  className: 'zb-drawer',
  slots: drawerAnatomy.keys(),
  base: {
    backdrop: over.backdrop,
    positioner: over.positioner,
    content: { ...over.content, height: '100dvh', width: 'min(320px, 86vw)', bg: 'bg.margin' },
    header: { ...over.header, alignItems: 'center', paddingInline: '4', minHeight: 'bar' },
    title: over.title,
    body: { ...over.body, padding: '4' },
    footer: { ...over.footer, padding: '4' },
  },
  variants: {
    placement: {
      start: { positioner: { justifyContent: 'flex-start' }, content: { borderInlineEnd: 'ink' } },
      end: { positioner: { justifyContent: 'flex-end' }, content: { borderInlineStart: 'ink' } },
    },
  },
  defaultVariants: { placement: 'start' },
});
