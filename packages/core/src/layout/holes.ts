import type { DriveThere, DriveWant, PartThere } from '../model/layout';
import type { LayoutProblem } from './laid';
import type { Hole } from './place';
import { canShrink } from './shrinks';
import { isExtended, UNIT, usable } from './table';

/** A part that stays: where it lies afterwards. Bytes. */
export interface Staying {
  part: PartThere;
  bytes: number;
  kind: 'primary' | 'extended' | 'logical';
}

/** No file system is asked to be smaller than this. */
const LEAST_LEFT = UNIT;

const inside = (p: PartThere, of: PartThere): boolean =>
  p !== of && p.start >= of.start && p.start < of.start + of.bytes;

/** Bytes of a part that stays: as many as it has, unless it is made smaller and can be. */
function sizeAfter(
  part: PartThere,
  shrinkTo: number | null,
  sectorSize: number,
  problems: LayoutProblem[],
): number {
  if (shrinkTo === null || shrinkTo === part.bytes) return part.bytes;
  if (shrinkTo < LEAST_LEFT || shrinkTo > part.bytes) {
    problems.push({ code: 'smaller than it can be', number: part.number, asked: shrinkTo });
    return shrinkTo > part.bytes ? part.bytes : Math.min(part.bytes, LEAST_LEFT);
  }
  if (!canShrink(part)) {
    problems.push({ code: 'cannot be made smaller', number: part.number, filesystem: part.filesystem });
    return part.bytes;
  }
  return Math.min(part.bytes, Math.ceil(shrinkTo / sectorSize) * sectorSize);
}

/** The parts that stay, the extended one with them where logical ones do; and what of the wish cannot be. */
export function staying(drive: DriveThere, want: DriveWant): { stay: Staying[]; problems: LayoutProblem[] } {
  const problems: LayoutProblem[] = [];
  if (want.kept.length === 0) return { stay: [], problems };
  if (drive.table === 'unknown') return { stay: [], problems: [{ code: 'unknown table keeps nothing' }] };
  if (drive.table !== want.table || want.table === 'none')
    return { stay: [], problems: [{ code: 'another table keeps nothing', table: drive.table }] };
  const extended = drive.table === 'mbr' ? drive.parts.find((p) => isExtended(p.type)) : undefined;
  const stay: Staying[] = [];
  for (const { number, shrinkTo } of want.kept) {
    const part = drive.parts.find((p) => p.number === number);
    if (!part) {
      problems.push({ code: 'nothing kept of that number', number });
      continue;
    }
    if (part === extended) continue;
    stay.push({
      part,
      bytes: sizeAfter(part, shrinkTo, drive.sectorSize, problems),
      kind: extended && inside(part, extended) ? 'logical' : 'primary',
    });
  }
  if (extended && stay.some((s) => s.kind === 'logical'))
    stay.push({ part: extended, bytes: extended.bytes, kind: 'extended' });
  stay.sort((a, b) => a.part.start - b.part.start || (a.kind === 'extended' ? -1 : 1));
  return { stay, problems };
}

/** Holes of at least one unit between `taken` stretches, from `from` to `to`. Bytes in, units out. */
function between(
  from: number,
  to: number,
  taken: readonly { start: number; end: number }[],
  kind: Hole['kind'],
): Hole[] {
  const out: Hole[] = [];
  const add = (start: number, end: number): void => {
    const at = Math.ceil(start / UNIT) * UNIT;
    const units = Math.floor((end - at) / UNIT);
    if (units > 0) out.push({ start: at, units, kind });
  };
  let at = from;
  for (const t of [...taken].sort((a, b) => a.start - b.start)) {
    add(at, Math.min(t.start, to));
    at = Math.max(at, t.end);
  }
  add(at, to);
  return out;
}

/** Where new parts may lie beside those that stay. `reserve` bytes at the end are left out. */
export function holesOf(drive: DriveThere, want: DriveWant, stay: readonly Staying[]): Hole[] {
  const { from, to } = usable(want.table, drive.bytes, drive.sectorSize);
  const end = Math.max(from, to - want.reserve);
  const span = (s: Staying): { start: number; end: number } => ({
    start: s.part.start,
    end: s.part.start + s.bytes,
  });
  const outer = stay.filter((s) => s.kind !== 'logical').map(span);
  const box = stay.find((s) => s.kind === 'extended');
  const logical = stay.filter((s) => s.kind === 'logical');
  return [
    ...between(from, end, outer, 'free'),
    ...(box
      ? between(
          box.part.start,
          Math.min(box.part.start + box.bytes, end),
          // The record of a logical part lies before it, in the same unit or the one before.
          logical.map((s) => ({ start: Math.max(box.part.start, s.part.start - UNIT), end: span(s).end })),
          'within extended',
        )
      : []),
  ].sort((a, b) => a.start - b.start);
}
