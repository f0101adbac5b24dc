import { firmwareOf, secureBootOn } from '../machine/firmware';
import { findImage, findMachine, findProfile, type Bench, type Box } from '../model/bench';
import type { FactKey, FactValue } from '../model/facts';
import { contentOf } from '../model/inspection';
import { knownFact } from '../model/known';
import { boxPlan, withAlways } from '../rehearsal/forBox';
import { standingWrite } from '../plan/proof';
import { startOn } from '../starting/forMachine';
import { optionOf } from '../system/options';
import { causeCodes, causeOf, type CauseCode } from './causes';
import type { Departure } from './causes/cause';
import { seenAt, type Moment, type Symptom } from './codes';
import type { Suspect } from './reason';
import { faultWorlds, type FaultWorld } from './worlds';

/** Why a cause is more or less likely on this box, as data. */
export type Ground =
  | { code: 'worlds'; worlds: number }
  | { code: 'cannot happen in this plan' }
  | { code: 'precaution taken'; id: string }
  | { code: 'fact'; fact: FactKey; value: FactValue; makes: 'likely' | 'unlikely' }
  | { code: 'stick proven' }
  | { code: 'stick not proven' }
  | { code: 'image refused' }
  | { code: 'image does not start' }
  | { code: 'image not as published' }
  | { code: 'older than the release' }
  | { code: 'newer than the release' }
  | { code: 'starts by the order' };

/** A cause on this box, with why it weighs as it does. */
export interface BoxSuspect extends Suspect {
  grounds: Ground[];
}

const fits = (d: Departure, w: Departure): boolean =>
  d.unknown === w.unknown && (d.way === null || d.way === w.way);

/** How much more likely: much, somewhat, hardly. Common practice, no source. */
const [MUCH, MORE, LESS, HARDLY] = [5, 2.5, 0.3, 0.08];

/** Precautions by the cause that they stand against. */
const AGAINST: Partial<Record<CauseCode, string>> = {
  'key missed': 'key',
  'keyboard wakes too late': 'key',
  'stick left in': 'stick out',
  'stick out too early': 'stick out',
  'key not enrolled': 'enrol',
  'list not read': 'read',
  'look-alike taken': 'serial',
  'drives answer in another order': 'serial',
  'Secure Boot refuses the stick': 'secure off',
  'other boot mode': 'mode',
  'installed in the other mode': 'mode',
  'power failed': 'power',
  'order forgot the new drive': 'target first',
};

