import { sameClaims } from '../plan/claims';
import { findMachine, runsOfBox, type Bench, type Box, type LogEntry, type TuneRun } from '../model/bench';
import { stopTitle, stops, type Stop } from '../model/stops';
import { addSpans, formatSpan, type Span } from '../units/duration';
import type { Hazard } from './hazard';
import { Scene } from './scene';
import { judgedOn } from './today';
import type { TradeLine } from './trade/line';
import type { LedgerLine } from './stopModule';
import { inOrder, stopModules } from './stops';
import { ownHands, sameTimed, timedCount } from './timed';

/** Where a stop of a box stands. */
export type StopState = 'signed' | 'current' | 'ahead';

/** One stop on the route of a box. */
export interface RouteStop {
  stop: Stop;
  number: number;
  title: string;
  state: StopState;
  /** True where a Stop hazard belongs to this stop. */
  hazard: boolean;
  /** A person's own hands, and waiting, in seconds. */
  hands: Span;
  waiting: Span;
}

/** All that rail, ledger, route and bench say of a box. */
export interface Summary {
  /** Gravest first. */
  hazards: readonly Hazard[];
  route: readonly RouteStop[];
  /** What is left, in seconds. */
  hands: Span;
  waiting: Span;
  times: readonly LedgerLine[];
  bytesAtRisk: readonly LedgerLine[];
  questions: readonly string[];
}

/** Grades of hazards, the gravest first. */
export const RANK = { stop: 0, check: 1, note: 2 };

const paceWords = (timed: number): string =>
  timed === 0 ? '' : `; at your own pace, by ${timed} ${timed === 1 ? 'step' : 'steps'} with a clock`;

function summarise(scene: Scene): Summary {
  const hazards = inOrder
    .flatMap((m) => m.hazards(scene))
    .map((h, i) => ({ h, i }))
    .sort((a, b) => RANK[a.h.grade] - RANK[b.h.grade] || a.i - b.i)
    .map((x) => x.h);
  const graded = new Set(hazards.filter((h) => h.grade === 'stop').map((h) => h.stop));
  const current = stops.find((s) => !scene.signed(s));
  const route = inOrder.map((m, i): RouteStop => ({
    stop: m.stop,
    number: i + 1,
    title: stopTitle[m.stop],
    state: scene.signed(m.stop) ? 'signed' : m.stop === current ? 'current' : 'ahead',
    hazard: graded.has(m.stop),
    hands: ownHands(scene, m.stop, m.hands(scene)),
    waiting: m.waiting(scene),
  }));
  const left = route.filter((s) => s.state !== 'signed');
  const hands = addSpans(left.map((s) => s.hands));
  const waiting = addSpans(left.map((s) => s.waiting));
  const list = (key: 'hands' | 'waiting'): string =>
    left
      .filter((s) => s[key].high > 0)
      .map((s) => `${s.title} ${formatSpan(s[key])}`)
      .join(', ');
  return {
    hazards,
    route,
    hands,
    waiting,
    times: [
      {
        label: 'Your hands',
        value: formatSpan(hands),
        because: (list('hands') || 'every stop is signed off') + paceWords(timedCount(scene.bench)),
      },
      {
        label: 'Waiting',
        value: formatSpan(waiting),
        because: list('waiting') || 'nothing left to wait for',
      },
    ],
    bytesAtRisk: inOrder.flatMap((m) => m.bytesAtRisk(scene)),
    questions: [...new Set(inOrder.flatMap((m) => m.questions(scene)))],
  };
}

/** What a summary looks at; a change of anything else leaves it as it is. */
interface Seen {
  items: Bench['items'];
  profiles: Bench['profiles'];
  boxes: Bench['boxes'];
  networks: Bench['networks'];
  hosts: Bench['hosts'];
  day: string | undefined;
  writes: readonly LogEntry[];
  runs: readonly TuneRun[];
  summary: Summary;
}
const known = new WeakMap<Box, Seen>();

const writesIn = new WeakMap<Bench['log'], readonly LogEntry[]>();
/** Writes of the log: of it alone the times are foretold from. */
function writesOf(log: Bench['log']): readonly LogEntry[] {
  let writes = writesIn.get(log);
  if (!writes) writesIn.set(log, (writes = log.filter((e) => e.kind === 'write')));
  return writes;
}
const sameEntries = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => x === b[i]));

/**
 * The summary of a box, computed once for each state of the bench: it is asked for by the rail, the ledger and the route of
 * the same screen, and made anew only where something it looks at has changed.
 */
export function summaryOf(bench: Bench, box: Box): Summary {
  const before = known.get(box);
  const writes = writesOf(bench.log);
  const runs = runsOfBox(bench, box.id);
  if (
    before?.items === bench.items &&
    before.day === judgedOn() &&
    before.profiles === bench.profiles &&
    before.networks === bench.networks &&
    before.hosts === bench.hosts &&
    sameClaims(before.boxes, bench.boxes) &&
    sameTimed(before.boxes, bench.boxes) &&
    sameEntries(before.writes, writes) &&
    sameEntries(before.runs, runs)
  )
    return before.summary;
  const { items, profiles, boxes, networks, hosts } = bench;
  const summary = summarise(new Scene(bench, box));
  known.set(box, { items, profiles, boxes, networks, hosts, writes, runs, day: judgedOn(), summary });
  return summary;
}

/** What people who do this often look at, at a stop of this box. */
export const tradeLines = (bench: Bench, box: Box, stop: Stop): TradeLine[] =>
  stopModules[stop].lines(new Scene(bench, box));

/** Hazards of a box, gravest first; each names the stop at which it is dealt with. */
export const hazards = (bench: Bench, box: Box): readonly Hazard[] => summaryOf(bench, box).hazards;

/** The twelve stops of a box with their state and minutes; the first unsigned one is current. */
export const route = (bench: Bench, box: Box): readonly RouteStop[] => summaryOf(bench, box).route;

/** The next stop that is not signed off; the last one where all are. */
export const currentStop = (box: Box): Stop =>
  stops.find((s) => !box.signoffs.some((x) => x.stop === s)) ?? 'keep';

/** The line under a box's name in the rail. */
export function boxLine(bench: Bench, box: Box): string {
  const machine = findMachine(bench, box.machineId);
  return machine ? `on ${machine.name}, ${machine.form}` : 'no machine yet';
}
