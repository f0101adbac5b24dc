import { slotRecipe } from '../define';
import { statAnatomy } from '@chakra-ui/react/anatomy';

/** One figure with its unit. */
export const stat = slotRecipe({
  className: 'zb-stat',
  slots: statAnatomy.keys(),
  base: {
    root: { display: 'flex', flexDirection: 'column', gap: '0.5' },
    label: { textStyle: 'label' },
    valueText: {
      margin: '0',
      textStyle: 'data',
      fontSize: 'title',
      fontWeight: 'strong',
    },
    valueUnit: { textStyle: 'small' },
    helpText: { textStyle: 'small', margin: '0' },
  },
});
