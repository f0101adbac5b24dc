import { textOf } from '../../units/text';
import { median } from '../numbers/describe';
import { Clock, clockOf, epochScale, figureOf, isMissing, type ClockKind } from './cells';
import { columnOf, unitOf, type Column } from './heads';
import {
  Growing,
  LogReadError,
  MOST_LINE,
  MOST_ROWS,
  seriesOf,
  type LogFault,
  type LogKind,
  type Series,
  type TuneLog,
} from './log';

/** Told now and then while a long log is read: the share that is done, 0 to 1. */
export type TellShare = (share: number) => void;

const COMMA = 44;
const SEMICOLON = 59;
const TAB = 9;
const NEWLINE = 10;
const RETURN = 13;
/** Bytes of a line of heads; no table has a longer one. */
const MOST_HEADS = 16 * 1024;
const text = (bytes: Uint8Array, from: number, to: number): string => textOf(bytes.subarray(from, to));

/** A plain decimal number in ASCII; NaN where it is anything else. Quicker than making a text of it. */
function plainNumber(bytes: Uint8Array, from: number, to: number): number {
  let i = from;
  let end = to;
  while (i < end && bytes[i] === 32) i += 1;
  while (end > i && bytes[end - 1] === 32) end -= 1;
  let sign = 1;
  if (bytes[i] === 45) {
    sign = -1;
    i += 1;
  }
  if (i >= end || end - i > 17) return NaN;
  let whole = 0;
  let digits = 0;
  let scale = 0;
  for (; i < end; i += 1) {
    const c = bytes[i] ?? 0;
    if (c >= 48 && c <= 57) {
      whole = whole * 10 + (c - 48);
      digits += 1;
      if (scale > 0) scale *= 10;
    } else if (c === 46 && scale === 0) scale = 1;
    else return NaN;
  }
  if (digits === 0 || digits > 15) return NaN;
  return (sign * whole) / (scale === 0 ? 1 : scale);
}

interface Shape {
  delimiter: number;
  /** Where the head ends, in bytes; the rows begin there. */
  begin: number;
  heads: string[];
  line: number;
}

/** Cells of a line, quotes taken off. */
function cellsOf(line: string, delimiter: number): string[] {
  const by = String.fromCharCode(delimiter);
  if (!line.includes('"')) return line.split(by).map((c) => c.trim());
  const out: string[] = [];
  let cell = '';
  let quoted = false;
  for (let i = 0; i < line.length; i += 1) {
    const c = line[i] ?? '';
    if (c === '"') {
      if (quoted && line[i + 1] === '"') {
        cell += '"';
        i += 1;
      } else quoted = !quoted;
    } else if (c === by && !quoted) {
      out.push(cell.trim());
      cell = '';
    } else cell += c;
  }
  out.push(cell.trim());
  return out;
}

const known = (c: Column): boolean => c.is === 'frame time' || c.is === 'series' || c.is === 'energy';

