import { slotRecipe } from '../define';
import { dialogAnatomy } from '@chakra-ui/react/anatomy';
import { over } from './over';

/** A sheet laid over the sheet. */
export const dialog = slotRecipe({
  className: 'zb-dialog',
  slots: dialogAnatomy.keys(),
  base: {
    backdrop: over.backdrop,
    positioner: { ...over.positioner, justifyContent: 'center', alignItems: 'center', padding: '4' },
    content: {
      ...over.content,
      width: 'calc(100vw - 32px)',
      maxHeight: 'calc(100dvh - 32px)',
      bg: 'bg',
      border: 'ink',
    },
    header: {
      ...over.header,
      alignItems: 'baseline',
      gap: '4',
      paddingInline: '5',
      paddingTop: '14px',
      paddingBottom: '2',
    },
    title: over.title,
    body: { ...over.body, paddingInline: '5', paddingBlock: '4' },
    footer: { ...over.footer, display: 'flex', gap: '3', paddingInline: '5', paddingBlock: '3' },
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
