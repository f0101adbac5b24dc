/** A course of points on a plot. */
export interface PlotLine {
  name: string;
  points: readonly (readonly [x: number, y: number])[];
  ink: 'ink' | 'work' | 'muted';
  /** Dots without a line, a line without dots, or dashes. */
  as: 'dots' | 'line' | 'dashes' | 'bar';
}

/** Words at a point. */
export interface PlotNote {
  x: number;
  y: number;
  words: string;
  strong?: boolean;
  /** The words end there. */
  end?: boolean;
  /** The words begin right of it and below; else they are above it. */
  below?: boolean;
}

export interface PlotData {
  lines: readonly PlotLine[];
  notes?: readonly PlotNote[];
  /** A stretch of x that does not count, with its words. */
  shade?: { from: number; to: number; words: string };
  x: { of: (v: number) => string; min?: number; max?: number; steps?: number };
  y: { of: (v: number) => string; min?: number; max?: number; steps?: number };
}
