import tlds from 'tlds';
import type { Network } from '../model/network';
import type { NetworkFinding } from './finding';
import { labelFault, liesIn, NAME_MOST, type NameFault } from './names';

/** RFC 6761 §6, RFC 7686. */
const SET_ASIDE = ['test', 'example', 'invalid', 'localhost', 'onion'];
/** Set aside for networks of one's own: RFC 8375 for homes; `internal` by a resolution of ICANN's board of July 2024 (from memory). */
const HOME = ['home.arpa', 'internal'];
const TOPS = new Set(tlds);

/** What is wrong with the domain of a network, the gravest first; `own` where it is registered to whoever runs it. */
export function domainFaults(domain: string, own: boolean): NameFault[] {
  const low = domain.toLowerCase().replace(/\.$/, '');
  const labels = low.split('.');
  const top = labels.at(-1) ?? '';
  // Digits may well stand behind others, in a domain; only a name that is nothing else reads as an address.
  const wrong = labels.flatMap((l) => labelFault(l) ?? []).filter((f) => f.code !== 'all digits');
  if (wrong.length > 0) return wrong;
  if (low.length > NAME_MOST) return [{ code: 'name too long', octets: low.length }];
  if (HOME.some((home) => liesIn(low, home))) return [];
  if (top === 'local') return [{ code: 'multicast domain' }];
  const aside = SET_ASIDE.find((name) => liesIn(low, name));
  if (aside !== undefined) return [{ code: 'set aside', domain: aside }];
  if (!TOPS.has(top)) return [{ code: 'invented top level', top }];
  return own ? [] : [{ code: 'real top level', top }];
}

/** What is wrong with the domains of networks. It stands apart because the list of top levels is long, and no box waits for it. */
export const checkDomains = (networks: readonly Network[]): NetworkFinding[] =>
  networks.flatMap(({ id, domain, ownDomain }) =>
    domain === null
      ? []
      : domainFaults(domain, ownDomain).map((fault) => ({
          fault: { code: 'bad domain' as const, domain, fault },
          grade: 'check' as const,
          networks: [id],
          hosts: [],
        })),
  );
