import { csvOf } from '../formats/writer/csv';
import { runsOfBox, type Bench, type Box } from '../model/bench';
import { quantityCodes, type TunePlan, type TuneRun } from '../model/tune';
import { quantities } from './quantities';
import { counts, setsOf } from './results';

/** All runs of a box as CSV (RFC 4180), one line each, quantities with their units in the heads. */
export function tuneCsv(bench: Bench, box: Box): string {
  const plan = box.tune;
  const runs = runsOfBox(bench, box.id);
  const heads = [
    'experiment',
    'question',
    'state',
    'settings',
    'place',
    'at',
    'counts',
    'left out because',
    'source',
    ...quantityCodes.map((c) => (quantities[c].unit === '' ? c : `${c} (${quantities[c].unit})`)),
  ];
  const rows = runs.map((r) => {
    const e = plan?.experiments.find((x) => x.id === r.experimentId);
    const sets = e ? setsOf(e, r.arm) : {};
    const named = Object.entries(sets).map(
      ([id, v]) => `${plan?.settings.find((s) => s.id === id)?.name ?? id}: ${v}`,
    );
    return [
      r.experimentId,
      e?.question ?? '',
      r.arm,
      named.join('; '),
      r.place + 1,
      r.at,
      e && counts(e, r) ? 'yes' : 'no',
      r.leftOut,
      r.source,
      ...quantityCodes.map((c) => r.values[c] ?? null),
    ];
  });
  return csvOf(heads, rows);
}

/** The whole of stop 11 of a box: its plan, and all runs with what was kept of them. */
export const tuneJson = (
  bench: Bench,
  box: Box,
): { box: string; plan: TunePlan | null; runs: readonly TuneRun[] } => ({
  box: box.name,
  plan: box.tune,
  runs: runsOfBox(bench, box.id),
});
