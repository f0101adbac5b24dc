import { findItem, findProfile, storesOf, type Bench, type Box, type Store } from '../model/bench';
import { grouped } from '../units/group';

/** What a box wants a medium for. */
export type ClaimFor = 'installer' | 'system' | 'chain loader' | 'component' | 'pool';

/** A box that a medium, memory module or adapter is reserved by, or in use by. */
export interface Claim {
  boxId: string;
  boxName: string;
  as: 'reserved' | 'in use';
  of: ClaimFor;
}

const signed = (box: Box, stop: Box['signoffs'][number]['stop']): boolean =>
  box.signoffs.some((s) => s.stop === stop);

/** Media of the shelf by what boxes know them by: looked through once for all boxes. */
interface Media {
  bySerial: ReadonlyMap<string, readonly Store[]>;
  bySystem: ReadonlyMap<string, readonly Store[]>;
  byImage: ReadonlyMap<string, readonly Store[]>;
  byPool: ReadonlyMap<string, readonly Store[]>;
}
const mediaOf = (bench: Bench): Media => {
  const stores = storesOf(bench);
  return {
    bySerial: grouped(stores, (s) => s.serial ?? undefined),
    bySystem: grouped(stores, (s) => s.installed?.boxId),
    byImage: grouped(stores, (s) => s.wholeImage?.boxId ?? undefined),
    byPool: grouped(stores, (s) => s.pooled?.boxId),
  };
};

/** What one box holds: item ids, each with what for. Decisions alone count; what is only suggested claims nothing. */
function heldBy(bench: Bench, box: Box, media: Media): { id: string; claim: Claim }[] {
  const out: { id: string; claim: Claim }[] = [];
  const add = (id: string | null | undefined, of: ClaimFor, as: Claim['as']): void => {
    if (id != null) out.push({ id, claim: { boxId: box.id, boxName: box.name, as, of } });
  };
  const installed = signed(box, 'install');
  const straight = findProfile(bench, box.profileId)?.installer === 'written straight to the final drive';
  for (const s of media.bySystem.get(box.id) ?? []) add(s.id, 'system', 'in use');
  add(box.layout?.driveId, 'system', installed ? 'in use' : 'reserved');
  const target = box.targetSerial === null ? undefined : media.bySerial.get(box.targetSerial)?.[0];
  const holds = media.byImage.get(box.id)?.[0];
  // A stick only carries it to its final drive.
  if (straight && target && target.kind !== 'stick')
    add(target.id, 'system', installed ? 'in use' : 'reserved');
  // The installer's stick is free again once the system is installed.
  else if (!installed) for (const s of new Set([target, holds])) add(s?.id, 'installer', 'reserved');
  add(box.chain?.stickId, 'chain loader', installed ? 'in use' : 'reserved');
  for (const id of box.parts) {
    const part = findItem(bench, id);
    const inside = part && 'in' in part && part.in !== null && part.in === box.machineId;
    add(id, 'component', inside && installed ? 'in use' : 'reserved');
  }
  for (const s of media.byPool.get(box.id) ?? []) add(s.id, 'pool', 'in use');
  for (const id of box.pool?.drives ?? []) add(id, 'pool', signed(box, 'load') ? 'in use' : 'reserved');
  return out;
}

/** What of a box `heldBy` reads. */
const HOLDS = [
  'id',
  'name',
  'machineId',
  'profileId',
  'parts',
  'layout',
  'targetSerial',
  'chain',
  'pool',
  'signoffs',
  'kept',
] as const;
/** Do two states of the boxes claim the same of a shelf that has not changed? What else a box has is not looked at. */
export const sameClaims = (a: Bench['boxes'], b: Bench['boxes']): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => HOLDS.every((k) => x[k] === b[i]?.[k])));

const lately = new WeakMap<
  Bench['boxes'],
  { items: Bench['items']; profiles: Bench['profiles']; claims: Map<string, Claim[]> }
>();

/**
 * Who holds what, by the id of the item: what is in use before what is reserved, and of equals the older box first. It is
 * worked out from what the boxes have decided and done, so that no claim outlives its reason. A box that is retired holds
 * nothing.
 */
export function claimsOf(bench: Bench): ReadonlyMap<string, readonly Claim[]> {
  const before = lately.get(bench.boxes);
  if (before?.items === bench.items && before.profiles === bench.profiles) return before.claims;
  const media = mediaOf(bench);
  const held = [...bench.boxes]
    .filter((b) => !b.kept?.retired)
    .sort((a, b) => (a.createdAt < b.createdAt ? -1 : 1))
    .flatMap((b) => heldBy(bench, b, media));
  const byItem = grouped(held, (h) => h.id);
  const claims = new Map(
    [...byItem].map(([id, all]) => [
      id,
      all
        .map((h) => h.claim)
        .sort((a, b) => Number(b.as === 'in use') - Number(a.as === 'in use'))
        .filter((c, i, list) => list.findIndex((o) => o.boxId === c.boxId) === i),
    ]),
  );
  lately.set(bench.boxes, { items: bench.items, profiles: bench.profiles, claims });
  return claims;
}

/** The one box that holds an item; undefined where none does. */
export const claimOf = (bench: Bench, itemId: string): Claim | undefined => claimsOf(bench).get(itemId)?.[0];

/** The claim of another box that goes before this one's; undefined where the item is free for it. */
export function claimAgainst(bench: Bench, box: Pick<Box, 'id'> | null, itemId: string): Claim | undefined {
  const claim = claimOf(bench, itemId);
  return claim && claim.boxId !== box?.id ? claim : undefined;
}

/** Is a medium free for a box: neither reserved by another, nor in use by one? */
export const isFreeFor = (bench: Bench, box: Pick<Box, 'id'>, store: Pick<Store, 'id'>): boolean =>
  claimAgainst(bench, box, store.id) === undefined;
