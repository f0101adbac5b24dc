import { slotRecipe } from '../define';
import { menuAnatomy } from '@chakra-ui/react/anatomy';

/** Acts on one thing. */
export const menu = slotRecipe({
  className: 'zb-menu',
  slots: menuAnatomy.keys(),
  base: {
    content: {
      outline: 0,
      bg: 'bg',
      color: 'fg',
      border: 'ink',
      minWidth: '180px',
      paddingBlock: '1',
      zIndex: 'popover',
      maxHeight: 'var(--available-height)',
      overflow: 'auto',
    },
    item: {
      display: 'flex',
      alignItems: 'center',
      gap: '2',
      minHeight: 'control',
      paddingInline: '3',
      cursor: 'pointer',
      _highlighted: { bg: 'work.wash' },
      _disabled: { opacity: 0.5, cursor: 'not-allowed' },
    },
    itemText: { flex: 1 },
    itemGroupLabel: { textStyle: 'label', paddingInline: '3', paddingTop: '2' },
    itemCommand: { textStyle: 'data', fontSize: 'small', color: 'fg.muted' },
    separator: { height: '1px', bg: 'rule', marginBlock: '1' },
  },
});
