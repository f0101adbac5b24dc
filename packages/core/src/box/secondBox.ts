import { knownFact } from '../model/known';
import { findImage, findMachine, type Bench, type Box, type Machine } from '../model/bench';
import type { FactKey } from '../model/facts';
import { noFirst } from '../model/firstStart';
import { noTune } from '../model/tune';
import { addSpans, type Span } from '../units/duration';
import { isOpen, runSheetOf } from './runSheet';

/** What a second box takes over from the first. */
export type Carried =
  | 'system'
  | 'image'
  | 'school of writing'
  | 'parts of the drive'
  | 'way of starting'
  | 'answers of the first start'
  | 'shares and users'
  | 'rules'
  | 'hours a day'
  | 'settings to look at'
  | 'keys of firmware';

/** What belongs to one machine alone, and is asked again. */
export type AskedAgain =
  | 'what the machine is'
  | 'which drive may be lost'
  | 'stick to write'
  | 'precautions'
  | 'address'
  | 'password'
  | 'drives of the pool'
  | 'copies'
  | 'sides of the gate'
  | 'guests';

/** How a box begins that is made after another. */
export interface SecondBox {
  carries: Carried[];
  asks: AskedAgain[];
  /** Fields of the new box. */
  fields: Partial<Box>;
  /** The machine with keys of firmware that the first one’s says, as assumed; the same where there is nothing to say. */
  machine: Machine | undefined;
}

/** Answers that are the same in one house. A name on the network is not. */
const ANSWERS = ['language', 'zone', 'keyboard', 'user', 'sound output'];
const KEYS: readonly FactKey[] = ['firmware.setupKey', 'firmware.menuKey'];

const some = <T extends object>(of: T): T | null => (Object.keys(of).length > 0 ? of : null);

/** A machine of the same kind as the first one’s: its keys are probably the same. Common practice, no source. */
function withKeys(first: Machine | undefined, machine: Machine | undefined): Machine | undefined {
  if (!first || !machine || first.form !== machine.form || first.id === machine.id) return machine;
  const facts = { ...machine.facts };
  let told = false;
  for (const key of KEYS) {
    const said = knownFact(first, key);
    if (!said || said.origin === 'assumed' || knownFact(machine, key)) continue;
    facts[key] = { ...facts[key], assumed: { value: said.value, because: `as ${first.name} has it` } };
    told = true;
  }
  return told ? { ...machine, facts } : machine;
}

/** What a box takes over from another of its purpose, and what it asks again. */
export function secondBox(bench: Bench, first: Box, machine: Machine | undefined): SecondBox {
  const before = findMachine(bench, first.machineId);
  const told = withKeys(before, machine);
  const image = findImage(bench, first.imageId);
  const answers = some(
    Object.fromEntries(Object.entries(first.first?.set ?? {}).filter(([k]) => ANSWERS.includes(k))),
  );
  const schools = first.decisions.filter((d) => d.stop === 'write');
  const parts = first.layout && { ...first.layout, driveId: null, kept: [], reserve: 0 };
  const settings = first.tune?.settings ?? [];
  const has: [boolean, Carried][] = [
    [first.profileId !== null, 'system'],
    [image !== undefined, 'image'],
    [schools.length > 0, 'school of writing'],
    [
      parts !== null && (parts.parts !== null || parts.swap !== null || some(parts.sizes) !== null),
      'parts of the drive',
    ],
    [true, 'way of starting'],
    [answers !== null, 'answers of the first start'],
    [first.sharing !== null, 'shares and users'],
    [first.gate !== null, 'rules'],
    [first.hoursPerDay !== null, 'hours a day'],
    [settings.length > 0, 'settings to look at'],
    [told !== machine, 'keys of firmware'],
  ];
  const asked: [boolean, AskedAgain][] = [
    [true, 'what the machine is'],
    [true, 'which drive may be lost'],
    [true, 'stick to write'],
    [first.precautions.length > 0, 'precautions'],
    [true, 'address'],
    [true, 'password'],
    [first.pool !== null, 'drives of the pool'],
    [first.things.length > 0, 'copies'],
    [first.gate !== null, 'sides of the gate'],
    [first.guests !== null, 'guests'],
  ];
  return {
    carries: has.flatMap(([is, code]) => (is ? [code] : [])),
    asks: asked.flatMap(([is, code]) => (is ? [code] : [])),
    fields: {
      purpose: first.purpose,
      profileId: first.profileId,
      releaseId: first.releaseId,
      variantId: first.variantId,
      imageId: image?.id ?? null,
      hoursPerDay: first.hoursPerDay,
      startBy: first.startBy,
      layout: parts,
      decisions: schools,
      sharing: first.sharing && { ...first.sharing, name: null },
      gate: first.gate,
      first: answers && { ...noFirst(), set: answers },
      tune:
        settings.length === 0
          ? null
          : {
              ...noTune(),
              settings: settings.map((s) => ({
                ...s,
                came: '',
                now: '',
                why: s.now === '' ? s.why : `${s.now} on ${first.name}. ${s.why}`.trim(),
              })),
            },
    },
    machine: told,
  };
}

/** What the first box took, and what one made after it should take. Seconds. */
export interface SecondTakes {
  /** By the clock, over so many steps; null where none ran. */
  first: { seconds: number; steps: number } | null;
  hands: Span;
  alone: Span;
  /** The same by what is usual, had nothing been measured. */
  usual: Span;
}

/** How long a box should take as it stands on a bench, beside what the first one took. */
export function secondTakes(bench: Bench, first: Box, second: Box): SecondTakes {
  const timed = Object.values(first.run?.steps ?? {}).flatMap((s) => (s.seconds === null ? [] : [s.seconds]));
  const { steps, hands, alone } = runSheetOf(bench, second);
  return {
    first: timed.length === 0 ? null : { seconds: timed.reduce((a, b) => a + b, 0), steps: timed.length },
    hands,
    alone,
    usual: addSpans(steps.filter(isOpen).map((s) => s.table)),
  };
}
