import type { Host, Network } from '../model/network';
import { addressOf, inPool, ipOf, parsed } from './parsed';
import type { Pool } from './allot';

/** A host that comes back and asks, or that stands where it was set whatever the server thinks. */
export interface Returning {
  id: string;
  hardware: string | null;
  /** The address it had, as a number; undefined where nobody knows it. */
  had: number | undefined;
  /** False: set by hand on an address that the server may give away. */
  asks: boolean;
  /** Whether it asks for the address it had; null: either may be so. */
  asksAgain: boolean | null;
}

/** How things are that nobody has said: one way of all of them. */
export interface CutWay {
  manner: Pool['manner'];
  /** The server knows its leases again. */
  remembers: boolean;
  /** It looks whether anybody answers before it gives an address away (RFC 2131 §3.1 step 2, “SHOULD”). */
  looks: boolean;
}

/** A network before its power is cut. */
export interface CutScene {
  network: Network;
  /** Hosts that come back in any order, and what their coming can do to each other. */
  returning: Returning[];
  /** Hosts that have an address of their own whatever happens, by id. */
  certain: string[];
  /** Hosts of which nobody knows how they have theirs, or their card where that decides. */
  untold: string[];
  ways: CutWay[];
  pool: Omit<Pool, 'manner'> | undefined;
}

const either = (known: boolean | null): boolean[] => (known === null ? [true, false] : [known]);

/**
 * What a cut has to reckon with. `outageSeconds`: a lease that is over meanwhile is forgotten whatever the server keeps.
 */
export function cutScene(network: Network, hosts: readonly Host[], outageSeconds: number): CutScene {
  const p = parsed(network);
  const here = hosts.filter((h) => h.networkId === network.id);
  const kept = new Set<number>();
  for (const h of here) {
    const ip = ipOf(h.address);
    if (h.manner === 'reservation' && ip) kept.add(Number(ip.value));
  }
  if (p.gateway) kept.add(Number(p.gateway.value));
  const returning: Returning[] = [];
  const certain: string[] = [];
  const untold: string[] = [];
  const manners: Pool['manner'][] =
    network.manner === 'not known' ? ['by hardware address', 'in order'] : [network.manner];
  const byCard = manners.includes('by hardware address');
  for (const h of here) {
    const ip = addressOf(h);
    const had = ip && Number(ip.value);
    const isRouter = ip !== undefined && ip.value === p.gateway?.value;
    if (isRouter || h.manner === 'reservation') certain.push(h.id);
    else if (h.manner === 'fixed') {
      if (inPool(p, ip))
        returning.push({ id: h.id, hardware: h.hardware, had, asks: false, asksAgain: null });
      else certain.push(h.id);
    } else if (h.manner === 'not known' || (byCard && h.hardware === null)) untold.push(h.id);
    else
      returning.push({
        id: h.id,
        hardware: h.hardware,
        had: ip && inPool(p, ip) ? had : undefined,
        asks: true,
        asksAgain: h.asksAgain,
      });
  }
  const over = network.leaseSeconds !== null && outageSeconds >= network.leaseSeconds;
  return {
    network,
    returning,
    certain,
    untold,
    ways: manners.flatMap((manner) =>
      (over ? [false] : either(network.remembers)).flatMap((remembers) =>
        // A server whose manner is known is one of those that look; of another nobody knows.
        (network.manner === 'not known' ? [true, false] : [true]).map((looks) => ({
          manner,
          remembers,
          looks,
        })),
      ),
    ),
    pool: p.pool && { from: Number(p.pool.from), to: Number(p.pool.to), kept },
  };
}
