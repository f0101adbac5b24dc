import { slotRecipe } from '../define';
import { tableAnatomy } from '@chakra-ui/react/anatomy';
import { lineAsCard, unseen } from '../cards';
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
      // The line this machine meets, the one that is taken: a bar and a wash.
      '&[data-here] > *': {
        bg: 'work.wash',
        boxShadow: 'inset 3px 0 0 {colors.work}',
        paddingInlineStart: '2.5',
      },
      '&[data-here] > * + *': { boxShadow: 'none', paddingInlineStart: '0' },
      _focusVisible: focusInside,
    },
    footer: { fontWeight: 'strong' },
    caption: { textStyle: 'label', textAlign: 'start', captionSide: 'top', paddingBottom: '1' },
  },
  variants: {
    stickyHeader: { true: { columnHeader: { position: 'sticky', top: 0, zIndex: 'docked' } } },
    // On a phone a wide table is a list: one block for each row, its cells one under another.
    stacked: {
      true: {
        header: { smDown: unseen },
        row: { smDown: lineAsCard },
        cell: {
          smDown: {
            border: 0,
            padding: 0,
            width: 'auto',
            textAlign: 'start',
            '&[data-whole]': { flex: '1 0 100%' },
            '&[data-whole]:empty, &[data-told]': { display: 'none' },
          },
        },
      },
    },
    dense: { true: { cell: { paddingBlock: '3px' } } },
    interactive: { true: { row: { cursor: 'pointer', _hover: { bg: 'bg.margin' } } } },
  },
});