/** What the box’s facts say of each cause. */
function groundsOf(bench: Bench, box: Box): (cause: CauseCode) => { factor: number; grounds: Ground[] } {
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  const image = findImage(bench, box.imageId);
  const fact = (key: FactKey): FactValue | undefined => machine && knownFact(machine, key)?.value;
  const firmware = machine && firmwareOf(machine);
  const reading = image?.inspection ? contentOf(image.inspection) : undefined;
  const start = firmware && startOn(reading, firmware, secureBootOn(machine));
  const release = profile && optionOf(profile, box).release;
  const year = fact('cpu.year');
  const stands = standingWrite(bench, box);
  const proven = stands?.result === 'proven';
  // A list that does not name the file says nothing about it, good or bad.
  const verdict = image?.comparison?.verdict;
  const bad = verdict === 'differs' || verdict === 'other-size';
  const by = (
    key: FactKey,
    is: (v: FactValue) => boolean,
    likely: number,
    unlikely: number,
  ): [number, Ground[]] => {
    const value = fact(key);
    if (value === undefined) return [1, []];
    const holds = is(value);
    return [
      holds ? likely : unlikely,
      [{ code: 'fact', fact: key, value, makes: holds ? 'likely' : 'unlikely' }],
    ];
  };
  const when = (holds: boolean | undefined | null, factor: number, ground: Ground): [number, Ground[]] =>
    holds ? [factor, [ground]] : [1, []];
  const written: [number, Ground[]] = stands
    ? proven
      ? [LESS, [{ code: 'stick proven' }]]
      : [MUCH, [{ code: 'stick not proven' }]]
    : [1, []];
  const of: Partial<Record<CauseCode, [number, Ground[]][]>> = {
    'Secure Boot refuses the stick': [
      by('firmware.secureBoot', (v) => v === 'on', MORE, HARDLY),
      when(start?.refused, MUCH, { code: 'image refused' }),
    ],
    'key not enrolled': [by('firmware.secureBoot', (v) => v === 'on', MORE, HARDLY)],
    'stick badly written': [written, when(bad, MUCH, { code: 'image not as published' })],
    'image for another processor': [
      when(start?.starts === 'no' && !start.refused, MUCH, { code: 'image does not start' }),
    ],
    'other boot mode': [
      when(start?.starts === 'no' && !start.refused, MUCH, { code: 'image does not start' }),
    ],
    'stick not first': [when(box.startBy === 'order', MUCH, { code: 'starts by the order' })],
    'stick first in the order': [when(box.startBy === 'order', MUCH, { code: 'starts by the order' })],
    'panel stands upright': [by('display.portrait', (v) => v === true, MUCH, HARDLY)],
    'network driver is missing': [by('network.wired', (v) => v === 0, MORE, 1)],
    'firmware cannot start that drive': [by('firmware.startsNvme', (v) => v === false, MUCH, HARDLY)],
    'it is off': [by('firmware.afterPowerCut', (v) => v === 'off', MUCH, LESS)],
    'it halts at power-on': [
      by('firmware.haltsOn', (v) => v === 'missing keyboard or display', MUCH, HARDLY),
    ],
    'machine older than the release': [
      when(typeof year === 'number' && release?.oldestYear != null && year < release.oldestYear, MUCH, {
        code: 'older than the release',
      }),
    ],
    'graphics newer than the release': [
      when(typeof year === 'number' && release?.newestYear != null && year > release.newestYear, MUCH, {
        code: 'newer than the release',
      }),
    ],
  };
  return (cause) => {
    const all = of[cause] ?? [];
    return { factor: all.reduce((n, [f]) => n * f, 1), grounds: all.flatMap(([, g]) => g) };
  };
}

/** What a cause shows on this box: as its worlds do, beside what is usual of it. */
function showsOf(cause: CauseCode, moment: Moment, worlds: readonly FaultWorld[]): Suspect['shows'] {
  const { shows } = causeOf(cause);
  const counted: Partial<Record<Symptom, number>> = {};
  const usual = seenAt[moment].reduce((n, s) => n + (shows[s] ?? 0), 0);
  for (const s of seenAt[moment]) {
    const mine = worlds.filter((w) => w.symptom === s).length;
    const share = (shows[s] ?? 0) / (usual || 1);
    counted[s] = worlds.length === 0 ? share : 0.7 * (mine / worlds.length) + 0.3 * share;
  }
  return counted;
}

/** What may be behind something that looks different on this box, at a moment of the work. */
export function suspectsOf(bench: Bench, box: Box, moment: Moment): BoxSuspect[] {
  const made = boxPlan(bench, box);
  const plan = 'code' in made ? null : made;
  const worlds = plan ? faultWorlds(plan.plan, withAlways(plan, box.precautions)) : [];
  const grounds = groundsOf(bench, box);
  return causeCodes
    .filter((c) => causeOf(c).at.includes(moment))
    .map((cause): BoxSuspect => {
      const { departs, weight } = causeOf(cause);
      const mine = worlds.filter((w) => w.moment === moment && departs?.some((d) => fits(d, w.departure)));
      const told = grounds(cause);
      const against = AGAINST[cause];
      const taken =
        against !== undefined && box.precautions.some((p) => p === against || p.startsWith(`${against}:`));
      // Of an installation alone it can be said that a thing cannot happen; of what was not rehearsed nothing can.
      const never = departs !== undefined && plan?.plan.kind === 'install' && mine.length === 0;
      return {
        cause,
        weight: weight * told.factor * (taken ? LESS : 1) * (never ? LESS : 1),
        shows: showsOf(cause, moment, mine),
        grounds: [
          ...(mine.length > 0 ? [{ code: 'worlds' as const, worlds: mine.length }] : []),
          ...(never ? [{ code: 'cannot happen in this plan' as const }] : []),
          ...(taken ? [{ code: 'precaution taken' as const, id: against }] : []),
          ...told.grounds,
        ],
      };
    });
}
