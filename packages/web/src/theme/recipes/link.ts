import { recipe } from '../define';

/** A way to another place. */
export const link = recipe({
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
