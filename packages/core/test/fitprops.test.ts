import fc from 'fast-check';
import { breakEven, runningCost } from '@zb/core/system/cost';
import { judge, type Judgement } from '@zb/core/system/judge';
import { optionOf, releasesInOrder, supportDays, usualChannel } from '@zb/core/system/options';
import { partsFor } from '@zb/core/system/part';
import { applyRepair } from '@zb/core/system/repair';
import { flipReport, moneyReport, plannedRival } from '@zb/core/system/report';
import { Reader } from '@zb/core/system/places';
import { releaseCard } from '@zb/core/system/school';
import { flipWords, basisWords } from '@zb/core/words/fit/score';
import { supportWords } from '@zb/core/words/fit/school';
import { flips, score } from '@zb/core/system/score';
import { m2Fits, parseSlot, slotText } from '@zb/core/machine/slots';
import { machineView, type MachineView } from '@zb/core/system/view';
import { overrule, takeBackOverrule } from '@zb/core/acts/wishes';
import { ANY, OPEN, profile, release } from '@zb/core/demo/make';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { findMachine, machinesOf, type Profile } from '@zb/core/model/bench';
import { applyChanges } from '@zb/core/model/changes';
import type { FactKey } from '@zb/core/model/facts';
import { criteria, usualSettings, type Criterion } from '@zb/core/model/settings';
import { picker, randomBench } from './shelves';

const GIB = 1024 ** 3;
const seeds = fc.integer({ min: 1, max: 1_000_000 });
const RUNS = { numRuns: 400 };
const must = <T>(v: T | undefined): T => {
  if (v === undefined) throw new Error('missing');
  return v;
};

/** A machine of a made-up shelf and one of the systems. */
function pair(seed: number): { view: MachineView; profile: Profile } {
  const bench = randomBench(seed, { machines: 1, wishes: 0, parts: 5, offers: 2 });
  const machine = must(machinesOf(bench)[0]);
  const pick = picker(seed + 17);
  return {
    view: machineView(bench, machine, partsFor(bench, machine.id)),
    profile: must(bench.profiles[pick(bench.profiles.length)]),
  };
}

