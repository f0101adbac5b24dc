import { isWrittenStraight, systemDriveOf } from '../layout/systemDrive';
import { findItem, findMachine, findProfile, hostsOfBox, storesOf, type Store } from '../model/bench';
import { knownFact } from '../model/known';
import type { Stop } from '../model/stops';
import { movesOf } from '../opening/moves';
import { holdsSystemOf, isPooledBy } from '../plan/medium';
import { bootLadder, nextStart } from '../starting/ladder';
import type { RungRemedy } from '../starting/rung';
import { serves } from '../system/serves';
import type { Ends, Goal, GoalResult, Lack, WayOut } from './goal';
import { servedGoals } from './goalsServed';

const reached = (goal: Goal): GoalResult => ({ goal, holds: true, lack: null, wayOut: null });
const decide = (stage: Stop): WayOut => ({ stage, act: { code: 'decide' } });

/** The way out over the first of these steps that will not be done; where each will be, something is to be decided. */
function doOrDecide(
  { notDone }: Ends,
  keys: readonly string[],
  stage: Stop,
  otherwise: Stop = stage,
): WayOut {
  const step = keys.find((k) => notDone.includes(k));
  return step ? { stage, act: { code: 'do', step } } : decide(otherwise);
}

const takes = (precaution: string): WayOut => ({ stage: 'install', act: { code: 'take', precaution } });

/** Where the remedy of a rung is taken. */
function wayOutOf(remedy: RungRemedy | null): WayOut {
  switch (remedy) {
    case 'target first':
      return takes('target first');
    case 'Secure Boot off':
      return takes('secure off');
    case 'enrol the key':
      return takes('enrol');
    case 'say what is on it':
      return decide('survey');
    case 'open the image':
      return decide('verify');
    case 'write a stick':
    case 'write again':
      return decide('write');
    case 'stick out':
      return { stage: 'install', act: { code: 'do', step: 'back:stick' } };
    default:
      return decide('firmware');
  }
}

/** Does the machine boot its system at every later start, from the medium that was decided? */
function boots(ends: Ends): GoalResult[] {
  const { bench, box } = ends.end;
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  const begun: Goal = { code: 'has a machine and a system', box: box.name };
  if (!machine)
    return [{ goal: begun, holds: false, lack: { code: 'no machine' }, wayOut: decide('survey') }];
  if (!profile) return [{ goal: begun, holds: false, lack: { code: 'no system' }, wayOut: decide('choose') }];
  const goal: Goal = { code: 'boots its system', machine: machine.name, system: profile.name };
  const fails = (lack: Lack, wayOut: WayOut | null): GoalResult[] => [{ goal, holds: false, lack, wayOut }];
  const drive = systemDriveOf(bench, box);
  if (!drive)
    return fails(
      { code: 'system drive not decided' },
      decide(isWrittenStraight(bench, box) ? 'write' : 'install'),
    );
  if (!holdsSystemOf(drive, box)) {
    return fails(
      { code: 'system not installed', drive: drive.name },
      doOrDecide(ends, ['inst:run', 'inst:copy', 'write:write', 'verify:fetch'], 'install'),
    );
  }
  if (drive.in !== machine.id) {
    const keys = [`open:in:${drive.id}`, 'back:in', 'start:target', 'start:stick'];
    return fails(
      { code: 'system drive outside', drive: drive.name, machine: machine.name },
      doOrDecide(ends, keys, 'install', 'gather'),
    );
  }
  const { result, decides, rungs } = bootLadder(bench, box, machine, nextStart(bench, box, machine));
  if (result === 'the new system starts') return [reached(goal)];
  const own = rungs.find((r) => r.entry.kind === 'new system');
  if (!decides) return fails({ code: 'nothing boots', rungs }, wayOutOf((own ?? rungs[0])?.remedy ?? null));
  if (result === 'cannot say')
    return [
      { goal, holds: null, lack: { code: 'boot not told', rung: decides }, wayOut: wayOutOf(decides.remedy) },
    ];
  return fails({ code: 'another boots', rung: decides }, wayOutOf(decides.remedy ?? 'target first'));
}

