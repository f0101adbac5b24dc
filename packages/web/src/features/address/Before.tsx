import { Box, Grid } from '@chakra-ui/react';
import { noteReach } from '@zb/core/acts/network';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import type { Host, Network } from '@zb/core/model/network';
import { beforeTaking, probeCommand } from '@zb/core/network/before';
import { beforeWords } from '@zb/core/words/lan';
import { Fragment } from 'react';
import { stamp, useAct } from '../../storage/hooks';
import { Word } from '../../ui/Button';
import { VerdictMark } from '../../ui/Marks';
import { Data, Head, Sub } from '../../ui/Words';

const MARK = { free: 'yes', taken: 'stop', ask: 'ask' } as const;

/** Before an address is taken: leases, neighbours, and the probe that is typed on a machine of the same network. */
export function Before({
  bench,
  box,
  host,
  network,
  address,
}: {
  bench: Bench;
  box: Build;
  host: Host;
  network: Network;
  address: string;
}) {
  const act = useAct();
  const lines = beforeTaking(network, bench.hosts, address, host.id, box.reach?.probed ?? null);
  const nameOf = (id: string): string => bench.hosts.find((h) => h.id === id)?.name ?? '';
  const note = (answered: boolean): void =>
    void act(
      noteReach(
        box,
        { probed: { address, at: stamp().now, answered, by: 'a probe by hand' } },
        answered ? `Somebody answers at ${address}` : `Nobody answers at ${address}`,
      ),
    );
  return (
    <Box as="section" aria-label={`Before you take ${address}`}>
      <Head marginBottom="1">Before you take {address}</Head>
      <Grid
        alignItems="start"
        columnGap="4"
        rowGap="1"
        css={{ gridTemplateColumns: 'max-content max-content minmax(0, 1fr)' }}
      >
        {lines.map((l) => {
          const { by, says } = beforeWords(l, address, nameOf);
          return (
            <Fragment key={l.by}>
              <VerdictMark kind={MARK[l.says]}>{l.says}</VerdictMark>
              <span>{by}</span>
              <Box minWidth="0" overflowWrap="anywhere">
                {says}
                {l.by === 'probe' && (
                  <Sub>
                    <Data>{probeCommand(address, null)}</Data>{' '}
                    <Word onClick={() => note(false)}>nobody answered</Word> ·{' '}
                    <Word onClick={() => note(true)}>somebody did</Word>
                  </Sub>
                )}
              </Box>
            </Fragment>
          );
        })}
      </Grid>
    </Box>
  );
}
