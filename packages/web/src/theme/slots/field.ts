import { slotRecipe } from '../define';
import { fieldAnatomy } from '@chakra-ui/react/anatomy';

/** A control with its label, what helps, and what is wrong with it. */
export const field = slotRecipe({
  className: 'zb-field',
  slots: fieldAnatomy.keys(),
  base: {
    root: { display: 'flex', flexDirection: 'column', gap: '1', position: 'relative', width: '100%' },
    label: { textStyle: 'label', display: 'flex', gap: '1', alignItems: 'baseline' },
    requiredIndicator: { color: 'stop' },
    helperText: { textStyle: 'small' },
    errorText: { fontSize: 'small', lineHeight: 'small', color: 'stop', fontWeight: 'medium' },
  },
});
