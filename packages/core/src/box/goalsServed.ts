import { guestsOf, isHost } from '../guests/forBox';
import { hostsOfBox } from '../model/bench';
import { isGate } from '../rules/forBox';
import type { Stop } from '../model/stops';
import type { Ends, Goal, GoalResult } from './goal';

/** Something that the build is to serve, with the steps without which it does not. */
interface Served {
  goal: Goal;
  stage: Stop;
  keys: readonly string[];
}

/** What a build has decided to serve: where others find it, its folders, its rules, its virtual machines. */
function served({ bench, box }: Ends['end']): Served[] {
  const addresses = hostsOfBox(bench, box.id).filter(
    (h) => h.address !== null && (h.manner === 'fixed' || h.manner === 'reservation'),
  );
  const gate = isGate(box) && (box.gate?.zones.length ?? 0) > 0;
  const guests = isHost(box) ? guestsOf(bench, box).plan.guests.filter((g) => g.autostart) : [];
  return [
    ...addresses.map((h): Served => ({
      goal: { code: 'answers at its address', host: h.name, address: h.address ?? '' },
      stage: 'network',
      keys: [`net:set:${h.id}`],
    })),
    ...(box.sharing?.folders ?? []).map((f): Served => ({
      goal: { code: 'folder is shared', folder: f.name },
      stage: 'load',
      keys: [`load:share:${f.id}`],
    })),
    ...(gate
      ? [
          {
            goal: { code: 'rules are in force', box: box.name } as const,
            stage: 'load' as const,
            keys: ['load:rules brought', 'load:rules', 'load:rules kept'],
          },
        ]
      : []),
    ...guests.map((g): Served => ({
      goal: { code: 'guest starts by itself', guest: g.name },
      stage: 'load',
      keys: [`load:guest:${g.id}`, `load:guest start:${g.id}`],
    })),
  ];
}

/** What it serves is reachable: a step without which it is not must not be skipped. */
export const servedGoals = ({ end, notDone }: Ends): GoalResult[] =>
  served(end).map(({ goal, stage, keys }) => {
    const step = keys.find((k) => notDone.includes(k));
    return step
      ? {
          goal,
          holds: false,
          lack: { code: 'its step is not done' },
          wayOut: { stage, act: { code: 'do', step } },
        }
      : { goal, holds: true, lack: null, wayOut: null };
  });
