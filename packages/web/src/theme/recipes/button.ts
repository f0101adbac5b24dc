import { recipe } from '../define';

/** One filled act on a screen, every other one drawn, and quiet ones that are a word. */
export const button = recipe({
  className: 'zb-button',
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    justifyContent: 'center',
    gap: '1.5',
    appearance: 'none',
    userSelect: 'none',
    whiteSpace: 'nowrap',
    borderRadius: 'corner',
    border: '1px solid transparent',
    fontFamily: 'body',
    fontSize: 'body',
    fontWeight: 'strong',
    lineHeight: 'body',
    cursor: 'pointer',
    // A half-faded button is hard to read; it changes at once.
    transition: 'none',
    focusVisibleRing: 'outside',
    focusRingColor: 'work',
    _disabled: { opacity: 0.55, cursor: 'not-allowed' },
    _icon: { boxSize: '16px', flexShrink: 0 },
  },
  variants: {
    variant: {
      solid: {
        bg: 'work',
        color: 'work.contrast',
        _hover: { filter: 'brightness(1.12)' },
        _disabled: { filter: 'none' },
      },
      outline: { bg: 'transparent', color: 'work', borderColor: 'work', _hover: { bg: 'work.wash' } },
      plain: {
        bg: 'transparent',
        color: 'work',
        textDecoration: 'underline',
        textUnderlineOffset: '2px',
        _hover: { bg: 'work.wash' },
      },
      /** An icon within a line: no frame until it is reached for. */
      bare: { bg: 'transparent', color: 'fg.muted', _hover: { bg: 'work.wash', color: 'work' } },
      stop: { bg: 'stop', color: 'bg', _hover: { filter: 'brightness(1.08)' } },
    },
    size: {
      /** A word among others: it breaks as they do. */
      word: {
        minHeight: 'target',
        paddingInline: '0',
        fontSize: 'inherit',
        lineHeight: 'inherit',
        fontWeight: 'inherit',
        whiteSpace: 'normal',
        textAlign: 'start',
        justifyContent: 'flex-start',
      },
      sm: { minHeight: 'target', paddingInline: '2' },
      md: { minHeight: 'control', paddingInline: '14px', paddingBlock: '6px' },
      lg: { minHeight: 'touch', paddingInline: '5', fontSize: 'title' },
      icon: { boxSize: 'control', padding: '0' },
      small: { boxSize: 'target', padding: '0', _icon: { boxSize: '14px' } },
    },
  },
  defaultVariants: { variant: 'outline', size: 'md' },
});
