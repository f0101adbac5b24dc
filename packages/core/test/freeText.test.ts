import fc from 'fast-check';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { hazards } from '@zb/core/box/summary';
import { gatherList } from '@zb/core/gather/list';
import { findMachine, machinesOf, storesOf, type Bench } from '@zb/core/model/bench';
import { isStore } from '@zb/core/model/shelf';
import { bootLadder } from '@zb/core/starting/ladder';
import { judge } from '@zb/core/system/judge';
import { machineView } from '@zb/core/system/view';
import { guardTargets } from '@zb/core/write/guard';
import { arranged } from '@zb/core/model/bench';
import { randomBench } from './shelves';

/** Words that a reader of sentences would fall for. */
const TEMPTING = [
  'empty',
  'a system that starts',
  'nothing that matters',
  'may be lost',
  'irreplaceable, keep',
  'ESP (vfat), ext4',
  'Secure Boot is on',
  'does not fit',
  'too small; needs 8 GiB',
  'starts',
];
const text = fc.oneof(fc.constantFrom(...TEMPTING), fc.string({ minLength: 1, maxLength: 60 }));

/** The bench with every free text in it replaced: names stay names of something, ids and serials stay. */
function reworded(bench: Bench, say: () => string): Bench {
  const n = say;
  return {
    ...bench,
    name: n(),
    items: bench.items.map((i) => ({
      ...i,
      name: n(),
      ...('notes' in i ? { notes: n() } : {}),
      ...(isStore(i) ? { holds: n() } : {}),
      ...(i.kind === 'machine' ? { overruled: i.overruled.map((o) => ({ ...o, reason: n() })) } : {}),
    })),
    profiles: bench.profiles.map((p) => ({
      ...p,
      name: n(),
      about: n(),
      variants: p.variants.map((v) => ({ ...v, name: n() })),
    })),
    wishes: bench.wishes.map((w) => ({ ...w, name: n(), notes: n() })),
    boxes: bench.boxes.map((b) => ({
      ...b,
      name: n(),
      decisions: b.decisions.map((d) => ({ ...d, value: n(), because: n() })),
      written: b.written && { ...b.written, explanation: n() },
    })),
    log: bench.log.map((e) => ({ ...e, text: n() })),
  };
}

/** All that is decided, with nothing that only names it. */
function decided(bench: Bench): unknown {
  return {
    fit: machinesOf(bench).map((m) =>
      bench.profiles.map((p) => {
        const judged = judge(machineView(bench, m), p);
        return {
          verdict: judged.verdict,
          likely: judged.likely,
          rules: judged.all.map((f) => [f.rule, f.outcome, f.reason.code]),
          repairs: judged.repairs.map((r) => [r.kind, r.kind === 'part' ? r.part.id : '']),
          cost: judged.cost,
        };
      }),
    ),
    boxes: bench.boxes.map((box) => {
      const machine = findMachine(bench, box.machineId);
      return {
        hazards: hazards(bench, box).map((h) => [h.code, h.grade, h.stop, h.store]),
        ladder: machine && {
          result: bootLadder(bench, box, machine).result,
          rungs: bootLadder(bench, box, machine).rungs.map((r) => [r.entry.kind, r.state, r.why.code]),
        },
        gather: gatherList(bench, box).lines.map((l) => [l.key, l.where, l.thing.code]),
      };
    }),
    guard: guardTargets(
      storesOf(bench).map((s) => ({
        id: s.id,
        bytes: s.bytes,
        serial: s.serial,
        model: 'stick',
        port: '1',
      })),
      storesOf(bench),
      1e9,
    ).map((g) => [g.allowed, g.refusals.map((r) => r.rule)]),
  };
}

it('no free text changes a verdict', () => {
  const benches = [
    saltmarshHall(),
    ...[11, 12, 13].map((s) => arranged(randomBench(s, { machines: 4, wishes: 3, parts: 6, offers: 2 }))),
  ];
  const before = benches.map(decided);
  fc.assert(
    fc.property(fc.nat(benches.length - 1), fc.array(text, { minLength: 5, maxLength: 12 }), (at, words) => {
      let i = 0;
      const say = (): string => words[(i += 1) % words.length] ?? 'x';
      const bench = benches[at];
      if (bench) expect(decided(reworded(bench, say))).toEqual(before[at]);
    }),
    { numRuns: 24 },
  );
});

it('the property can fail: what is data does change them', () => {
  const demo = saltmarshHall();
  const kept = {
    ...demo,
    items: demo.items.map((i) => (isStore(i) ? { ...i, fate: 'keep' as const } : i)),
  };
  expect(decided(kept)).not.toEqual(decided(demo));
});
