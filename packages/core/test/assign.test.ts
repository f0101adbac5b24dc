import loadHighs from 'highs';
import {
  acceptPlan,
  blankWish,
  boxOf,
  changeSettings,
  removeWish,
  toggleForbid,
  togglePin,
} from '@zb/core/acts/wishes';
import { solverFrom } from '@zb/core/assign/highs';
import { lpText, type SolveLp } from '@zb/core/assign/lp';
import { moneyPoints, partPoints } from '@zb/core/assign/model';
import { allowed, optionsOf, worth } from '@zb/core/assign/options';
import { difference, planHeadline, planLines, acceptWords, provenWords } from '@zb/core/words/plan';
import { toAccept } from '@zb/core/assign/accept';
import { committed, sceneOf, type Scene } from '@zb/core/assign/scene';
import { alternatives, solveScene, type Solution } from '@zb/core/assign/solve';
import { withRemedy } from '@zb/core/assign/remedy';
import { unmetWishes } from '@zb/core/assign/unmet';
import { unmetWords } from '@zb/core/words/fit/unmet';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { findings, judge } from '@zb/core/system/judge';
import { releasesInOrder } from '@zb/core/system/options';
import type { AdapterPart, DrivePart, MemoryPart, Part } from '@zb/core/system/part';
import { applyRepair, lacksOf, modulesSuffice } from '@zb/core/system/repair';
import {
  expansionSlots,
  findPlaces,
  freePlaces,
  memoryParts,
  Reader,
  shapeFits,
  staying,
} from '@zb/core/system/places';
import { score } from '@zb/core/system/score';
import { systemsFor } from '@zb/core/system/sheet';
import type { MachineView } from '@zb/core/system/view';
import { benchFromText, benchToText } from '@zb/core/model/file';
import { applyChanges, type Act } from '@zb/core/model/changes';
import type { Bench } from '@zb/core/model/bench';
import { randomBench } from './shelves';
import { runs } from './runs';

let solveLp: SolveLp;
beforeAll(async () => {
  solveLp = solverFrom(await loadHighs());
});
const must = <T>(value: T | undefined | null): T => {
  if (value === undefined || value === null) throw new Error('missing');
  return value;
};
let n = 0;
const stamp = { now: '2026-05-01T10:00:00.000Z', id: () => `id-${(n += 1)}` };
const after = (bench: Bench, act: Act): Bench => applyChanges(bench, act.changes);

/** The machine with the parts in it, or undefined where they do not all go in or one of them is of no use. */
function withParts(
  scene: Scene,
  view: MachineView,
  parts: Part[],
  profile: Scene['profiles'][number],
  lacks: ReturnType<typeof lacksOf>,
): MachineView | undefined {
  const m = new Reader({ ...view, parts: scene.parts }, 'hide');
  const memory = parts.filter((p): p is MemoryPart => p.kind === 'memory');
  const drives = parts.filter((p): p is DrivePart => p.kind === 'drive');
  const adapters = parts.filter((p): p is AdapterPart => p.kind === 'adapter');
  if (memory.length > 0 && lacks.memoryBytes === 0) return undefined;
  const right = memoryParts(new Reader({ ...view, parts }, 'hide'));
  if (memory.some((p) => !right.includes(p))) return undefined;
  if (memory.length > 0 && !modulesSuffice(m, memory, lacks.memoryBytes)) return undefined;
  const slots = expansionSlots(m) ?? 0;
  if (adapters.filter((a) => a.goesIn === 'expansion slot').length > slots) return undefined;
  if (
    adapters.some(
      (a) => a.goesIn === 'outside' || (a.goesIn === 'USB port' && (m.number('ports.usb') ?? 1) === 0),
    )
  )
    return undefined;
  if (drives.length > 0) {
    const places = freePlaces(m, staying(view, profile.needs.bootBytes, profile.needs.dataDrives));
    const more = adapters.reduce((s, a) => s + a.sataPorts, 0);
    if (lacks.drives === 0 || !places || drives.some((d) => d.bus === 'other' || !shapeFits(d, view.form)))
      return undefined;
    if (!findPlaces(drives, { ...places, sata: places.sata + more })) return undefined;
  }
  return parts.reduce<MachineView>((v, p) => applyRepair(v, { kind: 'part', part: p, role: 'drive' }), view);
}

