import type { Assignment, Solution } from '../assign/solve';
import { judge } from '../system/judge';
import { machineView } from '../system/view';
import { findMachine, findProfile, type Bench, type Machine, type Profile, type Wish } from '../model/bench';
import type { Act, Change } from '../model/changes';
import type { Purpose } from '../model/profile';
import type { Settings } from '../model/settings';
import { applyChanges } from '../model/changes';
import { usualHours } from '../system/cost';
import { chooseProfile, createBox } from './box';
import type { Stamp } from './stamp';

const put = (to: Wish): Change => ({ in: 'wishes', id: to.id, to });

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
  keep: null,
  forbid: [],
  notes: '',
});

export const saveWish = (wish: Wish, label = `Wish “${wish.name}” saved`): Act => ({
  label,
  changes: [put(wish)],
});

/** Removes a wish; boxes that answered it stay, and answer none. */
export const removeWish = (bench: Bench, wish: Wish): Act => ({
  label: `Wish “${wish.name}” removed`,
  changes: [
    { in: 'wishes', id: wish.id, to: null },
    ...bench.boxes
      .filter((b) => b.wishId === wish.id)
      .map((b): Change => ({ in: 'boxes', id: b.id, to: { ...b, wishId: null } })),
  ],
});

/** Pins a wish to a machine, or lets it go where it is pinned there already. */
export const togglePin = (wish: Wish, machine: Machine): Act => {
  const pinned = wish.keep === machine.id;
  return {
    label: pinned ? `${wish.name} no longer pinned` : `${wish.name} pinned to ${machine.name}`,
    changes: [
      put({
        ...wish,
        keep: pinned ? null : machine.id,
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
      put({
        ...wish,
        keep: wish.keep === machine.id ? null : wish.keep,
        forbid: forbidden ? wish.forbid.filter((id) => id !== machine.id) : [...wish.forbid, machine.id],
      }),
    ],
  };
};

export const changeSettings = (bench: Bench, change: Partial<Settings>, label: string): Act => ({
  label,
  changes: [{ in: 'settings', id: 'settings', to: { ...bench.settings, ...change } }],
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
      { in: 'items', id: machine.id, to: { ...machine, overruled } },
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
    {
      in: 'items',
      id: machine.id,
      to: { ...machine, overruled: machine.overruled.filter((o) => o.profileId !== key || o.rule !== rule) },
    },
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
    return ids.length === 0
      ? []
      : [{ in: 'boxes', id: open.id, to: { ...open, parts: [...open.parts, ...ids] } }];
  const made = open ? { box: open, changes: [] } : createBox(wish.name, wish.purpose, machine, stamp);
  const box = {
    ...made.box,
    machineId: machine.id,
    wishId: wish.id,
    hoursPerDay: wish.hoursPerDay,
    parts: ids,
  };
  const after = applyChanges(bench, [...made.changes, { in: 'boxes', id: box.id, to: box }]);
  const judged = judge(machineView(after, machine), profile, a, wish);
  return [...made.changes, ...chooseProfile(box, profile, judged, stamp).changes];
}

/** Boxes with nothing decided give up a machine that the plan gives to another wish. */
function released(bench: Bench, plan: Solution): Change[] {
  return bench.boxes.flatMap((b): Change[] => {
    if (b.profileId !== null || b.machineId === null) return [];
    const taker = plan.assignments.find((a) => a.machineId === b.machineId);
    if (!taker || taker.wishId === b.wishId) return [];
    return [{ in: 'boxes', id: b.id, to: { ...b, machineId: null } }];
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
