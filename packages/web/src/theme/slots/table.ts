import { slotRecipe } from '../define';
import { tableAnatomy } from '@chakra-ui/react/anatomy';
import { focusInside } from '../recipes/control';

/** Rows under heads, ruled; figures on the right. */
export const table = slotRecipe({
  className: 'zb-table',
  slots: tableAnatomy.keys(),
  base: {
    root: {
      borderCollapse: 'collapse',
      width: '100%',
      fontSize: 'body',
      textAlign: 'start',
      fontVariantNumeric: 'tabular-nums',
    },
    columnHeader: {
      textStyle: 'label',
      textAlign: 'start',
      verticalAlign: 'bottom',
      paddingBlock: '1',
      paddingInlineEnd: '3',
      borderBottom: 'ink',
      bg: 'bg',
    },
    cell: {
      textAlign: 'start',
      verticalAlign: 'top',
      paddingBlock: '1.5',
      paddingInlineEnd: '3',
      borderBottom: 'thin',
    },
    row: {
      _selected: { bg: 'work.wash' },
      _focusVisible: focusInside,
    },
    footer: { fontWeight: 'strong' },
    caption: { textStyle: 'label', textAlign: 'start', captionSide: 'top', paddingBottom: '1' },
  },
  variants: {
    stickyHeader: { true: { columnHeader: { position: 'sticky', top: 0, zIndex: 'docked' } } },
    interactive: { true: { row: { cursor: 'pointer', _hover: { bg: 'bg.margin' } } } },
  },
});
