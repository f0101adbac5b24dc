import { defineRecipe } from '@chakra-ui/react';

/** A way to another place. */
export const link = defineRecipe({
  className: 'zb-link',
  base: {
    color: 'work',
    textDecoration: 'underline',
    textUnderlineOffset: '2px',
    borderRadius: 'corner',
    focusVisibleRing: 'outside',
    focusRingColor: 'work',
  },
  variants: {
    variant: {
      inline: {},
      plain: { color: 'inherit', textDecoration: 'none', _hover: { textDecoration: 'underline' } },
    },
  },
  defaultVariants: { variant: 'inline' },
});