describe('what must always hold of a fit', () => {
  it('adding memory, a port or a drive never turns "fits" into "does not fit"', () =>
    fc.assert(
      fc.property(seeds, fc.integer({ min: 0, max: 3 }), (seed, what) => {
        const { view, profile: p } = pair(seed);
        fc.pre(judge(view, p).verdict === 'fits');
        const more = (key: FactKey, by: number): MachineView => ({
          ...view,
          facts: { ...view.facts, [key]: Number(view.facts[key] ?? 0) + by },
        });
        const added = [
          more('memory.bytes', 4 * GIB),
          more('ports.sata', 1),
          more('network.wired', 1),
          {
            ...view,
            drives: [
              ...view.drives,
              {
                name: 'more',
                bytes: 1e12,
                transport: 'sata' as const,
                removable: false,
                fate: 'may be lost' as const,
              },
            ],
          },
        ][what];
        expect(judge(must(added), p).verdict).toBe('fits');
      }),
      RUNS,
    ));

  it('removing a fact never turns "does not fit" or "cannot say" into "fits"', () =>
    fc.assert(
      fc.property(seeds, fc.integer({ min: 0, max: 40 }), (seed, which) => {
        const { view, profile: p } = pair(seed);
        const before = judge(view, p).verdict;
        fc.pre(before === 'does not fit' || before === 'cannot say yet');
        const keys = Object.keys(view.facts) as FactKey[];
        const facts = { ...view.facts };
        delete facts[must(keys[which % keys.length])];
        expect(judge({ ...view, facts }, p).verdict).not.toBe('fits');
      }),
      RUNS,
    ));

  it('the repairs, applied, yield "fits"', () => {
    const kinds = new Set<string>();
    fc.assert(
      fc.property(seeds, (seed) => {
        const { view, profile: p } = pair(seed);
        const judged = judge(view, p);
        fc.pre(judged.verdict === 'fits after a change');
        for (const r of judged.repairs) kinds.add(r.kind === 'part' ? `part ${r.role}` : r.kind);
        const mended = judged.repairs.reduce(applyRepair, view);
        const choice = { releaseId: judged.release.id, variantId: judged.variant.id };
        expect({ seed, verdict: judge(mended, p, choice).verdict }).toEqual({ seed, verdict: 'fits' });
      }),
      { numRuns: 1500 },
    );
    // All kinds of repair were among them.
    for (const kind of ['part memory', 'part drive', 'part wired', 'part ports', 'setting', 'buy', 'release'])
      expect(kinds).toContain(kind);
  });

  it('a verdict that stands does not rest on what is only assumed', () =>
    fc.assert(
      fc.property(seeds, seeds, (seed, other) => {
        const { view, profile: p } = pair(seed);
        const pick = picker(other);
        const keys = Object.keys(view.facts) as FactKey[];
        const assumed = new Set(keys.filter(() => pick(4) === 0));
        const verdict = judge({ ...view, assumed }, p).verdict;
        fc.pre(verdict !== 'cannot say yet' && assumed.size > 0);
        // Whatever else those facts might be, the verdict stays.
        const strange = pair(other).view.facts;
        const facts = { ...view.facts };
        for (const key of assumed) if (strange[key] !== undefined) facts[key] = strange[key];
        expect(judge({ ...view, facts, assumed }, p).verdict).toBe(verdict);
      }),
      RUNS,
    ));

  it('the nearest flip is one: past that weight the second comes first', () =>
    fc.assert(
      fc.property(seeds, seeds, (a, b) => {
        const weights = usualSettings().weights;
        const p = pair(a).profile;
        const [one, two] = [a, b].map((s) => pair(s).view).map((v) => score(v, p, weights, 0));
        const [first, second] =
          must(one).total >= must(two).total ? [must(one), must(two)] : [must(two), must(one)];
        for (const f of flips(first, second, weights)) {
          const views = must(one) === first ? [a, b] : [b, a];
          const at = (w: number): number => {
            const moved = { ...weights, [f.criterion]: w };
            const [x, y] = views.map((s) => score(pair(s).view, p, moved, 0).total);
            return must(x) - must(y);
          };
          const beyond = f.at + (f.at > f.now ? 0.01 : -0.01);
          if (beyond >= 0 && beyond <= 10) expect(at(beyond)).toBeLessThanOrEqual(1e-6);
          expect(Math.abs(at(f.at))).toBeLessThan(1e-6);
        }
      }),
      { numRuns: 150 },
    ));
});

