import fc from 'fast-check';
import { doneStep, noteDiagnosis } from '@zb/core/acts/run';
import { momentOf, runSheetOf } from '@zb/core/box/runSheet';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { causeCodes, causeOf, type CauseCode } from '@zb/core/diagnose/causes';
import {
  lookCodes,
  looks,
  moments,
  seenAt,
  type Answered,
  type LookCode,
  type Moment,
  type Symptom,
} from '@zb/core/diagnose/codes';
import { suspectsOf, type BoxSuspect } from '@zb/core/diagnose/forBox';
import { entropy, expectedBits, nextLook, rank } from '@zb/core/diagnose/reason';
import { faultWorlds, type FaultWorld } from '@zb/core/diagnose/worlds';
import { applyChanges } from '@zb/core/model/changes';
import { findBox, isMachine, storesIn, type Bench, type Box } from '@zb/core/model/bench';
import { noBoxLayout } from '@zb/core/model/layout';
import { isStore } from '@zb/core/model/shelf';
import { boxPlan, withAlways } from '@zb/core/rehearsal/forBox';
import { causeWords } from '@zb/core/words/diagnose/causes';
import { groundWords, lookWords, symptomWords } from '@zb/core/words/diagnose/looks';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { runs } from './runs';

const hall = saltmarshHall();
/** What a look finds if a cause is behind it: what is most usual of it. */
function truly(cause: CauseCode, look: LookCode): string | null {
  const told = causeOf(cause).looks[look];
  if (told) return Object.entries(told).sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
  return looks[look].usual;
}
/** Looks until a cause is left or no look tells more; what each finds is asked of `find`. */
function follow(
  suspects: readonly BoxSuspect[],
  moment: Moment,
  seen: Symptom,
  find: (look: LookCode) => string | null,
) {
  const answered: Answered[] = [];
  let ranked = rank(suspects, moment, [seen], answered);
  for (
    let next = nextLook(ranked, moment, answered);
    next && answered.length < 12;
    next = nextLook(ranked, moment, answered)
  ) {
    answered.push({ look: next.look, answer: find(next.look) });
    ranked = rank(suspects, moment, [seen], answered);
  }
  return { ranked, looks: answered.length };
}

type Installer = (typeof hall.profiles)[number]['installer'];
const INSTALLERS: readonly Installer[] = [
  'asks for the drive',
  'preselects the first drive',
  'takes the first drive unasked',
];

/** Every machine of the demo with every manner of installer, by the menu and by the order, its firmware known and not known. */
function plans(): { bench: Bench; box: Box }[] {
  const out: { bench: Bench; box: Box }[] = [];
  const film = findBox(hall, 'film-night') as Box;
  for (const machine of hall.items.filter(isMachine))
    for (const startBy of ['menu', 'order'] as const)
      for (const known of [true, false])
        for (const installer of INSTALLERS) {
          const [drive] = storesIn(hall, machine.id).filter((s) => s.kind === 'drive');
          const items = hall.items.map((i) => {
            if (isStore(i)) return i.id === drive?.id ? { ...i, fate: 'may be lost' as const } : i;
            return i.id !== machine.id || !isMachine(i) || known
              ? i
              : {
                  ...i,
                  facts: Object.fromEntries(
                    Object.entries(i.facts).filter(([k]) => !k.startsWith('firmware.')),
                  ),
                };
          });
          const profiles = hall.profiles.map((p) =>
            p.id === film.profileId
              ? {
                  ...p,
                  installer,
                  secureBoot: 'own key at first restart' as const,
                  // A system that a machine's processor cannot run starts in no world.
                  releases: p.releases.map((r) => ({
                    ...r,
                    cpuLevel: 'v1' as const,
                    archs: ['x86_64' as const, 'i686' as const, 'aarch64' as const],
                  })),
                  manner: { ...p.manner, loader: null, entry: 'fallback path only' as const },
                }
              : p,
          );
          const box: Box = {
            ...film,
            machineId: machine.id,
            startBy,
            layout: drive ? { ...noBoxLayout(), driveId: drive.id } : null,
          };
          out.push({
            bench: { ...hall, items, profiles, boxes: hall.boxes.map((b) => (b.id === box.id ? box : b)) },
            box,
          });
        }
  return [...hall.boxes.map((box) => ({ bench: hall, box })), ...out];
}