/** What meeting the wish on this machine with exactly these parts is worth; undefined where the judge says it does not fit. */
function worthOf(scene: Scene, wish: number, machine: number, parts: Part[]): number | undefined {
  const w = must(scene.wishes[wish]);
  const view = must(scene.machines[machine]);
  if (!allowed(w, view.id)) return undefined;
  let best: number | undefined;
  for (const profile of systemsFor(scene.profiles, w))
    for (const release of releasesInOrder(profile))
      for (const variant of profile.variants) {
        const before = findings(view, { profile, release, variant, wish: w });
        const built = withParts(scene, view, parts, profile, lacksOf(before));
        if (!built) continue;
        const judged = judge(
          { ...built, parts: [] },
          { ...profile, releases: [release], variants: [variant] },
          {},
          w,
        );
        const fits =
          judged.verdict === 'fits' ||
          (judged.verdict === 'fits after a change' && judged.repairs.every((r) => r.kind === 'setting'));
        const value = worth(w, score(view, profile, scene.weights, 0).total);
        if (fits && (best === undefined || value > best)) best = value;
      }
  return best;
}

/** Every way of laying the parts into the machines and the wishes onto them, tried one by one. */
function bruteForce(scene: Scene): number {
  const machines = scene.machines.length;
  const own = scene.parts.filter((p) => !p.offer);
  const offers = scene.parts.filter((p) => p.offer);
  const cache = new Map<string, number | undefined>();
  const value = (wish: number, machine: number, parts: Part[]): number | undefined => {
    const key = `${wish} ${machine} ${parts.map((p) => p.id).join()}`;
    if (!cache.has(key)) cache.set(key, worthOf(scene, wish, machine, parts));
    return cache.get(key);
  };
  // A pinned wish that could be met at all is met before anything is weighed, where all of them can be met together.
  const options = optionsOf(scene);
  const pinned = new Set(
    scene.wishes.flatMap((w, i) => (w.pinned !== null && options.some((o) => o.wish === i) ? [i] : [])),
  );
  const match = (wish: number, free: number, laid: Part[][], forced: boolean): number => {
    if (wish === scene.wishes.length) return 0;
    let best = forced && pinned.has(wish) ? Number.NEGATIVE_INFINITY : match(wish + 1, free, laid, forced);
    for (let m = 0; m < machines; m += 1) {
      if ((free & (1 << m)) === 0) continue;
      const v = value(wish, m, laid[m] ?? []);
      if (v !== undefined) best = Math.max(best, v + match(wish + 1, free & ~(1 << m), laid, forced));
    }
    return best;
  };
  let best = 0;
  let bestForced = Number.NEGATIVE_INFINITY;
  const evaluate = (laid: Part[][]): void => {
    const all = laid.flat();
    const spent = all.reduce((s, p) => s + p.price, 0);
    if (spent > scene.budget) return;
    const less = all.reduce((s, p) => s + partPoints(p), 0) + spent * moneyPoints(scene);
    best = Math.max(best, match(0, (1 << machines) - 1, laid, false) - less);
    bestForced = Math.max(bestForced, match(0, (1 << machines) - 1, laid, true) - less);
  };
  const layOffers = (i: number, laid: Part[][]): void => {
    const offer = offers[Math.floor(i / machines)];
    if (!offer) return evaluate(laid);
    for (let count = 0; count <= 2; count += 1)
      layOffers(
        i + 1,
        laid.map((l, m) => (m === i % machines ? [...l, ...new Array<Part>(count).fill(offer)] : l)),
      );
  };
  const layOwn = (i: number, laid: Part[][]): void => {
    const p = own[i];
    if (!p) return layOffers(0, laid);
    layOwn(i + 1, laid);
    for (let m = 0; m < machines; m += 1)
      layOwn(
        i + 1,
        laid.map((l, k) => (k === m ? [...l, p] : l)),
      );
  };
  layOwn(
    0,
    Array.from({ length: machines }, () => []),
  );
  return bestForced > Number.NEGATIVE_INFINITY ? bestForced : best;
}

