import { findMachine, findProfile, machinesOf, type Bench, type Box, type Machine } from '../model/bench';
import { profileLine } from '../system/options';
import { addSpans, type Span } from '../units/duration';
import type { Hazard } from './hazard';
import { RANK, summaryOf, type RouteStop } from './summary';

/** One unfinished box: what wants you now, and its minutes in seconds. */
export interface BenchCard {
  box: Box;
  machine: string | undefined;
  system: string | undefined;
  next: RouteStop;
  /** Seconds of hands and waiting over all stops left. */
  left: Span;
  /** The gravest that stands in the way; notes do not. */
  inTheWay: Hazard | undefined;
  /** The first thing that has to be answered, in words. */
  question: string | undefined;
}

const gravity = (c: BenchCard): number => RANK[c.inTheWay?.grade ?? 'note'];

/** Every unfinished box, what must not go on first, then what takes the least of a person's own time. */
export function benchCards(bench: Bench): BenchCard[] {
  const cards = bench.boxes.flatMap((box): BenchCard[] => {
    if (box.kept?.retired) return [];
    const { route, hazards, questions } = summaryOf(bench, box);
    const stops = route.filter((s) => s.state !== 'signed');
    const [next] = stops;
    if (!next) return [];
    const profile = findProfile(bench, box.profileId);
    return [
      {
        box,
        machine: findMachine(bench, box.machineId)?.name,
        system: profile && profileLine(profile, box),
        next,
        left: addSpans(stops.flatMap((s) => [s.hands, s.waiting])),
        inTheWay: hazards.find((h) => h.grade !== 'note'),
        question: questions[0],
      },
    ];
  });
  return cards.sort((a, b) => gravity(a) - gravity(b) || a.next.hands.high - b.next.hands.high);
}

/** Machines that are here and in no box. */
export function idleMachines(bench: Bench): Machine[] {
  const busy = new Set(bench.boxes.flatMap((b) => (b.kept?.retired ? [] : [b.machineId])));
  return machinesOf(bench).filter((m) => !busy.has(m.id));
}
