import { slotRecipe } from '../define';
import { popoverAnatomy } from '@chakra-ui/react/anatomy';

/** A note stuck beside what it explains. */
export const popover = slotRecipe({
  className: 'zb-popover',
  slots: popoverAnatomy.keys(),
  base: {
    positioner: { zIndex: 'popover' },
    content: {
      bg: 'bg',
      color: 'fg',
      border: 'ink',
      maxWidth: 'min(360px, calc(100vw - 24px))',
      textStyle: 'body',
      zIndex: 'popover',
      outline: 0,
    },
    header: { paddingInline: '3', paddingTop: '2' },
    title: { textStyle: 'strong' },
    body: { paddingInline: '3', paddingBlock: '2.5' },
    footer: { paddingInline: '3', paddingBottom: '2.5', display: 'flex', gap: '2' },
    arrow: { '--arrow-size': '9px', '--arrow-background': '{colors.bg}' },
    arrowTip: { borderTop: 'ink', borderInlineStart: 'ink' },
  },
});
