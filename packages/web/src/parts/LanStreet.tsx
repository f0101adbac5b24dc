import type { Host, Network } from '@zb/core/model/network';
import type { NetworkFinding } from '@zb/core/network/finding';
import { shortened, streetOf, type Stretch } from '@zb/core/network/street';
import { mannerWords, stretchWords } from '@zb/core/words/lan';
import { useMemo } from 'react';
import { AddressStreet, type Plot } from '../drawing/AddressStreet';
import type { Pattern } from '../drawing/patterns';
import { Head } from '../ui/Words';

const PATTERN: Record<Stretch['kind'], Pattern> = {
  network: 'part',
  broadcast: 'part',
  gateway: 'code',
  host: 'new',
  pool: 'table',
  'kept for boxes': 'gap',
  free: 'gap',
};

/** The part of an address that differs within its network; the whole of it where that is not the last number alone. */
const short = (address: string, bits: number): string =>
  bits >= 24 ? `.${address.split('.')[3] ?? ''}` : `.${address.split('.').slice(2).join('.')}`;

/** A network’s addresses with who lives where, by their patterns and words. */
export function LanStreet({
  network,
  hosts,
  findings,
  here,
  most = 22,
  onTake,
}: {
  network: Network;
  hosts: readonly Host[];
  findings: readonly NetworkFinding[];
  /** The host this sheet is about. */
  here?: string | undefined;
  most?: number;
  onTake?: (hostId: string) => void;
}) {
  const plots = useMemo(() => {
    const byId = new Map(hosts.map((h) => [h.id, h]));
    const bits = Number(network.prefix?.split('/')[1] ?? 24);
    const wrong = new Set(findings.filter((f) => f.grade !== 'note').flatMap((f) => f.hosts));
    const keep = new Set(hosts.filter((h) => h.boxId !== null || h.id === here).map((h) => h.id));
    const street = streetOf(network, hosts).filter((s) => s.kind !== 'network' && s.kind !== 'broadcast');
    return shortened(street, most, keep).map((s): Plot => {
      const mine = s.hosts.flatMap((id) => byId.get(id) ?? []);
      const [one] = mine;
      const single = (s.kind === 'host' || s.kind === 'gateway') && one !== undefined;
      const several = single && mine.length > 1;
      const handSet = s.kind === 'host' && one?.manner !== 'reservation';
      return {
        key: one?.id ?? s.from,
        from: short(s.from, bits),
        count: s.count,
        pattern: handSet ? 'erased' : PATTERN[s.kind],
        title: several
          ? s.count === 1
            ? mine.map((h) => h.name).join(' and ')
            : `${mine.length} hosts`
          : single
            ? one.name
            : '',
        words: single
          ? several
            ? s.count === 1
              ? 'both claim it'
              : `to ${short(s.to, bits)}`
            : s.kind === 'gateway'
              ? 'the way out'
              : one.known
                ? mannerWords(one.manner)
                : `${mannerWords(one.manner)}, nobody wrote it down`
          : stretchWords(s, mine.length),
        taken: single && !several,
        here: here !== undefined && s.hosts.includes(here),
        wrong: s.kind === 'host' && mine.some((h) => wrong.has(h.id)),
      };
    });
  }, [network, hosts, findings, here, most]);
  return (
    <section aria-label={`Addresses of ${network.name}`}>
      <Head marginBottom="2">
        {network.name} {network.prefix ?? ''}
      </Head>
      <AddressStreet
        label={`${network.name}, from the first address to the last`}
        plots={plots}
        {...(onTake ? { onTake } : {})}
      />
    </section>
  );
}
