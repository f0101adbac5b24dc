import type { GuestPlan } from '../model/guests';
import { GIB, MIB } from '../units/bytes';

/** What a host has, and what of it stays its own. Bytes; null where nobody knows. */
export interface Pot {
  sockets: number;
  cores: number | null;
  threads: number | null;
  memory: number | null;
  /** Memory of each socket. */
  nodes: number[];
  reserve: Reserve;
}

/** What a host keeps for itself. */
export interface Reserve {
  /** Its system and what runs beside the guests. */
  base: number;
  /** Cache of its file systems. */
  cache: number;
  /** For every guest that runs: the emulator, its tables and its screen. */
  perGuest: number;
  /** Threads the host works with. */
  threads: number;
  /** Which of them were said, not assumed. */
  said: readonly ('base' | 'cache' | 'perGuest')[];
}

/** What is known of the machine, where the plan says nothing. */
export interface Known {
  cores: number | null;
  threads: number | null;
  memory: number | null;
}

/** A plain host without a desktop. Common practice, no source. */
const USUAL_BASE = 1.5 * GIB;
/** An emulator with its tables: about 0.2 % of a guest's memory for tables, the rest for its devices. Common practice, no source. */
const USUAL_PER_GUEST = 192 * MIB;

/**
 * Cache: what a system's page cache takes it gives back, and a tenth of memory keeps it working (common practice, no source). A
 * file system with a cache of its own takes half of memory at most unless it is bounded (OpenZFS on Linux, `zfs_arc_max`; from
 * memory), and 1 GiB with 1 GiB for every TiB of pool is common practice.
 */
function usualCache(plan: GuestPlan, memory: number): number {
  if (plan.pot.cacheKind === 'page cache') return Math.floor(memory / 10);
  const tebibytes = plan.pools.reduce((sum, p) => sum + p.bytes, 0) / (1024 * GIB);
  return Math.min(Math.floor(memory / 2), Math.ceil((1 + tebibytes) * GIB));
}

/** The pot of a plan; what it does not say is what is known of its machine. */
export function potOf(plan: GuestPlan, known: Known): Pot {
  const { pot } = plan;
  const memory = pot.memoryBytes ?? known.memory;
  const threads = pot.threads ?? known.threads;
  const said: ('base' | 'cache' | 'perGuest')[] = [];
  if (pot.baseBytes !== null) said.push('base');
  if (pot.cacheBytes !== null) said.push('cache');
  if (pot.perGuestBytes !== null) said.push('perGuest');
  const nodes =
    pot.nodeBytes.length === pot.sockets
      ? pot.nodeBytes
      : Array.from({ length: pot.sockets }, () => Math.floor((memory ?? 0) / pot.sockets));
  return {
    sockets: pot.sockets,
    cores: pot.cores ?? known.cores,
    threads,
    memory,
    nodes,
    reserve: {
      base: pot.baseBytes ?? USUAL_BASE,
      cache: pot.cacheBytes ?? usualCache(plan, memory ?? 0),
      perGuest: pot.perGuestBytes ?? USUAL_PER_GUEST,
      threads: 1,
      said,
    },
  };
}
