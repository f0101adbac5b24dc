import { slotRecipe } from '../define';
import { radioGroupAnatomy } from '@chakra-ui/react/anatomy';
import { focusOutline, labelled } from '../recipes/control';

/** One of a few, all in sight. */
export const radioGroup = slotRecipe({
  className: 'zb-radioGroup',
  slots: radioGroupAnatomy.keys(),
  base: {
    root: { display: 'flex', flexDirection: 'column', gap: '1.5' },
    label: { textStyle: 'label' },
    item: { ...labelled, minHeight: 'target' },
    itemText: { textStyle: 'body', paddingTop: '2px' },
    itemControl: {
      boxSize: '18px',
      marginTop: '3px',
      flexShrink: 0,
      border: '1px solid',
      borderColor: 'rule.control',
      borderRadius: 'round',
      bg: 'bg',
      _checked: { borderColor: 'work', borderWidth: '6px' },
      _focusVisible: focusOutline,
    },
    itemIndicator: { display: 'none' },
  },
  variants: {
    across: {
      true: { root: { flexDirection: 'row', flexWrap: 'wrap', columnGap: '4', alignItems: 'center' } },
    },
  },
});