/** Drives to keep are as they were; those that the plan installs on, or makes a pool of, were decided for that. */
function untouched({ now, end }: Ends): GoalResult[] {
  if (now.box.machineId === null) return [];
  const after = new Map(storesOf(end.bench).map((s) => [s.id, s]));
  const system = systemDriveOf(end.bench, end.box);
  /** Beside a new system what stays is where it was. */
  const keepsItsParts = (s: Store): boolean => {
    const parts = after.get(s.id)?.content?.parts ?? [];
    const was = s.content?.parts ?? [];
    return s.id === system?.id && was.length > 0 && was.every((w) => parts.some((p) => p.start === w.start));
  };
  return storesOf(now.bench)
    .filter((s) => s.fate === 'keep' && !holdsSystemOf(s, now.box) && !isPooledBy(s, now.box))
    .filter((s) => s.in === now.box.machineId || now.box.opening?.moved[s.id] === now.box.machineId)
    .map((s): GoalResult => {
      const goal: Goal = { code: 'kept drive untouched', drive: s.name };
      const same = after.get(s.id)?.revision === s.revision || keepsItsParts(s);
      return same
        ? reached(goal)
        : { goal, holds: false, lack: { code: 'a step erases it' }, wayOut: decide('install') };
    });
}

/** What was taken out as a precaution is back. */
function home(ends: Ends): GoalResult[] {
  const { bench, box } = ends.end;
  const machine = findMachine(bench, box.machineId);
  if (!machine) return [];
  const { goesIn, makesRoom, memory } = movesOf(bench, box);
  const stays = new Set([...goesIn, ...makesRoom, ...memory].map((s) => s.id));
  return Object.entries(box.opening?.moved ?? {})
    .filter(([id, was]) => was === machine.id && !stays.has(id))
    .flatMap(([id]): GoalResult[] => {
      const item = findItem(bench, id);
      if (!item || !('in' in item)) return [];
      const goal: Goal = { code: 'back in its place', item: item.name, machine: machine.name };
      if (item.in === machine.id) return [reached(goal)];
      const wayOut = doOrDecide(ends, ['back:in'], 'install');
      return [{ goal, holds: false, lack: { code: 'no step puts it back' }, wayOut }];
    });
}

/** What serves others comes back by itself, where others find it. */
function found(ends: Ends): GoalResult[] {
  const { bench, box } = ends.end;
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  if (!machine || !profile || !serves(profile.purpose)) return [];
  const out: GoalResult[] = [];
  const cut: Goal = { code: 'boots after a power cut', machine: machine.name };
  const known = knownFact(machine, 'firmware.afterPowerCut')?.value;
  const board = knownFact(machine, 'firmware.mode')?.value === 'board';
  out.push(
    // A board has no such setting: it starts when it has power.
    known === 'on' || board
      ? reached(cut)
      : {
          goal: cut,
          holds: known === undefined ? null : false,
          lack: { code: 'stays off after a power cut', now: typeof known === 'string' ? known : null },
          wayOut: doOrDecide(ends, ['setup:set:after a power cut'], 'firmware'),
        },
  );
  const address: Goal = { code: 'has an address', box: box.name };
  const hosts = hostsOfBox(bench, box.id);
  const settled = hosts.some(
    (h) => h.address !== null && (h.manner === 'fixed' || h.manner === 'reservation'),
  );
  const named = hosts.some((h) => h.address !== null);
  out.push(
    settled
      ? reached(address)
      : {
          goal: address,
          holds: false,
          lack: { code: named ? 'address may change' : 'no address' },
          wayOut: decide('network'),
        },
  );
  return out;
}

/** A password that everybody knows is not the one it is left with. */
function password(ends: Ends): GoalResult[] {
  const { bench, box } = ends.end;
  const profile = findProfile(bench, box.profileId);
  if (profile?.login !== 'shipped default') return [];
  const goal: Goal = { code: 'shipped password replaced', system: profile.name };
  const key = 'first:default password';
  const left = box.first?.left.includes('default password') === true;
  const replaced = box.first?.password?.replaced === true;
  if (replaced || (!ends.notDone.includes(key) && !left)) return [reached(goal)];
  return [
    {
      goal,
      holds: false,
      lack: { code: 'no step sets a password' },
      wayOut: doOrDecide(ends, [key], 'first-start'),
    },
  ];
}

/** All that a plan must reach, and whether it does. */
export const goalsOf = (ends: Ends): GoalResult[] => [
  ...boots(ends),
  ...untouched(ends),
  ...home(ends),
  ...found(ends),
  ...password(ends),
  ...servedGoals(ends),
];