/** The cause that a world’s departure is, told from the departure alone. */
function causeBehind({ departure, moment }: FaultWorld): CauseCode[] {
  return causeCodes.filter((c) => {
    const { at, departs } = causeOf(c);
    return (
      at.includes(moment) &&
      departs?.some((d) => d.unknown === departure.unknown && (d.way === null || d.way === departure.way))
    );
  });
}
/** What looks find in a world, from what happened in it; undefined where it says nothing of it. */
function inWorld({ frames, departure }: FaultWorld, look: LookCode): string | undefined {
  const said = frames.map((f) => f.said);
  const stick = said.find((s) => s.code === 'stick');
  if (look === 'stick still in' && stick?.code === 'stick') return stick.out ? 'no' : 'yes';
  if (look === 'menu' && departure.unknown === 'key') return 'no menu came';
  if (
    look === 'where it was installed' &&
    said.some((s) => s.code === 'cut' || s.code === 'stick out too early')
  )
    return said.some((s) => s.code === 'loader') ? undefined : 'not to the end';
  if (look === 'order of the list' && departure.unknown === 'order of drives') return 'others before it';
  return undefined;
}

describe('the rehearsal run backwards', () => {
  it('ends at the cause of every world in which one thing goes wrong, within four looks', () => {
    let worlds = 0;
    let sum = 0;
    const met = new Set<string>();
    for (const { bench, box } of plans()) {
      const plan = boxPlan(bench, box);
      if ('code' in plan) continue;
      for (const world of faultWorlds(plan.plan, withAlways(plan, box.precautions))) {
        const truth = causeBehind(world);
        // A departure whose moment no cause of the table has is a gap in the table.
        expect([world.departure.unknown, world.moment, truth.length > 0]).toEqual([
          world.departure.unknown,
          world.moment,
          true,
        ]);
        const [first] = truth;
        if (!first) continue;
        const suspects = suspectsOf(bench, box, world.moment);
        const found = follow(
          suspects,
          world.moment,
          world.symptom,
          (look) => inWorld(world, look) ?? truly(first, look),
        );
        met.add(`${world.departure.unknown} ${world.moment}`);
        expect([
          world.departure,
          world.symptom,
          truth.includes(found.ranked[0]!.cause) ? 'found' : found.ranked.slice(0, 3),
        ]).toEqual([world.departure, world.symptom, 'found']);
        expect([world.departure, world.symptom, found.looks]).toEqual([
          world.departure,
          world.symptom,
          Math.min(4, found.looks),
        ]);
        worlds += 1;
        sum += found.looks;
      }
    }
    expect(worlds).toBeGreaterThan(80);
    expect([...met].sort()).toEqual([
      'enrol at the restart',
      'key starting the stick',
      'order of drives installing',
      'power at the restart',
      'power installing',
      'stick at the restart',
    ]);
    expect(sum / worlds).toBeLessThan(3);
  });

  it('ends at every cause of the trade from what it shows most', () => {
    for (const box of hall.boxes)
      for (const moment of moments) {
        const suspects = suspectsOf(hall, box, moment);
        for (const s of suspects) {
          const [symptom] = seenAt[moment]
            .filter((x) => (s.shows[x] ?? 0) > 0)
            .sort((a, b) => (s.shows[b] ?? 0) - (s.shows[a] ?? 0));
          if (!symptom) throw new Error(`${s.cause} shows nothing ${moment}`);
          const found = follow(suspects, moment, symptom, (look) => truly(s.cause, look));
          expect([box.id, moment, s.cause, found.ranked[0]?.cause, found.looks <= 6]).toEqual([
            box.id,
            moment,
            s.cause,
            s.cause,
            true,
          ]);
        }
      }
  });

  it('never rules the truth out, whatever the looks are said to have found', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...moments),
        fc.constantFrom(...hall.boxes),
        fc.nat(),
        fc.array(fc.tuple(fc.constantFrom(...lookCodes), fc.nat()), { maxLength: 12 }),
        (moment, box, pick, answers) => {
          const suspects = suspectsOf(hall, box, moment);
          const seen = seenAt[moment][pick % seenAt[moment].length] as Symptom;
          const answered = answers.map(([look, n]) => ({
            look,
            answer: looks[look].answers[n % looks[look].answers.length] ?? null,
          }));
          const ranked = rank(suspects, moment, [seen], answered);
          expect(ranked).toHaveLength(suspects.length);
          for (const r of ranked) expect(r.share).toBeGreaterThan(0);
          expect(ranked.reduce((n, r) => n + r.share, 0)).toBeCloseTo(1, 9);
          for (const look of lookCodes) {
            const bits = expectedBits(ranked, look);
            // What is expected of a look is never negative, and never more than there is to tell (Cover and Thomas, §2.6).
            expect(bits).toBeGreaterThanOrEqual(-1e-9);
            expect(bits).toBeLessThanOrEqual(entropy(ranked.map((r) => r.share)) + 1e-9);
          }
        },
      ),
      { numRuns: runs(300) },
    );
  });

  it('weighs causes by what is known of the box, and says why', () => {
    const box = findBox(hall, 'games-corner') as Box;
    const about = (cause: CauseCode): BoxSuspect =>
      suspectsOf(hall, box, 'starting the stick').find((s) => s.cause === cause) as BoxSuspect;
    const refuses = about('Secure Boot refuses the stick');
    expect(refuses.weight).toBeGreaterThan(causeOf('Secure Boot refuses the stick').weight);
    expect(refuses.grounds.map(groundWords).join()).toContain('Secure Boot');
    const top = rank(suspectsOf(hall, box, 'starting the stick'), 'starting the stick', ['refused'], [])[0];
    expect(top?.cause).toBe('Secure Boot refuses the stick');
  });
});

