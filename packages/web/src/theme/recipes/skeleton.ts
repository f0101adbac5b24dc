import { recipe } from '../define';

/** The shape of what is still being fetched: ruled paper, no shimmer. */
export const skeleton = recipe({
  className: 'zb-skeleton',
  base: {
    bg: 'bg.margin',
    backgroundImage: 'repeating-linear-gradient(transparent 0 11px, {colors.rule} 11px 12px)',
    color: 'transparent',
    userSelect: 'none',
    '& *': { visibility: 'hidden' },
  },
  variants: {
    loading: {
      true: {},
      false: { bg: 'unset', backgroundImage: 'none', color: 'inherit', '& *': { visibility: 'unset' } },
    },
  },
  defaultVariants: { loading: true },
});
