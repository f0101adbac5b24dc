/** There for those who hear the page, and not to be seen. */
export const unseen = {
  position: 'absolute',
  width: '1px',
  height: '1px',
  overflow: 'hidden',
  clipPath: 'inset(50%)',
} as const;

/** A line of a table as a block of its own, where there is no room for columns: its cells one under another. */
export const lineAsCard = {
  display: 'flex',
  flexWrap: 'wrap',
  gap: '2px 14px',
  alignItems: 'baseline',
  paddingBlock: '8px',
  borderBottom: '1px solid {colors.rule}',
} as const;
