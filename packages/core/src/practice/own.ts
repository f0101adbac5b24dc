import { findMachine, findProfile, storesOf, type Bench, type Box } from '../model/bench';
import { contentTitle, isBlank } from '../model/content';
import { knownText } from '../model/known';
import { boxPlan, type NoRehearsal } from '../rehearsal/forBox';
import { randomFrom } from '../units/random';
import { middleOf, span } from '../units/duration';
import { shuffled, type Random } from './draw';
import type { Exercise } from './play';
import { keysOf } from './rig/draw';
import { Rig } from './rig/rig';
import { innerOf, stickOf, targetOf, type RigSetup } from './rig/setup';
import { RigState } from './rig/state';

/** Why no exercise can be made from a box. */
export type NoExercise =
  NoRehearsal | { code: 'written elsewhere' } | { code: 'nothing makes it safe'; drives: string[] };

/** Minutes of an install where the profile says nothing. */
const usualMinutes = (minutes: readonly [number, number] | undefined): number =>
  Math.round(middleOf(span(minutes?.[0] ?? 10, minutes?.[1] ?? 20)));

/** A box as an exercise needs it: everything but what a seed draws. */
export interface OwnSetup extends Omit<RigSetup, 'keys' | 'order'> {
  boxId: string;
  keys: { setup?: string; menu?: string };
}

function setupOf(bench: Bench, box: Box): Omit<OwnSetup, 'keys'> | NoExercise {
  const made = boxPlan(bench, box);
  if ('code' in made) return made;
  const { plan } = made;
  if (plan.kind !== 'install') return { code: 'written elsewhere' };
  const stores = new Map(storesOf(bench).map((s) => [s.id, s]));
  const holds = Object.fromEntries(
    plan.drives.map((d) => {
      const store = stores.get(d.id);
      return [d.id, store && !isBlank(store.content) ? contentTitle(store) : ''];
    }),
  );
  return {
    boxId: box.id,
    plan,
    holds: { ...holds, [stickOf(plan).id]: 'the installer' },
    task: 'install',
    stickIn: false,
    done: false,
    minutes: usualMinutes(findProfile(bench, box.profileId)?.installMinutes),
  };
}

/** What an exercise made from a box is called. */
export const ownId = (boxId: string): string => `own:${boxId}`;

const drawn = ({ boxId: _, keys, ...setup }: OwnSetup, random: Random): RigSetup => {
  const target = targetOf(setup.plan).id;
  const others = innerOf(setup.plan).flatMap((d) => (d.id === target ? [] : [d.id]));
  return {
    ...setup,
    keys: keysOf(random, keys),
    order: [target, ...shuffled(random, others), stickOf(setup.plan).id],
  };
};

/** Drives that matter, could be taken unasked, and can neither be taken out nor switched off. */
const cannotBeSafe = (rig: RigState): string[] =>
  rig
    .rivals()
    .filter((d) => d.matters && d.unplug === null && !d.portOff)
    .map((d) => d.name);

/** What an exercise is made of from a box, as plain data; or why there is none. */
export function ownSetup(bench: Bench, box: Box): OwnSetup | NoExercise {
  const setup = setupOf(bench, box);
  if ('code' in setup) return setup;
  const machine = findMachine(bench, box.machineId);
  const key = (fact: 'firmware.setupKey' | 'firmware.menuKey'): string | null =>
    machine ? knownText(machine, fact) : null;
  const [inSetup, menu] = [key('firmware.setupKey'), key('firmware.menuKey')];
  const own = {
    ...setup,
    keys: { ...(inSetup === null ? {} : { setup: inSetup }), ...(menu === null ? {} : { menu }) },
  };
  const blocked = cannotBeSafe(new RigState(drawn(own, randomFrom(1)), randomFrom(1)));
  return blocked.length > 0 ? { code: 'nothing makes it safe', drives: blocked } : own;
}

/**
 * An exercise made from a box: its machine with its drives as the rehearsal of its plan has them; the order in which they are
 * tried and answer is drawn by the seed.
 */
export const ownExercise = (own: OwnSetup): Exercise => ({
  id: ownId(own.boxId),
  stop: 'install',
  begin: (random) => new Rig(drawn(own, random), random),
  plan: () => own.plan,
});
