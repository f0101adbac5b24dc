/** Every way text is set. Figures and names of things are `data`: digits of one width, 0 and O told apart. */
export const textStyles = {
  headline: { value: { fontSize: 'headline', fontWeight: 'heavy', lineHeight: 'tight' } },
  title: { value: { fontSize: 'title', fontWeight: 'heavy', lineHeight: 'tight' } },
  body: { value: { fontSize: 'body', lineHeight: 'body' } },
  strong: { value: { fontSize: 'body', fontWeight: 'strong', lineHeight: 'body' } },
  small: { value: { fontSize: 'small', lineHeight: 'small', color: 'fg.muted' } },
  label: {
    value: {
      fontSize: 'label',
      fontWeight: 'strong',
      lineHeight: 'body',
      color: 'fg.muted',
      letterSpacing: '.02em',
    },
  },
  data: { value: { fontFamily: 'mono', fontSize: '.93em', fontVariantNumeric: 'tabular-nums' } },
  far: { value: { fontSize: { base: 'distance', md: 'far' }, fontWeight: 'heavy', lineHeight: 'tight' } },
  near: { value: { fontSize: { base: 'title', md: 'near' }, lineHeight: 'body' } },
  letters: {
    value: {
      fontFamily: 'mono',
      fontSize: { base: 'headline', md: 'letters' },
      fontVariantNumeric: 'tabular-nums',
    },
  },
  distance: { value: { fontSize: 'distance', fontWeight: 'heavy', lineHeight: 'tight' } },
} as const;
