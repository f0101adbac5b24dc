import { Box, Text } from '@chakra-ui/react';
import type { Network } from '@zb/core/model/network';
import type { NetworkFinding } from '@zb/core/network/finding';
import { leaseClock } from '@zb/core/network/lease';
import { formatDuration } from '@zb/core/units/duration';
import { poolMannerWords } from '@zb/core/words/lan';
import { networkFaultWords } from '@zb/core/words/network';
import { LedgerAside, LedgerGroup } from '../../parts/LedgerPane';
import { Word } from '../../ui/Button';
import { Facts } from '../../ui/Facts';
import { HazardMark } from '../../ui/Marks';
import { Data, Soft } from '../../ui/Words';

/** The margin of the area: what is wrong anywhere, and the clock of a lease. */
export function NetworkMargin({
  findings,
  nameOf,
  network,
  onHost,
}: {
  findings: readonly NetworkFinding[];
  nameOf: (id: string) => string;
  network: Network | undefined;
  onHost: (id: string) => void;
}) {
  const count = (grade: NetworkFinding['grade']): number => findings.filter((f) => f.grade === grade).length;
  const clock = network?.leaseSeconds == null ? undefined : leaseClock(network.leaseSeconds);
  return (
    <LedgerAside stops={count('stop')} checks={count('check')}>
      <LedgerGroup title="What is wrong" count={`${count('stop')} · ${count('check')} · ${count('note')}`}>
        {findings.length === 0 && <Soft>Nothing, as far as is known.</Soft>}
        {findings.map((f) => {
          const [first] = f.hosts;
          return (
            <Box key={JSON.stringify([f.fault, f.hosts, f.networks])} borderBottom="thin" paddingBlock="2">
              <HazardMark grade={f.grade} />
              <Text>
                {networkFaultWords(f.fault, { hosts: f.hosts.map(nameOf), networks: f.networks.map(nameOf) })}
              </Text>
              {first !== undefined && <Word onClick={() => onHost(first)}>Open {nameOf(first)}</Word>}
            </Box>
          );
        })}
      </LedgerGroup>
      {network && (
        <LedgerGroup title={network.name}>
          <Facts
            lines={[
              { what: 'Gateway', is: <Data>{network.gateway ?? 'not known'}</Data> },
              { what: 'Name servers', is: <Data>{network.nameServers.join(', ') || 'not known'}</Data> },
              {
                what: 'Handed out',
                is: network.pool ? (
                  <Data>
                    {network.pool.from} to {network.pool.to}
                  </Data>
                ) : (
                  'nothing, or not known'
                ),
              },
              { what: 'The server chooses', is: poolMannerWords[network.manner] },
              ...(clock
                ? [
                    {
                      what: 'A lease',
                      is: `${formatDuration(clock.ends)}; asked for again after ${formatDuration(clock.renew)}, of anybody after ${formatDuration(clock.rebind)}`,
                    },
                  ]
                : []),
            ]}
          />
        </LedgerGroup>
      )}
    </LedgerAside>
  );
}
