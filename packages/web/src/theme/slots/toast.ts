import { slotRecipe } from '../define';
import { toastAnatomy } from '@chakra-ui/react/anatomy';

/** What was just done, with the way to take it back. */
export const toast = slotRecipe({
  className: 'zb-toast',
  slots: toastAnatomy.keys(),
  base: {
    root: {
      width: 'min(420px, calc(100vw - 24px))',
      display: 'flex',
      alignItems: 'center',
      gap: '3',
      bg: 'fg',
      color: 'bg',
      paddingInline: '4',
      paddingBlock: '2.5',
      borderRadius: 'corner',
      translate: 'var(--x) var(--y)',
      zIndex: 'var(--z-index)',
      height: 'var(--height)',
      opacity: 'var(--opacity)',
      willChange: 'translate, opacity',
    },
    title: { textStyle: 'body', fontWeight: 'strong', flex: 1 },
    description: { textStyle: 'body' },
    actionTrigger: {
      bg: 'transparent',
      color: 'inherit',
      border: '1px solid',
      borderColor: 'currentColor',
      borderRadius: 'corner',
      minHeight: 'target',
      paddingInline: '2.5',
      fontWeight: 'strong',
      cursor: 'pointer',
      outlineColor: 'bg',
    },
    closeTrigger: { bg: 'transparent', color: 'inherit', border: 0, boxSize: 'target', cursor: 'pointer' },
  },
});
