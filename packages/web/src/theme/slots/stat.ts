import { defineSlotRecipe } from '@chakra-ui/react';
import { statAnatomy } from '@chakra-ui/react/anatomy';

/** One figure with its unit. */
export const stat = defineSlotRecipe({
  className: 'zb-stat',
  slots: statAnatomy.keys(),
  base: {
    root: { display: 'flex', flexDirection: 'column', gap: '0.5' },
    label: { textStyle: 'label' },
    valueText: { textStyle: 'data', fontSize: 'title', fontWeight: 'strong' },
    valueUnit: { textStyle: 'small' },
    helpText: { textStyle: 'small' },
  },
});
