import { findNetwork, hostsOfBox, type Bench, type Box } from '../../model/bench';
import { noSharing, type SharedFolder, type Sharing } from '../../model/sharing';
import { labelOf } from '../../network/names';
import { checkSharing } from './check';
import type { ShareFinding } from './finding';

/** What stop 10 knows of the folders of a box. */
export interface BoxSharing {
  sharing: Sharing;
  /** The name it is found by. */
  name: string;
  /** Where its pool is mounted; null where it has none. */
  pool: string | null;
  findings: ShareFinding[];
}

/** Prefixes of the networks a box has a place in: what its folders are opened to first, and nothing wider. */
export const networksOf = (bench: Bench, box: Box): string[] => [
  ...new Set(
    hostsOfBox(bench, box.id).flatMap((h) => {
      const network = findNetwork(bench, h.networkId);
      return network ? [network.prefix, network.prefix6].filter((p) => p !== null) : [];
    }),
  ),
];

/** Folders of a box as they were decided, the name it is found by, and what is wrong with them. */
export function sharingOf(bench: Bench, box: Box): BoxSharing {
  const sharing = box.sharing ?? noSharing();
  const name =
    sharing.name ?? hostsOfBox(bench, box.id).find((h) => h.label !== null)?.label ?? labelOf(box.name);
  const pool = box.pool?.way ? `/srv/${box.pool.name}` : null;
  return { sharing, name, pool, findings: checkSharing(sharing, name, pool) };
}

/** A folder that is about to be shared: on the pool, over SMB, and open to nobody yet. */
export function draftFolder(found: BoxSharing, id: string, name: string): SharedFolder {
  const under = found.pool ?? '/srv';
  return {
    id,
    name,
    path: `${under}/${labelOf(name) || 'folder'}`,
    protocols: ['smb'],
    read: [],
    write: [],
    guests: 'none',
    oneCase: true,
    binDays: null,
  };
}
