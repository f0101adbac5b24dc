const said = (colour: 'work' | 'stop' | 'check' | 'proven') => ({
  value: {
    borderInlineStart: '3px solid',
    borderColor: colour,
    bg: `${colour}.wash`,
    color: 'fg',
    paddingInline: '3',
    paddingBlock: '1.5',
  },
});

/** Surfaces: paper and what is ruled, stamped or said on it. */
export const layerStyles = {
  sheet: { value: { bg: 'bg', color: 'fg', border: 'firm' } },
  margin: { value: { bg: 'bg.margin', color: 'fg' } },
  ruled: { value: { borderBottom: 'thin' } },
  'said.note': said('work'),
  'said.stop': said('stop'),
  'said.check': said('check'),
  'said.proven': said('proven'),
} as const;
