import type { UsbLink, WriteRequest } from '../model/standIns';
import type { Store } from '../model/bench';
import { contentTitle } from '../model/content';
import type { Claim } from '../plan/claims';

/** What can be seen of something plugged in, before anybody's word about it. */
export interface AttachedTarget {
  id: string;
  bytes: number;
  serial: string | null;
  model: string;
  port: string;
  /** What its port carries, where that is known. */
  link?: UsbLink;
}

/** Why nothing is written to a target, as data; words/guard.ts says it. Bytes. */
export type GuardRefusal =
  | { rule: 'lies about its capacity'; real: number; claims: number }
  | { rule: 'holds what matters'; name: string; holds: string }
  | { rule: 'not decided'; name: string; holds: string }
  | { rule: 'too small'; bytes: number; needs: number }
  | { rule: 'cannot be told apart'; same: 'serial' | 'tail' }
  | { rule: 'no serial' }
  | { rule: 'two records'; count: number }
  | { rule: 'held by another box'; name: string; claim: Pick<Claim, 'boxName' | 'as'> }
  | { rule: 'is being written' };

/** Something attached, judged as a target. */
export interface GuardedTarget {
  target: AttachedTarget;
  /** The shelf's record of it, found by serial alone. */
  known: Store | undefined;
  refusals: GuardRefusal[];
  allowed: boolean;
  /** What must be typed: the last four of the serial. */
  tail: string;
  /** So large, or so much a drive, that it has to be said once more that it is the one. */
  large: boolean;
}

/** The last four characters of a serial, the part a person reads off and types. */
export const serialTail = (serial: string | null): string => (serial ?? '').slice(-4).toUpperCase();

/** Sticks for images are smaller than this: what is larger may be somebody's drive. Common practice, no source. */
const LARGE = 120e9;
/** Is this so large, or so much a drive, that it has to be said once more that it is the one? Bytes. */
export const isLarge = (store: { bytes: number; kind?: Store['kind'] }): boolean =>
  store.bytes >= LARGE || store.kind === 'drive';

/** What the shelf says of a medium, as far as it stands against writing to it: as a page sends it with a write. */
export type ShelfRecord = NonNullable<WriteRequest['shelf']>;

/** Why what the shelf says of a medium stands against writing to it; empty where nothing does. */
export function refusedByShelf({ name, fate, holds, claim }: ShelfRecord): GuardRefusal[] {
  const out: GuardRefusal[] = [];
  if (claim) out.push({ rule: 'held by another box', name, claim });
  if (fate === 'keep') out.push({ rule: 'holds what matters', name, holds });
  if (fate === 'not decided') out.push({ rule: 'not decided', name, holds });
  return out;
}

/** The shelf's record of a medium, for a write of the box whose claims `heldBy` tells against. */
export const shelfRecord = (store: Store, claim: Claim | undefined): ShelfRecord => ({
  name: store.name,
  fate: store.fate,
  holds: contentTitle(store),
  claim: claim ? { boxName: claim.boxName, as: claim.as } : null,
});

function refusalsFor(
  target: AttachedTarget,
  known: readonly Store[],
  all: readonly AttachedTarget[],
  imageBytes: number,
  heldBy: HeldBy | undefined,
): GuardRefusal[] {
  const kept = known.find((s) => s.fate === 'keep');
  const open = known.find((s) => s.fate === 'not decided');
  const held = known.flatMap((s) => heldBy?.(s) ?? [])[0];
  const gravest = kept ?? open ?? known[0];
  const out = gravest ? refusedByShelf(shelfRecord(gravest, held)) : [];
  if (known.length > 1) out.push({ rule: 'two records', count: known.length });
  const real = known.find((s) => s.realBytes !== null)?.realBytes ?? target.bytes;
  if (real < target.bytes) out.push({ rule: 'lies about its capacity', real, claims: target.bytes });
  if (target.bytes < imageBytes) out.push({ rule: 'too small', bytes: target.bytes, needs: imageBytes });
  if (!target.serial || target.serial.length < 4) out.push({ rule: 'no serial' });
  else {
    const twins = all.filter(
      (o) =>
        o.id !== target.id && serialTail(o.serial) === serialTail(target.serial) && o.bytes === target.bytes,
    );
    if (twins.length > 0)
      out.push({
        rule: 'cannot be told apart',
        same: twins.some((o) => o.serial === target.serial) ? 'serial' : 'tail',
      });
  }
  return out;
}

/** The claim of another box on a medium of the shelf; undefined where it is free for this one. */
export type HeldBy = (store: Store) => Claim | undefined;

/**
 * Judges everything attached as a target for an image of this size (bytes); `busy` names targets that a write is under way
 * to, `heldBy` tells which are held by another box. Order as attached.
 */
export function guardTargets(
  attached: readonly AttachedTarget[],
  shelf: readonly Store[],
  imageBytes: number,
  busy: readonly string[] = [],
  heldBy?: HeldBy,
): GuardedTarget[] {
  return attached.map((target) => {
    const known = target.serial ? shelf.filter((s) => s.serial === target.serial) : [];
    const refusals = refusalsFor(target, known, attached, imageBytes, heldBy);
    if (busy.includes(target.id)) refusals.unshift({ rule: 'is being written' });
    return {
      target,
      known: known[0],
      refusals,
      allowed: refusals.length === 0,
      tail: serialTail(target.serial),
      large: isLarge({ bytes: target.bytes, ...(known[0] ? { kind: known[0].kind } : {}) }),
    };
  });
}
