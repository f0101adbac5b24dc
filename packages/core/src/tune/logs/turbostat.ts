import { seriesOf, type LogFault, type Series, type SeriesKind, type TuneLog } from './log';

const COLUMNS: Readonly<Record<string, readonly [SeriesKind, string]>> = {
  'Busy%': ['load', 'processor'],
  Bzy_MHz: ['clock', 'processor'],
  CoreTmp: ['temperature', 'hottest core'],
  PkgTmp: ['temperature', 'processor package'],
  PkgWatt: ['power', 'processor package'],
  CorWatt: ['power', 'cores'],
  GFXWatt: ['power', 'graphics'],
  RAMWatt: ['power', 'memory'],
  GFXMHz: ['clock', 'graphics'],
  SysWatt: ['power', 'system'],
};
/** Seconds between prints where nobody says otherwise (turbostat(8), --interval). */
const INTERVAL = 5;

/** What turbostat printed (turbostat(8)): the line that sums all processors up, of each print. Undefined where it is none. */
export function readTurbostat(text: string): TuneLog | undefined {
  const lines = text.split('\n');
  let heads: string[] | undefined;
  const rows: Map<string, number>[] = [];
  let bad = 0;
  let firstBad = 0;
  let summed = false;
  let cut = false;
  let waiting = false;
  for (const [i, line] of lines.entries()) {
    const cells = line.trim().split(/\s+/);
    if (cells.includes('Busy%') || cells.includes('PkgWatt') || cells.includes('Bzy_MHz')) {
      heads = cells;
      waiting = true;
      continue;
    }
    if (!heads || line.trim() === '') continue;
    const core = heads.findIndex((h) => h === 'CPU' || h === 'Core');
    const sums = core < 0 || cells[core] === '-';
    if (sums && core >= 0) summed = true;
    // Without a line of sums (one processor) the first line after the heads is it.
    if (!sums && (summed || !waiting)) continue;
    waiting = false;
    if (cells.length < heads.length && i >= lines.length - 2) {
      cut = true;
      continue;
    }
    const row = new Map(
      heads.map((h, at) => [h, Number(cells[at])] as const).filter(([, v]) => Number.isFinite(v)),
    );
    if (![...row.keys()].some((k) => k in COLUMNS)) {
      bad += 1;
      if (bad === 1) firstBad = i + 1;
    } else rows.push(row);
  }
  if (!heads || rows.length === 0) return undefined;
  const faults: LogFault[] = [];
  const clock = rows.map((r) => r.get('Time_Of_Day_Seconds'));
  const micros = rows.map((r) => r.get('usec'));
  let t: number[];
  if (clock.every((c) => c !== undefined)) t = clock.map((c) => (c ?? 0) - (clock[0] ?? 0));
  else if (micros.every((c) => c !== undefined && c > 0)) {
    let now = 0;
    t = micros.map((m, i) => (i === 0 ? 0 : (now += (m ?? 0) / 1e6)));
  } else {
    t = rows.map((_, i) => i * INTERVAL);
    faults.push({ code: 'no times', seconds: INTERVAL });
  }
  if (bad > 0) faults.push({ code: 'not numbers', lines: bad, first: firstBad });
  if (cut) faults.push({ code: 'cut', line: lines.length });
  const series = Object.entries(COLUMNS).flatMap(([head, [kind, part]]): Series[] =>
    rows.some((r) => r.has(head))
      ? [
          seriesOf(
            kind,
            part,
            t,
            rows.map((r) => r.get(head) ?? NaN),
          ),
        ]
      : [],
  );
  return { kind: 'turbostat', lines: lines.length, series, frames: null, facts: [], faults };
}
