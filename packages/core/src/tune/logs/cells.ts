import { unitOf } from './heads';

/** A figure as a cell has it, with a unit behind it where there is one. */
export interface CellFigure {
  value: number;
  unit: string;
}

/** Letters of a cell that may hold a figure or a time; a longer one is neither. */
const MOST_CELL = 80;
const MISSING = /^(|-|--|n\/?a|nan|null|none|unavailable)$/i;

/** Whether a cell says that there is no reading. */
export const isMissing = (text: string): boolean => text.length <= MOST_CELL && MISSING.test(text.trim());

/** A figure with or without its unit, with a point or a comma; undefined where it is none. */
export function figureOf(text: string): CellFigure | undefined {
  if (text.length > MOST_CELL) return undefined;
  const found =
    /^\s*"?\s*([-+−]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][-+]?\d{1,3})?)\s*([^\d\s"][^"]{0,11})?\s*"?\s*$/.exec(
      text,
    );
  if (!found) return undefined;
  const value = Number((found[1] ?? '').replace('−', '-').replace(',', '.'));
  const unit = (found[2] ?? '').trim();
  if (!Number.isFinite(value) || (unit !== '' && unit !== '%' && !unitOf(unit))) return undefined;
  return { value, unit };
}

/** How a time is written. */
export type ClockKind = 'number' | 'date' | 'time of day';

const DAY = 86_400;

/** A time in seconds on its own clock; undefined where it is none. Dates are read day first, unless that cannot be. */
export function clockOf(text: string): { seconds: number; kind: ClockKind } | undefined {
  if (text.length > MOST_CELL) return undefined;
  const bare = text.trim().replace(/^"|"$/g, '').trim();
  const figure = figureOf(bare);
  if (figure) return { seconds: figure.value, kind: 'number' };
  const clock = /(\d{1,3}):(\d{2})(?::(\d{2})(?:[.,](\d{1,9}))?)?\s*([ap]m)?/i.exec(bare);
  let ofDay = 0;
  if (clock) {
    const [, a = '0', b = '0', c, fraction = '0', half] = clock;
    const later = /pm/i.test(half ?? '') && Number(a) < 12 ? 12 : 0;
    const noon = /am/i.test(half ?? '') && Number(a) === 12 ? -12 : 0;
    // Two parts are hours and minutes, unless there are not so many hours: then minutes and seconds.
    ofDay =
      c === undefined && Number(a) > 23
        ? Number(a) * 60 + Number(b)
        : (Number(a) + later + noon) * 3600 + Number(b) * 60 + Number(c ?? 0) + Number(`0.${fraction}`);
  }
  const rest = clock ? bare.replace(clock[0], ' ') : bare;
  const iso = /(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})/.exec(rest);
  const local = /(\d{1,2})[./-](\d{1,2})[./-](\d{4})/.exec(rest);
  if (iso ?? local) {
    const [y, m, d] = iso
      ? [Number(iso[1]), Number(iso[2]), Number(iso[3])]
      : Number(local?.[2]) > 12
        ? [Number(local?.[3]), Number(local?.[1]), Number(local?.[2])]
        : [Number(local?.[3]), Number(local?.[2]), Number(local?.[1])];
    if (m < 1 || m > 12 || d < 1 || d > 31) return undefined;
    const zone = /([+-])(\d{2}):?(\d{2})\s*$/.exec(rest.replace(iso?.[0] ?? local?.[0] ?? '', ''));
    const off = zone ? (zone[1] === '-' ? 1 : -1) * (Number(zone[2]) * 3600 + Number(zone[3]) * 60) : 0;
    return { seconds: Date.UTC(y, m - 1, d) / 1000 + ofDay + off, kind: 'date' };
  }
  return clock && rest.trim() === '' ? { seconds: ofDay, kind: 'time of day' } : undefined;
}

/** The scale of a plain number that counts from 1970 or from a start: seconds unless it is too great for them. */
export const epochScale = (first: number): number =>
  first > 1e17 ? 1e-9 : first > 1e14 ? 1e-6 : first > 1e11 ? 1e-3 : 1;

/** Times that only go on: what steps back is carried on by the usual step, so that no reading is lost. */
export class Clock {
  private readonly steps: number[] = [];
  private last: number | undefined;
  private raw: number | undefined;
  private shift = 0;
  back = 0;
  firstBack = 0;
  gaps = 0;
  longest = 0;

  /** The usual step between readings so far, in seconds; 1 where there is none. */
  get step(): number {
    if (this.steps.length === 0) return 1;
    const sortedSteps = [...this.steps].sort((a, b) => a - b);
    return sortedSteps[sortedSteps.length >> 1] ?? 1;
  }

  /** Seconds since the first reading. `line`: where it stands, for what is told. */
  take(seconds: number, kind: ClockKind, line: number): number {
    if (this.raw === undefined || this.last === undefined) {
      this.raw = seconds;
      this.last = 0;
      this.shift = -seconds;
      return 0;
    }
    let by = seconds - this.raw;
    // Past midnight a time of day begins again.
    if (kind === 'time of day' && by < -DAY / 2) {
      by += DAY;
      this.shift += DAY;
    }
    this.raw = seconds;
    if (by < 0) {
      this.back += 1;
      if (this.back === 1) this.firstBack = line;
      const next = this.last + this.step;
      this.shift = next - seconds;
      this.last = next;
      return next;
    }
    if (this.steps.length < 1000) this.steps.push(by);
    else if (by > 2 && by > 5 * this.usual()) {
      this.gaps += 1;
      this.longest = Math.max(this.longest, by);
    }
    this.last = seconds + this.shift;
    return this.last;
  }

  private settled: number | undefined;
  private usual(): number {
    return (this.settled ??= this.step);
  }

  /** Gaps among the first readings, which taught the usual step. */
  close(): void {
    const usual = this.step;
    for (const by of this.steps)
      if (by > 2 && by > 5 * usual) {
        this.gaps += 1;
        this.longest = Math.max(this.longest, by);
      }
  }
}
