import { slotRecipe } from '../define';
import { radioCardAnatomy } from '@chakra-ui/react/anatomy';
import { focusOutline } from '../recipes/control';

/** One way out of several, each with its case: the card of a school. */
export const radioCard = slotRecipe({
  className: 'zb-radioCard',
  slots: radioCardAnatomy.keys(),
  base: {
    root: { display: 'flex', flexDirection: 'column', gap: '2' },
    label: { textStyle: 'label' },
    item: {
      display: 'flex',
      flex: 1,
      border: 'firm',
      borderRadius: 'corner',
      bg: 'bg',
      cursor: 'pointer',
      _checked: { borderColor: 'work', boxShadow: 'inset 3px 0 0 {colors.work}' },
      '&:has(input:focus-visible)': focusOutline,
    },
    itemControl: { display: 'flex', gap: '3', padding: '3', width: '100%', alignItems: 'flex-start' },
    itemContent: { display: 'flex', flexDirection: 'column', gap: '1', flex: 1 },
    itemText: { textStyle: 'strong' },
    itemDescription: { textStyle: 'small' },
    itemIndicator: {
      boxSize: '16px',
      flexShrink: 0,
      border: '1px solid',
      borderColor: 'rule.control',
      borderRadius: 'round',
      marginTop: '2px',
      _checked: { borderColor: 'work', borderWidth: '5px' },
    },
    itemAddon: { borderTop: 'thin', padding: '3', textStyle: 'small' },
  },
});
