import { slotRecipe } from '../define';
import { comboboxAnatomy } from '@chakra-ui/react/anatomy';
import { controlBase } from '../recipes/control';

/** Words to type that find one of many. */
export const combobox = slotRecipe({
  className: 'zb-combobox',
  slots: comboboxAnatomy.keys(),
  base: {
    root: { display: 'flex', flexDirection: 'column', gap: '1', width: '100%' },
    label: { textStyle: 'label' },
    control: { position: 'relative' },
    input: { ...controlBase, height: 'control', paddingInlineEnd: '8' },
    indicatorGroup: {
      position: 'absolute',
      insetInlineEnd: '1',
      insetBlock: 0,
      display: 'flex',
      alignItems: 'center',
    },
    trigger: {
      bg: 'transparent',
      border: 0,
      boxSize: 'target',
      cursor: 'pointer',
      color: 'fg.muted',
      _icon: { boxSize: '16px' },
    },
    clearTrigger: {
      bg: 'transparent',
      border: 0,
      boxSize: 'target',
      cursor: 'pointer',
      color: 'fg.muted',
      _icon: { boxSize: '14px' },
    },
    content: {
      bg: 'bg',
      color: 'fg',
      border: 'ink',
      maxHeight: '320px',
      overflow: 'auto',
      zIndex: 'popover',
      outline: 0,
    },
    item: {
      display: 'flex',
      gap: '2',
      alignItems: 'baseline',
      minHeight: 'control',
      paddingInline: '3',
      paddingBlock: '1',
      cursor: 'pointer',
      _highlighted: { bg: 'work.wash' },
    },
    itemText: { flex: 1 },
    empty: { padding: '3', color: 'fg.muted' },
  },
});