/** Finds head and delimiter among the first lines: the first with a column we know, over rows of figures. */
function shapeOf(bytes: Uint8Array): Shape {
  let at = bytes[0] === 0xef && bytes[1] === 0xbb ? 3 : 0;
  for (let line = 1; line <= 60 && at < bytes.length; line += 1) {
    let end = bytes.indexOf(NEWLINE, at);
    if (end < 0) end = bytes.length;
    const words = end - at > MOST_HEADS ? '' : text(bytes, at, end).replace(/\r$/, '').replace(/^#\s*/, '');
    const best = [TAB, SEMICOLON, COMMA]
      .map((delimiter) => ({ delimiter, heads: cellsOf(words, delimiter) }))
      .filter(({ heads }) => heads.length <= 400 && !heads.every((h) => h === '' || figureOf(h)))
      .map((x) => ({ ...x, known: x.heads.filter((h) => known(columnOf(h))).length }))
      // A head that is whole by one sign may look like one long head by another.
      .reduce(
        (a, b) => (b.known > a.known || (b.known === a.known && b.heads.length > a.heads.length) ? b : a),
        {
          delimiter: 0,
          heads: [] as string[],
          known: 0,
        },
      );
    if (best.known > 0) return { ...best, begin: Math.min(bytes.length, end + 1), line: line + 1 };
    // A column of figures without a head is frame times in ms.
    if (figureOf(words) && !/[,;\t]/.test(words.trim().replace(/,(?=\d+$)/, '')))
      return { delimiter: SEMICOLON, begin: at, heads: [], line };
    at = end + 1;
  }
  throw new LogReadError('no log', 'no line among the first sixty names a column that is known');
}

interface Reading {
  column: Column;
  head: string;
  values: Growing;
  units: Set<string>;
}

/** Reads a table of readings or of frame times: with any of the usual delimiters, heads, clocks and units. Throws LogReadError. */
export function readTable(bytes: Uint8Array, tell?: TellShare): TuneLog {
  const shape = shapeOf(bytes);
  const faults: LogFault[] = [];
  const columns: Column[] =
    shape.heads.length === 0 ? [{ is: 'frame time', scale: null, rank: 0 }] : shape.heads.map(columnOf);
  const best = columns.reduce(
    (a, c, i) => (c.is === 'frame time' && (a < 0 || c.rank < rankOf(columns[a])) ? i : a),
    -1,
  );
  const timeAt = columns.findIndex((c) => c.is === 'time');
  const readings = columns.map((column, i): Reading | undefined =>
    (known(column) && (column.is !== 'frame time' || i === best)) || i === timeAt
      ? { column, head: shape.heads[i] ?? '', values: new Growing(), units: new Set() }
      : undefined,
  );
  const passed = shape.heads.filter((h, i) => h !== '' && !readings[i]);
  const last = readings.length - 1 - [...readings].reverse().findIndex(Boolean);
  const grouped = shape.delimiter === COMMA && hasGroups(bytes, shape.begin);
  const clock = new Clock();
  const kinds = new Set<ClockKind>();
  let scale: number | null = null;
  let line = shape.line - 1;
  let rows = 0;
  let bad = 0;
  let firstBad = 0;
  let long = 0;
  let firstLong = 0;
  let cut = false;
  const row = new Float64Array(readings.length);
  let at = shape.begin;
  while (at < bytes.length) {
    let end = bytes.indexOf(NEWLINE, at);
    const open = end < 0;
    if (open) end = bytes.length;
    line += 1;
    const stop = end > at && bytes[end - 1] === RETURN ? end - 1 : end;
    if ((line & 0x3fff) === 0) tell?.(at / bytes.length);
    if (stop - at > MOST_LINE) {
      long += 1;
      if (long === 1) firstLong = line;
    } else if (stop > at && bytes[at] !== 35) {
      const found = rowOf(bytes, at, stop, shape.delimiter, readings, row, last, grouped);
      if (found === 'good') {
        if (rows >= MOST_ROWS) {
          faults.push({ code: 'too many', kept: MOST_ROWS });
          break;
        }
        const told =
          timeAt >= 0 ? timeOf(bytes, at, stop, shape.delimiter, timeAt, row[timeAt] ?? NaN) : undefined;
        if (timeAt >= 0 && !told) {
          bad += 1;
          if (bad === 1) firstBad = line;
        } else {
          if (told) {
            kinds.add(told.kind);
            const column = columns[timeAt];
            scale ??=
              (column?.is === 'time' ? column.scale : null) ??
              (told.kind === 'number' ? epochScale(told.seconds) : 1);
            const seconds = told.kind === 'number' ? told.seconds * scale : told.seconds;
            row[timeAt] = clock.take(seconds, told.kind, line);
          }
          for (let i = 0; i < readings.length; i += 1) readings[i]?.values.push(row[i] ?? NaN);
          rows += 1;
        }
      } else if (found === 'short' && open) cut = true;
      else if (!(found === 'head')) {
        bad += 1;
        if (bad === 1) firstBad = line;
      }
    }
    at = end + 1;
  }
  clock.close();
  if (rows === 0) throw new LogReadError('no log', 'no line has a figure in it');
  if (cut) faults.push({ code: 'cut', line });
  if (bad > 0) faults.push({ code: 'not numbers', lines: bad, first: firstBad });
  if (long > 0) faults.push({ code: 'long line', lines: long, first: firstLong });
  if (clock.back > 0) faults.push({ code: 'clock back', times: clock.back, first: clock.firstBack });
  if (kinds.size > 1) faults.push({ code: 'mixed clocks', kinds: [...kinds] });
  if (clock.gaps > 0) faults.push({ code: 'gap', times: clock.gaps, longest: clock.longest });
  if (passed.length > 0 && timeAt !== -1)
    faults.push({ code: 'columns passed over', columns: passed.slice(0, 40) });
  for (const r of readings)
    if (r && r.units.size > 1)
      faults.push({ code: 'mixed units', column: r.head, units: [...r.units].map((u) => u || 'none') });
  return put(readings, columns, best, timeAt, rows, line, faults);
}

/** A quoted figure with commas in it, and the same where they part thousands. */
const QUOTED = /"\s*([-+]?\d+(?:,\d+)+(?:\.\d+)?)\s*"/g;
const THOUSANDS = /^[-+]?\d{1,3}(?:,\d{3})+(?:\.\d+)?$/;
const PEEKED = 64 * 1024;
/** Do commas within quotes part thousands? Where columns are parted by commas they do, unless one cannot. */
function hasGroups(bytes: Uint8Array, from: number): boolean {
  const found = [...text(bytes, from, Math.min(bytes.length, from + PEEKED)).matchAll(QUOTED)];
  return found.length > 0 && found.every(([, figure = '']) => THOUSANDS.test(figure));
}
const withoutGroups = (cell: string): string => cell.replace(/(\d),(?=\d{3}(?:\D|$))/g, '$1');

const rankOf = (c: Column | undefined): number => (c?.is === 'frame time' ? c.rank : Infinity);

/** Reads the cells of a line that are wanted into `row`. */
function rowOf(
  bytes: Uint8Array,
  from: number,
  to: number,
  delimiter: number,
  readings: readonly (Reading | undefined)[],
  row: Float64Array,
  last: number,
  grouped: boolean,
): 'good' | 'short' | 'bad' | 'head' {
  let at = from;
  let good = 0;
  let bad = 0;
  for (let i = 0; i <= last; i += 1) {
    if (at > to) return 'short';
    let end = at;
    if (readings.length === 1) end = to;
    else {
      let quoted = false;
      while (end < to && (quoted || bytes[end] !== delimiter)) {
        if (bytes[end] === 34) quoted = !quoted;
        end += 1;
      }
    }
    const r = readings[i];
    if (r) {
      const value = plainNumber(bytes, at, end);
      if (!Number.isNaN(value)) {
        row[i] = inUnit(r, value, '');
        good += 1;
      } else if (r.column.is === 'time') row[i] = NaN;
      else {
        const cell = grouped ? withoutGroups(text(bytes, at, end)) : text(bytes, at, end);
        const figure = figureOf(cell);
        if (figure) {
          row[i] = inUnit(r, figure.value, figure.unit);
          good += 1;
        } else {
          row[i] = NaN;
          if (cell.trim() === r.head) return 'head';
          if (!isMissing(cell)) bad += 1;
        }
      }
    }
    at = end + 1;
  }
  return good > 0 && bad === 0 ? 'good' : bad > 0 || readings.length === 1 ? 'bad' : 'good';
}

/** A figure in its column’s unit, by its own where it has one. */
function inUnit(r: Reading, value: number, unit: string): number {
  const { column } = r;
  if (column.is === 'time') return value;
  if (unit !== '') {
    r.units.add(unit);
    const own = unitOf(unit);
    if (own && column.is === 'series' && own.kind === column.kind)
      return value * own.scale + (own.offset ?? 0);
    if (own && column.is === 'frame time' && own.kind === 'time') return value * own.scale * 1e3;
  } else if (r.units.size > 0) r.units.add('');
  if (column.is === 'series') return value * column.scale + column.offset;
  if (column.is === 'energy') return value * column.scale;
  return column.is === 'frame time' ? value * (column.scale ?? 1) : value;
}

function timeOf(
  bytes: Uint8Array,
  from: number,
  to: number,
  delimiter: number,
  column: number,
  plain: number,
): { seconds: number; kind: ClockKind } | undefined {
  if (!Number.isNaN(plain)) return { seconds: plain, kind: 'number' };
  return clockOf(cellsOf(text(bytes, from, to), delimiter)[column] ?? '');
}

/** Frame times whose unit nobody said: by what their middle can only be. Common practice, no source. */
function guessed(middle: number): { unit: string; scale: number } {
  if (middle >= 1e6) return { unit: 'ns', scale: 1e-6 };
  if (middle >= 2000) return { unit: 'µs', scale: 1e-3 };
  if (middle < 0.5) return { unit: 's', scale: 1e3 };
  return { unit: 'ms', scale: 1 };
}

function framesOf(r: Reading, faults: LogFault[]): Float64Array {
  const all = r.values.done();
  let count = 0;
  let first = 0;
  const kept = all.filter((v, i) => {
    if (v > 0 && Number.isFinite(v)) return true;
    count += 1;
    if (count === 1) first = i + 1;
    return false;
  });
  if (count > 0) faults.push({ code: 'not frames', count, first });
  if (r.column.is !== 'frame time' || r.column.scale !== null || r.units.size > 0 || kept.length === 0)
    return kept;
  const middle = median(kept.length > 20_000 ? kept.slice(0, 20_000) : kept);
  const { unit, scale } = guessed(middle);
  faults.push({ code: 'unit guessed', column: r.head, unit, median: middle * scale });
  return scale === 1 ? kept : kept.map((v) => v * scale);
}

/** What was read, as a log. */
function put(
  readings: readonly (Reading | undefined)[],
  columns: readonly Column[],
  best: number,
  timeAt: number,
  rows: number,
  lines: number,
  faults: LogFault[],
): TuneLog {
  const frame = best >= 0 ? readings[best] : undefined;
  const frames = frame ? framesOf(frame, faults) : null;
  let t = timeAt >= 0 ? readings[timeAt]?.values.done() : undefined;
  const wanted = columns.some((c, i) => (c.is === 'series' || c.is === 'energy') && readings[i]);
  if (!t && wanted) {
    // Beside frame times each row is a frame; elsewhere a second is what most recorders take.
    if (frame && frames?.length === rows) {
      t = new Float64Array(rows);
      for (let i = 1; i < rows; i += 1) t[i] = (t[i - 1] ?? 0) + (frames[i] ?? 0) / 1000;
    } else {
      t = Float64Array.from({ length: rows }, (_, i) => i);
      faults.push({ code: 'no times', seconds: 1 });
    }
  }
  const series: Series[] = [];
  const powers = columns.filter((c) => c.is === 'series' && c.kind === 'power').length;
  const heats = columns.some(
    (c) => c.is === 'series' && c.kind !== 'power' && c.kind !== 'voltage' && c.kind !== 'current',
  );
  for (const r of readings) {
    if (!r || !t) continue;
    const { column } = r;
    if (column.is === 'series') {
      // A meter’s own file has one power, and nothing of the inside.
      const where = column.kind === 'power' && powers === 1 && !heats && !frame ? 'wall' : column.where;
      series.push(seriesOf(column.kind, column.part, t, r.values.done(), where));
    } else if (column.is === 'energy') series.push(fromEnergy(column.part, column.where, t, r.values.done()));
  }
  const kind: LogKind = series.length === 0 && frames ? 'frame times' : 'table';
  return { kind, lines, series, frames, facts: [], faults };
}

/** Watts from a counter of joules that begins again at 0 now and then; such a reading is missing. */
function fromEnergy(part: string, where: Series['where'], t: Float64Array, joules: Float64Array): Series {
  const v = Float64Array.from(joules, (j, i) => {
    const [before, since] = [joules[i - 1], (t[i] ?? 0) - (t[i - 1] ?? 0)];
    return before === undefined || j < before || !(since > 0) ? NaN : (j - before) / since;
  });
  return seriesOf('power', part, t, v, where);
}