describe('the whole shelf', () => {
  // The judge says what fits, trying everything says what is best: neither knows of the solver's model.
  it('is worth as much as trying everything finds, on small shelves', () => {
    let met = 0;
    let bought = 0;
    for (let seed = 1; seed <= runs(200); seed += 1) {
      const sizes = {
        machines: 2 + (seed % 2),
        wishes: 3,
        parts: seed % 2 === 0 ? 4 : 3,
        offers: seed % 3 === 0 ? 1 : 0,
      };
      const scene = sceneOf(randomBench(seed, sizes));
      const solution = must(solveScene(scene, solveLp));
      const best = bruteForce(scene);
      expect({ seed, value: solution.value.toFixed(4) }).toEqual({ seed, value: best.toFixed(4) });
      expect(solution.optimal).toBe(true);
      met += solution.assignments.length;
      bought += solution.assignments.flatMap((a) => a.parts).length;
    }
    // The shelves are no empty exercise: wishes are met, and parts move.
    expect(met).toBeGreaterThan(runs(120));
    expect(bought).toBeGreaterThan(runs(40));
  });

  it('every reason for a wish left out names a remedy that meets it', () => {
    const kinds = new Set<string>();
    let without = 0;
    for (let seed = 300; seed < 360; seed += 1) {
      const scene = sceneOf(randomBench(seed, { machines: 3, wishes: 4, parts: 4, offers: 2 }));
      const solution = must(solveScene(scene, solveLp));
      for (const u of unmetWishes(scene, solution, solveLp)) {
        expect(unmetWords(u, { currency: '' }).because).not.toBe('');
        if (!u.remedy) {
          without += 1;
          continue;
        }
        kinds.add(u.remedy.kind);
        const wish = must(scene.wishes.find((w) => w.id === u.wishId));
        const again = must(solveScene(withRemedy(scene, wish, u.remedy), solveLp));
        expect({
          seed,
          wish: wish.id,
          remedy: u.remedy.kind,
          met: again.assignments.some((a) => a.wishId === wish.id),
        }).toMatchObject({ met: true });
      }
    }
    expect(kinds).toEqual(new Set(['parts', 'fetch', 'fact', 'free', 'machine', 'overrule', 'wire']));
    expect(without).toBe(0);
  });

  it('runners-up are other assignments, within the share, best first', () => {
    for (let seed = 500; seed < 520; seed += 1) {
      const scene = sceneOf(randomBench(seed, { machines: 4, wishes: 3, parts: 3, offers: 1 }));
      const best = must(solveScene(scene, solveLp));
      const others = alternatives(scene, best, solveLp, 3, 0.1);
      const pairs = (s: Solution): string =>
        s.assignments
          .map((a) => `${a.wishId}@${a.machineId}`)
          .sort()
          .join();
      expect(new Set([best, ...others].map(pairs)).size).toBe(others.length + 1);
      const values = [best, ...others].map((s) => s.value);
      expect([...values].sort((a, b) => b - a)).toEqual(values);
      for (const o of others) expect(o.value).toBeGreaterThanOrEqual(best.value * 0.9);
    }
  });

  it('a solver that is stopped early says how far the best may lie above', () => {
    const scene = sceneOf(saltmarshHall());
    const stopped: SolveLp = (text, s) => ({
      ...solveLp(text, s),
      status: text.includes('Binary') ? 'stopped' : 'optimal',
    });
    const s = must(solveScene(scene, stopped));
    expect(s.optimal).toBe(false);
    expect(s.gap).toBeGreaterThanOrEqual(0);
    expect(provenWords(s)).toMatch(/may be worth .* % more/);
    const none: SolveLp = () => ({ status: 'stopped', objective: 0, values: new Map() });
    expect(solveScene(scene, none)).toBeUndefined();
  });

  it('an empty shelf, and one without wishes, are solved to nothing', () => {
    const scene = sceneOf(saltmarshHall());
    expect(solveScene({ ...scene, wishes: [] }, solveLp)).toMatchObject({ assignments: [], value: 0 });
    expect(solveScene({ ...scene, machines: [] }, solveLp)).toMatchObject({ assignments: [], value: 0 });
    expect(lpText({ objective: [], rows: [], binary: [], whole: [] })).toMatch(/^Maximize/);
  });
});

