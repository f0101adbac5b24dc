import type { Store } from '../model/bench';
import { contentTitle, isBlank } from '../model/content';
import { formatIec } from '../units/bytes';
import type { LaidBox } from './forBox';

/** A stretch of a drive as it is drawn: its share of the height, how it is filled, what is said of it. */
export interface DriveStratum {
  share: number;
  pattern: 'erased' | 'new' | 'part' | 'gap' | 'code';
  word: string;
  /** The want whose part it is; null of what is there, and of room that nothing lies in. */
  part: string | null;
}

/** Nothing drawn is thinner than this share, or it could not be seen. */
const THINNEST = 0.03;

/** Shares of a whole, each tall enough to be seen. */
function tall(list: readonly (Omit<DriveStratum, 'share'> & { bytes: number })[]): DriveStratum[] {
  const whole = list.reduce((n, s) => n + s.bytes, 0) || 1;
  const raised = list.map((s) => Math.max(THINNEST, s.bytes / whole));
  const sum = raised.reduce((n, s) => n + s, 0);
  return list.map((s, i) => ({
    pattern: s.pattern,
    word: s.word,
    part: s.part,
    share: (raised[i] ?? 0) / sum,
  }));
}

const whole = { share: 1, part: null };

/** A drive as it is now, and whether it goes. */
export function stratumNow(drive: Store, { drive: taken, sheet, why }: LaidBox): DriveStratum {
  const holds = contentTitle(drive);
  const lost = drive === taken && (sheet !== null || why?.code === 'written straight to the drive');
  if (isBlank(drive.content)) return { ...whole, pattern: 'gap', word: 'empty' };
  if (lost && sheet?.layout.parts.some((p) => p.fate !== 'new'))
    return { ...whole, pattern: 'part', word: `stays: ${holds}` };
  if (lost) return { ...whole, pattern: 'erased', word: `erased: ${holds}` };
  return { ...whole, pattern: 'part', word: drive.fate === 'keep' ? `kept: ${holds}` : holds };
}

/** What the drive of a box's system becomes, from the bottom up; empty where that is not known. */
export function strataAfter({ sheet, why }: LaidBox): DriveStratum[] {
  if (why?.code === 'written straight to the drive')
    return [{ ...whole, pattern: 'new', word: 'the image, grown at its first start' }];
  if (!sheet) return [];
  const parts = sheet.layout.parts
    .filter((p) => p.kind !== 'extended')
    .map((p) => ({
      start: p.start,
      bytes: p.bytes,
      part: p.want,
      pattern: p.fate !== 'new' ? ('part' as const) : p.use === 'swap' ? ('code' as const) : ('new' as const),
      word: `${p.fate === 'new' ? '' : p.fate === 'kept' ? 'kept: ' : 'made smaller: '}${p.name || (p.use ?? 'part')} ${formatIec(p.bytes)}`,
    }));
  const gaps = sheet.layout.unused.map((u) => ({
    ...u,
    part: null,
    pattern: 'gap' as const,
    word: `${formatIec(u.bytes)} unused`,
  }));
  // The first part lies on top, as it is read in the table.
  return tall([...parts, ...gaps].sort((a, b) => b.start - a.start));
}
