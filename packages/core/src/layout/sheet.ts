import type { LayoutPlan } from '../model/layout';
import { lay } from './lay';
import type { LaidPart, Layout } from './laid';
import { spaceIn } from './space/spaceIn';
import type { Space } from './space/types';
import { typedFor, type Typed } from './typed';

/** A part of the table beside the columns: what to type for it, what it becomes and what is free in it afterwards. */
export interface LayoutRow {
  part: LaidPart;
  /** Null of what is not typed: parts that stay, and the extended one where the installer makes it by itself. */
  typed: Typed | null;
  /** It takes what is left, so that nothing need be typed. */
  rest: boolean;
  /** Null where its file system is kept, or is none. */
  space: Space | null;
}

/** A layout with all that is told of it. */
export interface LayoutSheet {
  layout: Layout;
  rows: LayoutRow[];
}

/** Lays a drive out and tells of each part what to type and what is free in it. */
export function layoutSheet(plan: LayoutPlan): LayoutSheet {
  const layout = lay(plan.drive, plan.want);
  const whole = { driveBytes: plan.drive.bytes, sectorSize: plan.drive.sectorSize };
  const rows = layout.parts.map((part): LayoutRow => {
    const want = plan.want.wants.find((w) => w.id === part.want);
    const made = part.filesystem === null || part.filesystem === 'none' ? null : part.filesystem;
    return {
      part,
      typed: part.fate === 'new' && part.want ? typedFor(part.bytes, plan.typed, plan.shown, whole) : null,
      rest: want?.size.kind === 'rest',
      space: made ? (spaceIn(made, part.bytes, plan.drive.sectorSize) ?? null) : null,
    };
  });
  return { layout, rows };
}
