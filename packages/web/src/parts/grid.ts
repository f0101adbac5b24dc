const STEP: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** Arrow keys in a table of buttons with ids `cell-ROW-COLUMN`: moves the focus, and tells where it went. */
export function gridMove(
  e: React.KeyboardEvent,
  at: { row: number; column: number },
  rows: number,
  columns: number,
  onAt: (at: { row: number; column: number }) => void,
): void {
  const by = STEP[e.key];
  if (!by) return;
  e.preventDefault();
  e.stopPropagation();
  const next = {
    row: Math.max(0, Math.min(rows - 1, at.row + by[0])),
    column: Math.max(0, Math.min(columns - 1, at.column + by[1])),
  };
  onAt(next);
  document.getElementById(`cell-${next.row}-${next.column}`)?.focus();
}
