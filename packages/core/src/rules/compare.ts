import { fields, type Field, type PacketState } from './ruleset';
import { judgeRules, type Gate } from './fates';
import { isUnknown, type Fate } from './flatten';
import type { Node } from './forest';
import { sampleOf } from './sample';
import type { NumberedPacket } from './walk';

/** Packets whose end differs between two rulesets: where they come in, ranges of their fields, and both ends. */
export interface Changed {
  state: PacketState;
  /** It is so where more come than the rates let in. */
  above: boolean;
  iif: readonly string[];
  /** Only fields that are narrowed. */
  spans: Partial<Record<Field, readonly (readonly [bigint, bigint])[]>>;
  was: Fate;
  is: Fate;
  /** A part nobody understands decides whether it changes. */
  unsure: boolean;
  sample: NumberedPacket | null;
}

/** What differs between two rulesets, over all packets. */
export interface Comparison {
  same: boolean;
  /** Kinds of packet whose end differs; `cut` where there are more than were told. */
  changed: Changed[];
  cut: boolean;
}

const MOST = 500;
const PAIR = 4096;
/** Classes looked at for the example of each kind. */
const FEW_LOOKED = 12;

type Box = { iif: readonly string[]; spans: Record<Field, readonly [bigint, bigint]> };

/** Lists of boxes with neighbours joined: two that differ in one field only become one. */
function joined(
  boxes: readonly Box[],
): { iif: readonly string[]; spans: Record<Field, (readonly [bigint, bigint])[]> }[] {
  let list = boxes.map((b) => ({
    iif: b.iif,
    spans: Object.fromEntries(fields.map((f) => [f, [b.spans[f]]])) as Record<
      Field,
      (readonly [bigint, bigint])[]
    >,
  }));
  const text = (r: readonly (readonly [bigint, bigint])[]): string => r.map(([a, b]) => `${a}-${b}`).join();
  for (const field of ['iif', ...fields] as const) {
    const byRest = new Map<string, (typeof list)[number]>();
    for (const b of list) {
      const key = [
        field === 'iif' ? '' : b.iif.join(),
        ...fields.map((f) => (f === field ? '' : text(b.spans[f]))),
      ].join('|');
      const there = byRest.get(key);
      if (!there) byRest.set(key, b);
      else if (field === 'iif') byRest.set(key, { ...there, iif: [...new Set([...there.iif, ...b.iif])] });
      else {
        const all = [...there.spans[field], ...b.spans[field]].sort((x, y) => (x[0] < y[0] ? -1 : 1));
        const merged: [bigint, bigint][] = [];
        for (const [from, to] of all) {
          const last = merged.at(-1);
          if (last && from <= last[1] + 1n) last[1] = to > last[1] ? to : last[1];
          else merged.push([from, to]);
        }
        byRest.set(key, { ...there, spans: { ...there.spans, [field]: merged } });
      }
    }
    list = [...byRest.values()];
  }
  return list;
}

/** Every packet whose end differs between two gates, as classes. Throws TooManyClasses. */
export function compareRules(before: Gate, after: Gate, known: readonly bigint[] = []): Comparison {
  const { universe, fates, judged } = judgeRules([before, after]);
  const { forest } = universe;
  const [a, b] = judged;
  const changed: Changed[] = [];
  let cut = false;
  const rates = universe.flagDims('rate');
  const seen = new Set<Node>();
  for (const [state, wholeA] of a?.roots ?? [])
    for (const below of rates.size > 0 ? [1, 0] : [1]) {
      const wholeB = b?.roots.get(state);
      if (wholeB === undefined) continue;
      // Rates of two rulesets are no conditions of one another: both are looked at below all of them, and above all.
      const rootA = forest.fixed(wholeA, rates, below);
      const rootB = forest.fixed(wholeB, rates, below);
      const pairs = forest.both(rootA, rootB, (x, y) => (differ(fates[x], fates[y]) ? 1 + x * PAIR + y : 0));
      if (!forest.any(pairs) || seen.has(pairs)) continue;
      if (state === 'new') seen.add(pairs);
      const byPair = new Map<string, { value: number; unsure: boolean; boxes: Box[] }>();
      let count = 0;
      for (const { box, value } of forest.each(pairs, (v) => v > 0)) {
        if ((count += 1) > 12 * MOST) {
          cut = true;
          break;
        }
        const r = universe.ranges(box);
        const unsure = [...r.flags.on, ...r.flags.off].some(isUnknown);
        const key = `${value}|${unsure}`;
        const there = byPair.get(key);
        if (there) there.boxes.push(r);
        else byPair.set(key, { value, unsure, boxes: [r] });
      }
      for (const { value, unsure, boxes } of byPair.values()) {
        const [was, is] = [fates[Math.floor((value - 1) / PAIR)], fates[(value - 1) % PAIR]];
        if (!was || !is) continue;
        for (const { iif, spans } of joined(boxes)) {
          if (changed.length >= MOST) {
            cut = true;
            break;
          }
          const narrowed = Object.fromEntries(
            fields.flatMap((f) => (universe.isWhole(f, spans[f]) ? [] : [[f, spans[f]] as const])),
          );
          const set = universe.setOf([{ iif, spans: narrowed }]);
          const sample = sampleOf(
            universe,
            forest.both(set, pairs, (x, v) => (x === 1 && v === value ? 1 : 0)),
            state,
            known,
            FEW_LOOKED,
          );
          changed.push({ state, above: below === 0, iif, spans: narrowed, was, is, unsure, sample });
        }
      }
    }
  return { same: changed.length === 0, changed, cut };
}

/** Two ends that somebody would notice: refused and dropped differ, the rule that translates does not. */
const differ = (x: Fate | undefined, y: Fate | undefined): boolean => {
  if (!x || !y || x.code === 'impossible' || y.code === 'impossible') return false;
  const to = (f: Fate): string => `${f.code} ${f.dnat?.to ?? ''} ${f.dnat?.port ?? ''} ${f.snat ?? ''}`;
  return to(x) !== to(y);
};