describe('what was found', () => {
  it('is kept in the log, and its cure is a step before the one at which it happened', () => {
    const box = findBox(hall, 'film-night') as Box;
    const sheet = runSheetOf(hall, box);
    const go = sheet.steps.find((s) => s.key === 'start:go')!;
    expect(momentOf(go)).toBe('starting the stick');
    let n = 0;
    const stamp = () => ({ now: '2026-03-05T18:00:00.000Z', id: () => `d${(n += 1)}` });
    const act = noteDiagnosis(
      box,
      go,
      {
        moment: 'starting the stick',
        seen: ['old system'],
        answered: [{ look: 'menu', answer: 'no menu came' }],
        cause: 'key missed',
      },
      stamp(),
    );
    let bench = applyChanges(hall, act.changes);
    expect(bench.log.some((l) => l.stop === 'install' && l.text.includes('no menu came'))).toBe(true);
    const after = runSheetOf(bench, findBox(bench, box.id) as Box);
    const cure = after.steps.find((s) => s.what.code === 'cure')!;
    const now = after.steps.find((s) => s.key === 'start:go')!;
    expect(now.after).toContain(cure.key);
    expect(cure.number).toBe(now.number - 1);
    expect(runStepWords(cure.what).lines).toEqual(causeWords('key missed').cure);
    // It stays when other steps are done.
    const next = after.next!;
    bench = applyChanges(bench, doneStep(bench, findBox(bench, box.id) as Box, next, '', stamp()).changes);
    expect(runSheetOf(bench, findBox(bench, box.id) as Box).steps.some((s) => s.key === cure.key)).toBe(true);
  });
});

it('has words for every symptom, look, cause and its cure', () => {
  for (const s of new Set(moments.flatMap((m) => seenAt[m]))) expect(symptomWords(s)).not.toBe('');
  for (const l of lookCodes) {
    expect(lookWords(l)).toMatch(/\?$/);
    expect(new Set(looks[l].answers).size).toBe(looks[l].answers.length);
  }
  for (const c of causeCodes) {
    const { title, because, cure, unharmed } = causeWords(c);
    for (const t of [title, because, unharmed, ...cure]) expect(t.length).toBeGreaterThan(3);
    // A cause may only speak of answers that a look can have.
    for (const [look, shares] of Object.entries(causeOf(c).looks))
      for (const answer of Object.keys(shares)) expect(looks[look as LookCode].answers).toContain(answer);
  }
});