// Which channel a purpose takes first: common practice, no source.
describe('releases, variants and repairs by example', () => {
  const view: MachineView = {
    name: 'M',
    facts: {
      'cpu.arch': 'x86_64',
      'cpu.bits': '64',
      'cpu.level': 'v2',
      'cpu.year': 2010,
      'memory.bytes': 4 * GIB,
      'graphics.family': 'out-of-tree',
      'firmware.mode': 'uefi',
      'firmware.secureBoot': 'off',
    },
    drives: [{ name: 'd', bytes: 64e9, transport: 'sata', removable: false, fate: 'may be lost' as const }],
    parts: [],
  };
  const both = profile(
    'p',
    'P',
    'games',
    '',
    [
      release('9', { channel: 'newest', cpuLevel: 'v3', supportEnd: '2027-01-31' }),
      release('8', { cpuLevel: 'v2', oldestYear: 2012, supportEnd: '2026-05-01' }),
      release('7', { channel: 'development', cpuLevel: 'v2' }),
    ],
    { graphics: true },
    { variants: [OPEN, { ...ANY, id: 'closed', name: 'closed' }] },
  );
  const verdicts = (j: Judgement): string[] => j.repairs.map((r) => r.kind);

  it('takes the channel of the purpose first, and names the release and variant that do instead', () => {
    expect(usualChannel('games')).toBe('newest');
    expect(usualChannel('file store')).toBe('long support');
    expect(releasesInOrder(both).map((r) => r.version)).toEqual(['9', '8', '7']);
    const judged = judge(view, both);
    // 9 wants a newer CPU level, 8 a younger machine; only the development build is left, in the closed variant.
    expect([judged.verdict, judged.release.version, judged.variant.name]).toEqual([
      'fits after a change',
      '7',
      'closed',
    ]);
    expect(verdicts(judged)).toEqual(['release', 'variant']);
    expect(judged.binding[0]?.reason).toMatchObject({ code: 'CPU level not reached', need: 'v3' });
  });

  it('a chosen release is judged as chosen', () => {
    const judged = judge(view, both, { releaseId: 'r8', variantId: 'closed' });
    expect(judged.verdict).toBe('fits after a change');
    expect(judged.repairs.map((r) => r.kind)).toEqual(['release']);
    expect(optionOf(both, { releaseId: 'gone' }).release.version).toBe('9');
  });

  it('too old and too new are limits of the trade: they can be set aside with a reason, and taken back', () => {
    const bench = saltmarshHall();
    const gull = must(findMachine(bench, 'gull'));
    const tunes = must(bench.profiles.find((p) => p.id === 'millpond-tunes'));
    const before = judge(machineView(bench, gull), tunes);
    const window = must(before.all.find((f) => f.rule === 'release window'));
    expect([window.outcome, window.soft]).toEqual(['no', true]);
    const stamp = { now: '2026-05-01T10:00:00.000Z', id: () => 'log-1' };
    const aside = applyChanges(
      bench,
      overrule(gull, { key: tunes.id, name: tunes.name }, window.rule, 'a friend runs it', null, stamp)
        .changes,
    );
    const after = judge(machineView(aside, must(findMachine(aside, 'gull'))), tunes);
    expect(after.all.find((f) => f.rule === 'release window')).toMatchObject({
      outcome: 'meets',
      overruled: 'a friend runs it',
    });
    expect(aside.log.find((e) => e.id === 'log-1')?.text).toMatch(/a friend runs it/);
    const back = applyChanges(
      aside,
      takeBackOverrule(must(findMachine(aside, 'gull')), tunes.id, window.rule).changes,
    );
    expect(judge(machineView(back, must(findMachine(back, 'gull'))), tunes).all).toEqual(before.all);
  });

  it('support is told in dates and days, past ones too', () => {
    const [nine, eight, seven] = both.releases;
    expect(supportDays(must(nine), '2026-11-25T09:00:00Z')).toBe(67);
    expect(supportWords(must(eight), supportDays(must(eight), '2026-11-25T09:00:00Z'))).toBe(
      'support ended 2026-05-01, 208 days ago',
    );
    expect(supportWords(must(seven), supportDays(must(seven), '2026-11-25T09:00:00Z'))).toMatch(/not noted/);
    const card = releaseCard(view, both, { releaseId: 'r8' }, '2026-11-25T09:00:00Z');
    expect(card.releases.map((r) => [r.release.version, r.judged.verdict])).toEqual([
      ['9', 'does not fit'],
      ['8', 'does not fit'],
      ['7', 'fits'],
    ]);
    expect(card.variants.map((v) => v.judged.verdict)).toEqual(['does not fit', 'fits']);
  });

  // PCI Express M.2 Specification: a module keyed B+M goes into both sockets, length and protocol must match as well.
  it.each([
    ['2280', 'M', 4, 'nvme', 'M 2280 nvme x4', true],
    ['2230', 'M', 4, 'nvme', 'M 2280 nvme x4', false],
    ['2230', 'M', 4, 'nvme', 'M 2230/2280 nvme x4', true],
    ['2280', 'B+M', 0, 'sata', 'B 2280 sata x2', true],
    ['2280', 'B+M', 0, 'sata', 'M 2280 nvme x4', false],
    ['2280', 'B+M', 2, 'nvme', 'M 2280 nvme x4', true],
    ['2280', 'M', 4, 'nvme', 'B 2280 nvme x2', false],
    ['2242', 'B', 0, 'sata', 'B 2242 sata', true],
  ] as const)('M.2 %s key %s ×%i %s in “%s”: %s', (length, key, lanes, protocol, slot, fits) =>
    expect(m2Fits({ length, key, lanes }, protocol, must(parseSlot(slot)))).toBe(fits),
  );

  it('slots are read as people note them, and written in one way', () => {
    expect(slotText(must(parseSlot('2280, M-key'.replace('-', ' ')))).startsWith('M 2280 nvme x4')).toBe(
      true,
    );
    expect(slotText(must(parseSlot('b 2242/2280 sata x2')))).toBe('B 2242/2280 sata x2');
    for (const bad of ['', 'M', '2280', 'M 2281', 'M 2280 fast']) expect(parseSlot(bad)).toBeUndefined();
  });

  it('the cheapest part that goes in is named: type and slot, length and key, not the next best', () => {
    const bench = saltmarshHall();
    const host = must(bench.profiles.find((p) => p.id === 'quayside-host'));
    const clerk = judge(machineView(bench, must(findMachine(bench, 'clerk'))), host);
    expect(clerk.repairs).toMatchObject([{ kind: 'part', part: { id: 'mem-16' } }]);
    expect(clerk.cost).toBe(0);
    // Slate takes SO-DIMM of another type: the same module is no repair for it.
    const store = must(bench.profiles.find((p) => p.id === 'lantern-arcade'));
    const slate = machineView(bench, must(findMachine(bench, 'slate')));
    const bigger = { ...store, needs: { ...store.needs, memoryBytes: 8 * GIB } };
    expect(judge(slate, bigger).repairs.flatMap((r) => (r.kind === 'part' ? [r.part.id] : []))).toContain(
      'mem-4',
    );
  });
});

