/** What a dialog and a drawer have in common: a veil, and a place over the page. */
export const over = {
  backdrop: { bg: 'bg.veil', position: 'fixed', inset: 0, zIndex: 'overlay' },
  positioner: { position: 'fixed', inset: 0, zIndex: 'modal', display: 'flex', overscrollBehaviorY: 'none' },
  content: { display: 'flex', flexDirection: 'column', color: 'fg', outline: 0 },
  header: { display: 'flex', justifyContent: 'space-between', borderBottom: 'thin' },
  title: { textStyle: 'title' },
  body: { flex: 1, overflow: 'auto' },
  footer: { borderTop: 'thin' },
} as const;
