import { slotRecipe } from '../define';
import { checkboxAnatomy } from '@chakra-ui/react/anatomy';
import { focusOutline, labelled } from '../recipes/control';

/** A box to tick, with its words. */
export const checkbox = slotRecipe({
  className: 'zb-checkbox',
  slots: checkboxAnatomy.keys(),
  base: {
    root: labelled,
    label: { textStyle: 'body', paddingTop: '2px' },
    control: {
      boxSize: 'target',
      padding: '3px',
      display: 'inline-flex',
      alignItems: 'center',
      justifyContent: 'center',
      flexShrink: 0,
      border: '1px solid',
      borderColor: 'rule.control',
      borderRadius: 'corner',
      bg: 'bg',
      color: 'work.contrast',
      _checked: { bg: 'work', borderColor: 'work' },
      _indeterminate: { bg: 'work', borderColor: 'work' },
      _invalid: { borderColor: 'stop', borderWidth: '2px' },
      _focusVisible: focusOutline,
      _icon: { boxSize: '16px' },
    },
  },
});
