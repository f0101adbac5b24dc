import { slotRecipe } from '../define';
import { drawerAnatomy } from '@chakra-ui/react/anatomy';

/** A margin that comes in from the side: rail and ledger on a phone. */
export const drawer = slotRecipe({
  className: 'zb-drawer',
  slots: drawerAnatomy.keys(),
  base: {
    backdrop: { bg: 'bg.veil', position: 'fixed', inset: 0, zIndex: 'overlay' },
    positioner: {
      position: 'fixed',
      inset: 0,
      zIndex: 'modal',
      display: 'flex',
      overscrollBehaviorY: 'none',
    },
    content: {
      display: 'flex',
      flexDirection: 'column',
      height: '100dvh',
      width: 'min(320px, 86vw)',
      bg: 'bg.margin',
      color: 'fg',
      outline: 0,
    },
    header: {
      display: 'flex',
      justifyContent: 'space-between',
      alignItems: 'center',
      paddingInline: '4',
      minHeight: 'bar',
      borderBottom: 'thin',
    },
    title: { textStyle: 'title' },
    body: { flex: 1, overflow: 'auto', padding: '4' },
    footer: { padding: '4', borderTop: 'thin' },
  },
  variants: {
    placement: {
      start: { positioner: { justifyContent: 'flex-start' }, content: { borderInlineEnd: 'ink' } },
      end: { positioner: { justifyContent: 'flex-end' }, content: { borderInlineStart: 'ink' } },
    },
  },
  defaultVariants: { placement: 'start' },
});
