import { defineRecipe } from '@chakra-ui/react';
import { controlBase } from './control';

/** Several lines to type into. */
export const textarea = defineRecipe({
  className: 'zb-textarea',
  base: { ...controlBase, paddingBlock: '2', minHeight: '66px', resize: 'vertical' },
  variants: { variant: { text: {}, data: { textStyle: 'data' } } },
  defaultVariants: { variant: 'text' },
});
