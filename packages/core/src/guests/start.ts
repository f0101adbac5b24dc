import type { Bench } from '../model/bench';
import { findImage } from '../model/bench';
import type { Guest, GuestPlan } from '../model/guests';
import { contentOf } from '../model/inspection';
import { folderOf, homePool } from './folder';
import { startOn, type MachineStart } from '../starting/forMachine';

/** What a guest does when it is first started from its installer: as an emulated machine of its firmware would. */
export interface GuestStart {
  image: { id: string; name: string; bytes: number } | null;
  /** Undefined where the image was not read, or has no row for this firmware. */
  start: MachineStart | undefined;
}

/**
 * The first start of a guest foretold by the chain that foretells every machine: the image as a disc in an emulated machine, whose
 * firmware has the usual keys where Secure Boot is on.
 */
export function guestStart(bench: Bench, g: Guest): GuestStart {
  const image = findImage(bench, g.imageId);
  if (!image) return { image: null, start: undefined };
  const reading = image.inspection ? contentOf(image.inspection) : undefined;
  return {
    image: { id: image.id, name: image.name, bytes: image.bytes },
    start: startOn(reading, g.firmware === 'bios' ? 'bios' : 'uefi-x64', g.firmware === 'secure', 'optical'),
  };
}

/** Where the installer of a guest lies on its host: beside the disks, by the name of its file; null where it has none. */
export function installerFile(bench: Bench, plan: GuestPlan, guestId: string): string | null {
  const guest = plan.guests.find((g) => g.id === guestId);
  const image = guest && findImage(bench, guest.imageId);
  if (!image) return null;
  return `${folderOf(homePool(plan, guest))}/images/${image.name.replace(/[^\w.-]+/g, '-')}`;
}

/** An image that lies on a pool, for guests to be installed from. Bytes. */
export interface Installer {
  poolId: string;
  imageId: string;
  name: string;
  bytes: number;
  path: string;
}

/** Installers that lie on a host: each image once in every pool where a guest wants it, beside the disks. */
export function installersOf(bench: Bench, plan: GuestPlan): Installer[] {
  const out = new Map<string, Installer>();
  for (const g of plan.guests) {
    const image = findImage(bench, g.imageId);
    const pool = homePool(plan, g);
    const path = installerFile(bench, plan, g.id);
    if (image && pool && path !== null)
      out.set(`${pool.id} ${image.id}`, {
        poolId: pool.id,
        imageId: image.id,
        name: image.name,
        bytes: image.bytes,
        path,
      });
  }
  return [...out.values()];
}

/** A plan whose pools have the installers of its guests on them. */
export function withInstallers(plan: GuestPlan, installers: readonly Installer[]): GuestPlan {
  if (installers.length === 0) return plan;
  const taken = (poolId: string): number =>
    installers.reduce((sum, i) => sum + (i.poolId === poolId ? i.bytes : 0), 0);
  return { ...plan, pools: plan.pools.map((p) => ({ ...p, otherBytes: p.otherBytes + taken(p.id) })) };
}