describe('wishes and plans on the bench', () => {
  const demo = saltmarshHall();
  const solve = (bench: Bench): Solution => must(solveScene(sceneOf(bench), solveLp));

  it('keeps what boxes have decided, and says what the rest comes to', () => {
    const plan = solve(demo);
    const at = (w: string): string | undefined => plan.assignments.find((a) => a.wishId === w)?.machineId;
    expect([at('w-games'), at('w-film'), at('w-archive')]).toEqual(['gull', 'tern', 'old-oak']);
    expect(planHeadline(demo, plan)).toMatch(/^6 of 7 wishes can be met for/);
    expect(planLines(demo, plan).every((l) => l.because !== '')).toBe(true);
    // The loose SSD is decided on already: nothing more is to be put aside.
    expect(toAccept(demo, plan)).toEqual({ boxes: 3, parts: 0 });
    expect(acceptWords(demo, plan)).toBe('Accept and open 3 boxes');
  });

  it('pinning and forbidding re-solve to what was asked', () => {
    const gate = must(demo.wishes.find((w) => w.id === 'w-gate'));
    const clerk = must(demo.items.find((i) => i.id === 'clerk'));
    if (clerk.kind !== 'machine') throw new Error('Clerk is a machine');
    const pinned = after(demo, togglePin(gate, clerk));
    expect(solve(pinned).assignments.find((a) => a.wishId === 'w-gate')?.machineId).toBe('clerk');
    const now = must(pinned.wishes.find((w) => w.id === 'w-gate'));
    const forbidden = after(pinned, toggleForbid(now, clerk));
    const wish = must(forbidden.wishes.find((w) => w.id === 'w-gate'));
    expect([wish.pinned, wish.forbid]).toEqual([null, ['clerk']]);
    expect(solve(forbidden).assignments.find((a) => a.wishId === 'w-gate')?.machineId).not.toBe('clerk');
    expect(after(forbidden, toggleForbid(wish, clerk)).wishes.find((w) => w.id === 'w-gate')?.forbid).toEqual(
      [],
    );
    expect(difference(demo, solve(demo), solve(pinned))).toMatch(/Guest gate on Clerk instead of Pebble/);
  });

  it('accepting opens the boxes with their decisions, puts parts aside, and changes nothing the second time', () => {
    const plan = solve(demo);
    const bench = after(demo, acceptPlan(demo, plan, stamp));
    for (const a of plan.assignments) {
      const box = must(boxOf(bench, a.wishId));
      expect([box.machineId, box.profileId]).toEqual([a.machineId, a.profileId]);
      expect(bench.boxes.filter((b) => b.machineId === a.machineId)).toHaveLength(1);
    }
    const host = must(boxOf(bench, 'w-host'));
    expect(host.parts).toEqual(['mem-16']);
    expect(host.decisions.some((d) => d.what === 'System' && d.because !== '')).toBe(true);
    expect(acceptPlan(bench, solve(bench), stamp).changes).toEqual([]);
    // What was decided to be bought is still to be paid: the money does not come back.
    expect([committed(bench), sceneOf(bench).budget]).toEqual([18, 42]);
    expect(planHeadline(bench, solve(bench))).toMatch(/for 18\.00/);
    expect(benchFromText(benchToText(bench)).boxes).toHaveLength(bench.boxes.length);
  });

  it('parts put aside for one box are not planned for another', () => {
    const bench = after(demo, acceptPlan(demo, solve(demo), stamp));
    const fresh = { ...blankWish('Second host', 'virtual machines', stamp), noise: 'loud' as const };
    const more = after(bench, { label: '', changes: [{ in: 'wishes', id: fresh.id, to: fresh }] });
    const parts = solve(more).assignments.find((a) => a.wishId === fresh.id)?.parts ?? [];
    expect(parts.map((p) => p.partId)).not.toContain('mem-16');
  });

  it('a wish taken away leaves its box, which then answers none', () => {
    const wish = must(demo.wishes.find((w) => w.id === 'w-archive'));
    const bench = after(demo, removeWish(demo, wish));
    expect(bench.wishes.some((w) => w.id === 'w-archive')).toBe(false);
    expect(bench.boxes.find((b) => b.id === 'archive')?.wishId).toBeNull();
  });

  it('without money it buys nothing, and says what a little would meet', () => {
    const poor = after(demo, changeSettings(demo, { budget: 0 }, ''));
    const plan = solve(poor);
    expect(plan.spent).toBe(0);
    const music = unmetWishes(sceneOf(poor), plan, solveLp).find((u) => u.wishId === 'w-music');
    expect(music?.reason).toMatchObject({ code: 'over budget', budget: 0 });
    expect(music?.remedy).toMatchObject({ kind: 'parts', price: 18 });
  });
});
