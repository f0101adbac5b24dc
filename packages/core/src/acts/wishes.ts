import type { Assignment, Solution } from '../assign/solve';
import { judge } from '../system/judge';
import { machineView } from '../system/view';
import {
  findMachine,
  findProfile,
  theBench,
  type Bench,
  type Machine,
  type Profile,
  type Wish,
} from '../model/bench';
import { applyChanges, edited, type Act, type Change } from '../model/changes';
import type { Purpose } from '../model/profile';
import { settingsEdits } from '../model/benchModel';
import type { Settings } from '../model/settings';
import { usualHours } from '../system/cost';
import { chooseProfile, createBox } from './box';
import type { Stamp } from './stamp';

const edit = (wish: Wish, to: Partial<Wish>): Change => edited('wishes', wish, { ...wish, ...to });

/** A wish with nothing said but its name and purpose: no system named, audible at most, a wire at hand. */
export const blankWish = (name: string, purpose: Purpose, stamp: Stamp): Wish => ({
  id: stamp.id(),
  name,
  purpose,
  profileId: null,
  importance: 3,
  noise: 'audible',
  wire: true,
  wattsMax: null,
  hoursPerDay: usualHours(purpose),
  features: [],
  pinned: null,
  forbid: [],
  notes: '',
});

/** Saves a wish; `before` is the wish as the user saw it, undefined where it is new. */
export const saveWish = (before: Wish | undefined, wish: Wish, label = `Wish “${wish.name}” saved`): Act => ({
  label,
  changes: [before ? edit(before, wish) : { in: 'wishes', id: wish.id, to: wish }],
});

/** Removes a wish; boxes that answered it stay, and answer none. */
export const removeWish = (bench: Bench, wish: Wish): Act => ({
  label: `Wish “${wish.name}” removed`,
  changes: [{ in: 'wishes', id: wish.id, to: null }, ...theBench.forgetting(bench, 'wishes', wish.id)],
});

/** Pins a wish to a machine, or lets it go where it is pinned there already. */
export const togglePin = (wish: Wish, machine: Machine): Act => {
  const pinned = wish.pinned === machine.id;
  return {
    label: pinned ? `${wish.name} no longer pinned` : `${wish.name} pinned to ${machine.name}`,
    changes: [
      edit(wish, {
        pinned: pinned ? null : machine.id,
        forbid: wish.forbid.filter((id) => id !== machine.id),
      }),
    ],
  };
};

/** Forbids a machine to a wish, or allows it again. */
export const toggleForbid = (wish: Wish, machine: Machine): Act => {
  const forbidden = wish.forbid.includes(machine.id);
  return {
    label: forbidden
      ? `${machine.name} allowed again for ${wish.name}`
      : `${machine.name} forbidden for ${wish.name}`,
    changes: [
      edit(wish, {
        pinned: wish.pinned === machine.id ? null : wish.pinned,
        forbid: forbidden ? wish.forbid.filter((id) => id !== machine.id) : [...wish.forbid, machine.id],
      }),
    ],
  };
};

/** Changes what the bench reckons with, field by field, in one act. */
export const changeSettings = (bench: Bench, change: Partial<Settings>, label: string): Act => ({
  label,
  changes: [
    {
      in: 'settings',
      id: 'settings',
      edits: settingsEdits(bench.settings, { ...bench.settings, ...change }),
    },
  ],
});

/** Sets a soft limit aside for a system (or, as `wish:ID`, for a wish) on a machine, with the reason, and logs it. */
export function overrule(
  machine: Machine,
  of: { key: string; name: string },
  rule: string,
  reason: string,
  boxId: string | null,
  stamp: Stamp,
): Act {
  const overruled = [
    ...machine.overruled.filter((o) => o.profileId !== of.key || o.rule !== rule),
    { profileId: of.key, rule, reason, at: stamp.now },
  ];
  const id = stamp.id();
  return {
    label: `Limit set aside: ${rule}`,
    changes: [
      edited('items', machine, { ...machine, overruled }),
      {
        in: 'log',
        id,
        to: {
          kind: 'decision',
          id,
          at: stamp.now,
          boxId,
          stop: 'choose',
          text: `Limit set aside on ${machine.name} for ${of.name} (${rule}): ${reason}`,
        },
      },
    ],
  };
}

/** Lets a limit that was set aside count again. */
export const takeBackOverrule = (machine: Machine, key: string, rule: string): Act => ({
  label: `Limit counts again: ${rule}`,
  changes: [
    edited('items', machine, {
      ...machine,
      overruled: machine.overruled.filter((o) => o.profileId !== key || o.rule !== rule),
    }),
  ],
});

/** The box that answers a wish, if one was opened for it. */
export const boxOf = (bench: Bench, wishId: string): Bench['boxes'][number] | undefined =>
  bench.boxes.find((b) => b.wishId === wishId);

function accepted(bench: Bench, a: Assignment, stamp: Stamp): Change[] {
  const wish = bench.wishes.find((w) => w.id === a.wishId);
  const machine = findMachine(bench, a.machineId);
  const profile: Profile | undefined = findProfile(bench, a.profileId);
  if (!wish || !machine || !profile) return [];
  const open = boxOf(bench, wish.id);
  const ids = a.parts.flatMap((p) => Array.from({ length: p.count }, () => p.partId));
  // A box that has its system decided is what the plan was built around; only parts may still be put aside for it.
  if (open?.profileId != null)
    return ids.length === 0 ? [] : [edited('boxes', open, { ...open, parts: [...open.parts, ...ids] })];
  const made = open ? { box: open, changes: [] } : createBox(wish.name, wish.purpose, machine, stamp);
  const box = {
    ...made.box,
    machineId: machine.id,
    wishId: wish.id,
    hoursPerDay: wish.hoursPerDay,
    parts: ids,
  };
  const changes = [...made.changes, edited('boxes', made.box, box)];
  const after = applyChanges(bench, changes);
  const judged = judge(machineView(after, machine), profile, a, wish);
  return [...changes, ...chooseProfile(after, box, profile, judged, stamp).changes];
}

/** Boxes with nothing decided give up a machine that the plan gives to another wish. */
function released(bench: Bench, plan: Solution): Change[] {
  return bench.boxes.flatMap((b): Change[] => {
    if (b.profileId !== null || b.machineId === null) return [];
    const taker = plan.assignments.find((a) => a.machineId === b.machineId);
    if (!taker || taker.wishId === b.wishId) return [];
    return [edited('boxes', b, { ...b, machineId: null })];
  });
}

/** Accepts a plan: a box for every wish met (the one opened for it, or a new one), its system decided, its parts put aside. */
export function acceptPlan(bench: Bench, plan: Solution, stamp: Stamp): Act {
  const changes = released(bench, plan);
  let now = applyChanges(bench, changes);
  for (const a of plan.assignments) {
    const mine = accepted(now, a, stamp);
    now = applyChanges(now, mine);
    changes.push(...mine);
  }
  const boxes = new Set(changes.flatMap((c) => (c.in === 'boxes' ? [c.id] : [])));
  return { label: `Plan accepted: ${boxes.size} ${boxes.size === 1 ? 'box' : 'boxes'}`, changes };
}
