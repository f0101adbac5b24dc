/** The focus of whatever is no button or line to type into; inside it where what lies around would cut it off. */
export const focusOutline = { outline: '2px solid', outlineColor: 'work', outlineOffset: '2px' } as const;
export const focusInside = { ...focusOutline, outlineOffset: '-2px' } as const;

/** A small control with its words beside it. */
export const labelled = {
  display: 'inline-flex',
  alignItems: 'flex-start',
  gap: '2',
  cursor: 'pointer',
  _disabled: { cursor: 'not-allowed', opacity: 0.6 },
} as const;

/** What all that is typed into or chosen from has in common. */
export const controlBase = {
  width: '100%',
  minWidth: 0,
  appearance: 'none',
  bg: 'bg',
  color: 'fg',
  border: '1px solid',
  borderColor: 'rule.control',
  borderRadius: 'corner',
  paddingInline: '2.5',
  fontFamily: 'body',
  fontSize: 'body',
  lineHeight: 'body',
  focusVisibleRing: 'outside',
  focusRingColor: 'work',
  _placeholder: { color: 'fg.muted', opacity: 1 },
  _disabled: { opacity: 0.6, cursor: 'not-allowed' },
  _invalid: { borderColor: 'stop', borderWidth: '2px' },
} as const;
