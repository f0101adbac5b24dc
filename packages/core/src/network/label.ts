import encodeQR from 'qr';

/** Sizes that labels are sold in, millimetres. Common practice, no source. */
export const labelSizes = [
  { id: '62x29', width: 62, height: 29 },
  { id: '89x36', width: 89, height: 36 },
  { id: '57x32', width: 57, height: 32 },
  { id: '99x38', width: 99, height: 38 },
] as const;
/** A size of a label by its two sides. */
export type LabelSize = (typeof labelSizes)[number];

/** What stands on the label of a box: its name large, then what somebody before it has to know. */
export interface LabelContent {
  name: string;
  lines: string[];
  /** What its code leads to; null where it has no page. */
  page: string | null;
}

/** One thing on a label, millimetres from its upper left corner. */
export type LabelPart =
  | { kind: 'text'; x: number; y: number; size: number; bold: boolean; text: string }
  | { kind: 'code'; x: number; y: number; side: number; cells: boolean[][] };

/** The quiet zone around a code, in cells (ISO/IEC 18004 §5.3.8: four). */
export const QUIET_CELLS = 4;
const MARGIN = 2;
/** Letters are about so wide as this share of their size; what does not fit is cut with an ellipsis. */
const LETTER = 0.56;

const cut = (text: string, size: number, room: number): string => {
  const most = Math.max(1, Math.floor(room / (size * LETTER)));
  return text.length <= most ? text : `${text.slice(0, most - 1)}…`;
};

/** The cells of a code, dark where true, without its quiet zone (ISO/IEC 18004). */
export const codeCells = (text: string): boolean[][] =>
  // The library draws at least one cell of quiet zone; how wide it is, the label decides.
  encodeQR(text, 'raw', { border: 1, ecc: 'medium' })
    .slice(1, -1)
    .map((row) => row.slice(1, -1));

/** A label laid out for its size: the code at the left, as large as the height allows; the words beside it. */
export function labelParts({ name, lines, page }: LabelContent, { width, height }: LabelSize): LabelPart[] {
  const out: LabelPart[] = [];
  let left = MARGIN;
  if (page !== null) {
    const cells = codeCells(page);
    const room = Math.min(height - 2 * MARGIN, width * 0.42);
    const cell = room / (cells.length + 2 * QUIET_CELLS);
    const side = cell * cells.length;
    out.push({ kind: 'code', x: MARGIN + cell * QUIET_CELLS, y: (height - side) / 2, side, cells });
    left = MARGIN + room;
  }
  const room = width - left - MARGIN;
  const step = (height - 2 * MARGIN) / (lines.length + 1.6);
  const size = Math.min(step * 0.82, 4.2);
  const large = Math.min(size * 1.45, room / Math.max(4, name.length * LETTER));
  out.push({
    kind: 'text',
    x: left,
    y: MARGIN + step * 1.1,
    size: large,
    bold: true,
    text: cut(name, large, room),
  });
  lines.forEach((text, i) => {
    // An address that is cut is none: what is too long is written smaller instead.
    const fits = Math.min(size, room / Math.max(1, text.length * LETTER));
    out.push({ kind: 'text', x: left, y: MARGIN + step * (2.1 + i), size: fits, bold: false, text });
  });
  return out;
}
