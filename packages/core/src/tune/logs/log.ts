/** What a series of readings is of. Its values are in the unit given here. */
export const seriesUnits = {
  temperature: '°C',
  fan: 'rpm',
  power: 'W',
  clock: 'MHz',
  charge: '%',
  load: '%',
  noise: 'dB(A)',
  voltage: 'V',
  current: 'A',
  frames: 'frames/s',
  write: 'bytes/s',
  read: 'bytes/s',
  network: 'bytes/s',
} as const;
/** What a series is of, by its code. */
export type SeriesKind = keyof typeof seriesUnits;

/** Readings of one thing. `t` in seconds from the first reading of the log; a reading that is missing is NaN. */
export interface Series {
  kind: SeriesKind;
  /** What it sits on, as the log calls it. */
  part: string;
  /** For power: where it is taken. */
  where: 'wall' | 'battery' | 'part';
  t: Float64Array;
  v: Float64Array;
}

/** A single figure of a log, such as a tool’s summary. */
export interface LogFact {
  what:
    | 'write rate'
    | 'read rate'
    | 'network rate'
    | 'network sent'
    | 'sent again'
    | 'write latency, 99 %'
    | 'read latency, 99 %'
    | 'temperature'
    | 'wear'
    | 'hours on'
    | 'errors'
    | 'seconds too hot'
    | 'score'
    | 'rounds';
  /** What it is of. */
  part: string;
  value: number;
  unit: 'bytes/s' | '°C' | '%' | 'h' | 's' | '/s' | '';
}

/** Something about a log that was mended, passed over or taken for granted. Nothing of the file is changed. */
export type LogFault =
  | { code: 'cut'; line: number }
  | { code: 'not numbers'; lines: number; first: number }
  | { code: 'clock back'; times: number; first: number }
  | { code: 'mixed clocks'; kinds: string[] }
  | { code: 'mixed units'; column: string; units: string[] }
  | { code: 'gap'; times: number; longest: number }
  | { code: 'unit guessed'; column: string; unit: string; median: number }
  | { code: 'no times'; seconds: number }
  | { code: 'not frames'; count: number; first: number }
  | { code: 'columns passed over'; columns: string[] }
  | { code: 'long line'; lines: number; first: number }
  | { code: 'odd bytes'; count: number }
  | { code: 'too many'; kept: number }
  | { code: 'told by the tool'; words: string }
  | { code: 'ended early' };

/** How a log is laid out. */
export type LogKind =
  | 'frame times'
  | 'table'
  | 'recorder'
  | 'sensors'
  | 'turbostat'
  | 'fio'
  | 'fio rates'
  | 'iperf3'
  | 'smartctl'
  | 'memtester'
  | 'stress-ng';

/** A log as it was read. */
export interface TuneLog {
  kind: LogKind;
  lines: number;
  series: Series[];
  /** Frame times in ms, in their order; null where it has none. */
  frames: Float64Array | null;
  facts: LogFact[];
  faults: LogFault[];
}

/** Why a file is no log that can be read. The file is as it was. */
export class LogReadError extends Error {
  constructor(
    readonly code: 'empty' | 'no log' | 'cut' | 'too large' | 'not text',
    /** What was looked for, or where it broke off. */
    readonly detail = '',
  ) {
    super(`log cannot be read: ${code}`);
  }
}

/** Files larger than this are not read, in bytes. */
export const MOST_BYTES = 1024 ** 3;
/** Readings of one column that are kept. */
export const MOST_ROWS = 8_000_000;
/** A longer line is passed over, in bytes. */
export const MOST_LINE = 64 * 1024;

/** A column that grows. */
export class Growing {
  private store = new Float64Array(1024);
  length = 0;
  push(v: number): void {
    if (this.length === this.store.length) {
      const more = new Float64Array(this.length * 2);
      more.set(this.store);
      this.store = more;
    }
    this.store[this.length] = v;
    this.length += 1;
  }
  done(): Float64Array {
    return this.store.slice(0, this.length);
  }
}

/** A series by its parts. */
export const seriesOf = (
  kind: SeriesKind,
  part: string,
  t: ArrayLike<number>,
  v: ArrayLike<number>,
  where: Series['where'] = 'part',
): Series => ({ kind, part, where, t: Float64Array.from(t), v: Float64Array.from(v) });
