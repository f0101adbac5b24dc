import type { Hazard } from './hazard';
import { route, hazards } from './summary';
import { machinesOf, storesOf, type Bench } from '../model/bench';
import { formatIec } from '../units/bytes';
import { addSpans, formatSpan } from '../units/duration';
import type { LedgerLine } from './stopModule';
import { isInWork } from '../keeping/closed';
import { contentTitle } from '../model/content';

/** What the margin says of the whole bench. */
export interface BenchLedgerData {
  shelf: LedgerLine[];
  /** Drives that must not be lost. */
  precious: LedgerLine[];
  hazards: { boxId: string; box: string; hazard: Hazard }[];
}

/** The whole bench in a few figures: what is on it, what must be kept, what must be dealt with first. */
export function benchLedger(bench: Bench): BenchLedgerData {
  const open = bench.boxes.filter(isInWork);
  const left = open.flatMap((b) => route(bench, b).filter((s) => s.state !== 'signed'));
  const hands = addSpans(left.map((s) => s.hands));
  const stores = storesOf(bench);
  return {
    shelf: [
      {
        label: 'Machines',
        value: String(machinesOf(bench).length),
        because: `${new Set(bench.boxes.map((b) => b.machineId).filter(Boolean)).size} of them in a box`,
      },
      {
        label: 'Drives, sticks, cards',
        value: String(stores.length),
        because: formatIec(stores.reduce((n, s) => n + s.bytes, 0)) + ' in all',
      },
      {
        label: 'Boxes open',
        value: String(open.length),
        because: open.map((b) => `${b.name} ${b.signoffs.length}/12`).join(', ') || 'none',
      },
      {
        label: 'Your hands, all boxes',
        value: formatSpan(hands),
        because: `${left.length} stops left over ${open.length} boxes`,
      },
    ],
    precious: stores
      .filter((s) => s.fate === 'keep')
      .map((s) => ({
        label: s.name,
        value: formatIec(s.bytes),
        because: contentTitle(s) || 'marked to keep',
      })),
    hazards: bench.boxes.flatMap((b) =>
      b.kept?.retired
        ? []
        : hazards(bench, b)
            .filter((h) => h.grade === 'stop')
            .map((h) => ({ boxId: b.id, box: b.name, hazard: h })),
    ),
  };
}