describe('money and scores', () => {
  const reader = (facts: MachineView['facts']): Reader =>
    new Reader({ name: 'M', facts, drives: [], parts: [] });

  it('a year costs watts × hours × 365 × tariff', () => {
    // By hand: 10 W idle, no load known, 24 h: 10 × 24 × 365 / 1000 = 87.6 kWh, at 0.30 = 26.28.
    expect(runningCost(reader({ 'power.idle': 10 }), 'firewall', 24, 0.3)?.perYear).toBeCloseTo(26.28, 6);
    // Firewalls work a tenth of the time: 0.9 × 10 + 0.1 × 60 = 15 W.
    expect(
      runningCost(reader({ 'power.idle': 10, 'power.load': 60 }), 'firewall', 24, 0.3)?.wattsMean,
    ).toBeCloseTo(15, 9);
    expect(runningCost(reader({}), 'firewall', 24, 0.3)).toBeUndefined();
  });

  it('break-even is the price over the saving, or never', () => {
    expect(breakEven(60, 20, 80).years).toBeCloseTo(2, 9);
    expect(breakEven(20, 60, 80).years).toBeNull();
    expect(breakEven(60, 20, 0).years).toBe(0);
    const money = moneyReport(saltmarshHall(), 'old-oak', 'file store', 24);
    expect(money.against.find((a) => a.machineId === 'buy-desktop')?.even.price).toBe(95);
    expect(moneyReport(saltmarshHall(), 'skerry', 'music', 8).own).toBeUndefined();
  });

  it('a score is the weighted mean of its parts and never leaves 0 to 100', () =>
    fc.assert(
      fc.property(
        seeds,
        fc.record(
          Object.fromEntries(criteria.map((c) => [c, fc.integer({ min: 0, max: 10 })])) as Record<
            Criterion,
            fc.Arbitrary<number>
          >,
        ),
        (seed, weights) => {
          const { view, profile: p } = pair(seed);
          const s = score(view, p, weights, 10);
          const sum = criteria.reduce((n, c) => n + weights[c], 0);
          const mean = sum === 0 ? 0 : s.parts.reduce((n, x) => n + weights[x.criterion] * x.value, 0) / sum;
          expect(s.total).toBeCloseTo(100 * mean, 6);
          expect(s.total).toBeGreaterThanOrEqual(0);
          expect(s.total).toBeLessThanOrEqual(100 + 1e-9);
          expect(s.parts.every((x) => basisWords(x.basis, { currency: '' }) !== '')).toBe(true);
        },
      ),
      { numRuns: 100 },
    ));

  it('the margin of a crossing says who leads and what would turn it', () => {
    const bench = saltmarshHall();
    const desk = must(bench.wishes.find((w) => w.id === 'w-desk'));
    const report = must(flipReport(bench, 'clerk', must(plannedRival(bench, 'clerk', desk)), desk));
    expect(report.first.total).toBeGreaterThanOrEqual(report.second.total);
    expect(flipWords(report)).toContain(report.first.name);
    expect(flipReport(bench, 'grandfather', 'clerk', desk)).toBeUndefined();
    expect(plannedRival(bench, 'clerk', undefined)).toBeUndefined();
  });
});
