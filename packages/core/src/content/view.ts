import type {
  ContentCode,
  ContentEntry,
  ContentFault,
  ContentFinding,
  ContentTarget,
  Remedy,
} from '../model/contentRules';
import type { LogEntry } from '../model/bench';
import type { Span } from '../units/duration';
import type { TimedTarget } from '../write/time';
import { byStick, overWire, roomAfter, type ByStick, type RoomAfter } from './carry';
import type { CopyPlan } from './plan';
import { blockRounding, exfatRounding, fatRounding, type Rounding } from './target';

/** A finding without its files, of which there may be a great many. */
export interface FindingView {
  fault: ContentFault;
  count: number;
  bytes: number;
  grade: ContentFinding['grade'];
  /** How many of its files something can be done with, and what. */
  remedies: number;
  act: Remedy['act'] | null;
}

/** What was found in a folder, as a screen shows it. */
export interface LookedView {
  files: number;
  bytes: number;
  findings: FindingView[];
}

/** Names of a few files are enough for a line; the others are asked for. */
const NAMED = 3;

/** Findings without their lists of files. */
export const lookedView = (
  entries: readonly ContentEntry[],
  findings: readonly ContentFinding[],
): LookedView => ({
  files: entries.filter((e) => e.odd === null).length,
  bytes: entries.reduce((n, e) => n + e.bytes, 0),
  findings: findings.map((f) => ({
    fault: { ...f.fault, files: f.fault.files.slice(0, NAMED) },
    count: f.fault.files.length,
    bytes: f.bytes,
    grade: f.grade,
    remedies: f.remedies.length,
    act: f.remedies[0]?.act ?? null,
  })),
});

/** One file of a finding, and what becomes of it. */
export interface FileLine {
  path: string;
  act: Remedy['act'] | null;
  to: string | null;
}

/** The files of a finding from one place on, so many of them. */
export function fileLines(finding: ContentFinding | undefined, from: number, count: number): FileLine[] {
  if (!finding) return [];
  const remedies = new Map(finding.remedies.map((r) => [r.path, r]));
  return finding.fault.files.slice(from, from + count).map((path) => {
    const r = remedies.get(path);
    return { path, act: r?.act ?? null, to: r?.to ?? null };
  });
}

/** How a target of this kind rounds, with so large a cluster. */
export const roundingOf = (target: ContentTarget, cluster: number): Rounding =>
  target === 'fat'
    ? fatRounding(cluster)
    : target === 'exfat'
      ? exfatRounding(cluster)
      : { ...blockRounding, cluster };

/** What a copy is asked: the stick that carries, the wire, and what takes it. Bytes; Mb/s; bytes a second. */
export interface CarryAsk {
  stick: { target: TimedTarget; free: number } | null;
  /** Writes of that stick, by which its times are foretold; a whole log is long to hand on. */
  log: LogEntry[];
  carrying: ContentTarget;
  cluster: number;
  mbps: number;
  writes: { slow: number; fast: number };
  /** Free room of what takes it; null where nobody knows. */
  room: number | null;
}

/** A plan as a screen shows it. */
export interface PlanView {
  files: number;
  bytes: number;
  left: number;
  unpack: number;
  moves: number;
  wire: number;
  stick: ByStick | null;
  overWire: Span;
  room: RoomAfter | null;
}

/** What goes, what stays, how long it takes and what is left, of a plan. */
export function planView(plan: CopyPlan, ask: CarryAsk): PlanView {
  const gone = plan.files.filter((f) => f.to !== null);
  return {
    files: gone.length,
    bytes: gone.reduce((n, f) => n + f.bytes, 0),
    left: plan.left,
    unpack: plan.unpack.length,
    moves: plan.moves.length,
    wire: gone.filter((f) => f.wire).length,
    stick:
      ask.stick &&
      byStick(plan.files, { ...ask.stick, rounding: roundingOf(ask.carrying, ask.cluster) }, ask.log),
    overWire: overWire(plan.files, ask.mbps, ask.writes),
    room: ask.room === null ? null : roomAfter(plan.files, ask.room, roundingOf('ext4', 4096)),
  };
}

/** Findings that would stop a copy and whose remedies are not taken, or have none. */
export const stillOpen = (
  findings: readonly Pick<FindingView, 'fault' | 'grade'>[],
  taken: ReadonlySet<ContentCode>,
): number => findings.filter((f) => f.grade === 'stop' && !taken.has(f.fault.code)).length;
