import { slotRecipe } from '../define';
import { dialogAnatomy } from '@chakra-ui/react/anatomy';

/** A sheet laid over the sheet. */
export const dialog = slotRecipe({
  className: 'zb-dialog',
  slots: dialogAnatomy.keys(),
  base: {
    backdrop: { bg: 'bg.veil', position: 'fixed', inset: 0, zIndex: 'overlay' },
    positioner: {
      position: 'fixed',
      inset: 0,
      zIndex: 'modal',
      display: 'flex',
      justifyContent: 'center',
      alignItems: 'center',
      padding: '4',
      overscrollBehaviorY: 'none',
    },
    content: {
      display: 'flex',
      flexDirection: 'column',
      width: 'calc(100vw - 32px)',
      maxHeight: 'calc(100dvh - 32px)',
      bg: 'bg',
      color: 'fg',
      border: 'ink',
      outline: 0,
    },
    header: {
      display: 'flex',
      justifyContent: 'space-between',
      alignItems: 'baseline',
      gap: '4',
      paddingInline: '5',
      paddingTop: '14px',
      paddingBottom: '2',
      borderBottom: 'thin',
    },
    title: { textStyle: 'title' },
    body: { flex: 1, overflow: 'auto', paddingInline: '5', paddingBlock: '4' },
    footer: { display: 'flex', gap: '3', paddingInline: '5', paddingBlock: '3', borderTop: 'thin' },
  },
  variants: {
    size: {
      sm: { content: { maxWidth: '440px' } },
      md: { content: { maxWidth: '640px' } },
      lg: { content: { maxWidth: '860px' } },
    },
  },
  defaultVariants: { size: 'md' },
});
