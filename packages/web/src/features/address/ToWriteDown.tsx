import type { Host, Network } from '@zb/core/model/network';
import { selfMade6 } from '@zb/core/network/forBox';
import { fullName } from '@zb/core/network/names';
import { LedgerGroup } from '../../parts/LedgerPane';
import { Facts } from '../../ui/Facts';
import { Data } from '../../ui/Words';

/** What is typed at the box, or at the router, in one place. */
export function ToWriteDown({ host, network }: { host: Host | undefined; network: Network }) {
  if (!host) return null;
  const bits = network.prefix?.split('/')[1];
  const lines = [
    ['Name', host.label === null ? null : fullName(host.label, network.domain)],
    ['Address', host.address],
    ['Mask', bits === undefined ? null : `/${bits}`],
    ['Gateway', network.gateway === host.address ? null : network.gateway],
    ['Name server', network.nameServers[0] ?? null],
    ['Card', host.hardware],
    ['IPv6', host.address6],
    ['IPv6, from its card', selfMade6(host, network)],
  ] as const;
  return (
    <LedgerGroup title="To write down">
      <Facts
        lines={lines.flatMap(([what, is]) =>
          is === null
            ? []
            : [{ what, is: <Data overflowWrap="anywhere">{is.replaceAll('.', '.\u200b')}</Data> }],
        )}
      />
    </LedgerGroup>
  );
}
