import { HStack, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { addNetwork } from '@zb/core/acts/network';
import { replaced } from '@zb/core/model/changes';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { blankHost, type Host, type Network } from '@zb/core/model/network';
import { byGrade } from '@zb/core/network/check';
import { checkDomains } from '@zb/core/network/domain';
import { networkFindings } from '@zb/core/network/forBox';
import { cutHeadline } from '@zb/core/words/lan';
import { LanForms } from './Forms';
import { HostTable } from './HostTable';
import { NetworkMargin } from './NetworkMargin';
import { CutDialog } from '../../parts/LanCut';
import { LanRead } from '../../parts/LanRead';
import { LanStreet } from '../../parts/LanStreet';
import { LanWrite } from '../../parts/LanWrite';
import { Sheet } from '../../parts/Sheet';
import { Shortcuts } from '../../parts/Shortcuts';
import { stamp, useAct, useBench } from '../../storage/hooks';
import { Primary, Quiet } from '../../ui/Button';
import { Nothing } from '../../ui/Nothing';
import { Select } from '../../ui/Select';
import { Segments } from '../../ui/Segments';
import { useCut } from '../../workers/cutting';

/** So many networks stand side by side; more are chosen from a list. */
const FEW = 5;

type Open = 'read' | 'write' | 'cut' | 'network' | 'host' | null;

/** The area Network: who lives where, what is kept for whom, and what a power cut would do to it. */
export default function NetworkPage() {
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const [open, setOpen] = useState<Open>(null);
  const [host, setHost] = useState<Host | null>(null);
  const network: Network | undefined =
    bench.networks.find((n) => n.id === params.get('of')) ?? bench.networks[0];
  const cut = useCut(network, bench.hosts);
  const hosts = bench.hosts.filter((h) => h.networkId === network?.id);
  const findings = byGrade([...networkFindings(bench), ...checkDomains(bench.networks)]);
  const nameOf = (id: string): string =>
    bench.hosts.find((h) => h.id === id)?.name ?? bench.networks.find((n) => n.id === id)?.name ?? '';
  const edit = (id: string): void => {
    setHost(bench.hosts.find((h) => h.id === id) ?? null);
    setOpen('host');
  };
  const another = (): void => {
    const made = addNetwork(
      bench.networks.length === 0 ? 'Home' : `Network ${bench.networks.length + 1}`,
      stamp(),
    );
    void act(made).then((done) => {
      if (!done) return;
      setParams({ of: made.network.id });
      setOpen('network');
    });
  };
  if (!network)
    return (
      <>
        <Sheet title="Network" headline="Where does everything answer?">
          <Nothing
            title="Nothing is known of your network yet"
            words="Paste what a machine or the router tells of it, and the rest is arithmetic: free addresses, who has one twice, and what a power cut would move."
          >
            <HStack gap="3" flexWrap="wrap">
              <Primary onClick={() => setOpen('read')}>Read what is there</Primary>
              <Quiet onClick={another}>Say it by hand</Quiet>
              <Quiet onClick={() => void act(replaced('Demo bench loaded', bench, saltmarshHall()))}>
                Load the demo bench
              </Quiet>
            </HStack>
          </Nothing>
        </Sheet>
        <NetworkMargin findings={findings} nameOf={nameOf} network={undefined} onHost={edit} />
        <LanRead open={open === 'read'} onClose={() => setOpen(null)} bench={bench} network={null} />
      </>
    );
  return (
    <>
      <Shortcuts
        list={[
          { keys: 'c', does: 'cut the power', act: () => setOpen('cut') },
          { keys: 'r', does: 'read what is there', act: () => setOpen('read') },
        ]}
      />
      <Sheet
        title="Network"
        mid={`${hosts.length} ${hosts.length === 1 ? 'host' : 'hosts'} in ${network.name}`}
        headline={cut.found ? cutHeadline(cut.found, nameOf) : 'Where does everything answer?'}
        foot={
          <>
            <Primary onClick={() => setOpen('read')}>Read what is there</Primary>
            <Quiet onClick={() => setOpen('cut')}>Cut the power</Quiet>
            <Quiet onClick={() => setOpen('write')}>Save for the router</Quiet>
            <Quiet
              onClick={() => {
                setHost(blankHost(stamp().id(), 'New host', network.id));
                setOpen('host');
              }}
            >
              Write a host down
            </Quiet>
          </>
        }
      >
        <Stack gap="4">
          <HStack gap="3" flexWrap="wrap">
            {bench.networks.length > 1 && bench.networks.length <= FEW && (
              <Segments
                label="Which network"
                options={bench.networks.map((n) => ({ value: n.id, words: n.name }))}
                value={network.id}
                onTake={(id) => setParams({ of: id })}
              />
            )}
            {bench.networks.length > FEW && (
              <Select
                label="Which network"
                width="auto"
                options={bench.networks.map((n) => ({ value: n.id, words: n.name }))}
                value={network.id}
                onChange={(e) => setParams({ of: e.target.value })}
              />
            )}
            <Quiet size="sm" onClick={() => setOpen('network')}>
              What is said of {network.name}
            </Quiet>
            <Quiet size="sm" onClick={another}>
              Another network
            </Quiet>
          </HStack>
          <Stack direction={{ base: 'column', lg: 'row' }} gap="6" align="flex-start">
            <Stack css={{ flex: '0 0 220px', maxWidth: '100%' }}>
              <LanStreet network={network} hosts={hosts} findings={findings} onTake={edit} />
            </Stack>
            <HostTable
              bench={bench}
              hosts={hosts}
              network={network}
              cut={cut.found}
              findings={findings}
              onHost={edit}
              onBox={(id) => void go(`/box/${id}/network`)}
            />
          </Stack>
        </Stack>
      </Sheet>
      <NetworkMargin findings={findings} nameOf={nameOf} network={network} onHost={edit} />
      <LanRead open={open === 'read'} onClose={() => setOpen(null)} bench={bench} network={network} />
      <LanWrite
        key={network.id}
        open={open === 'write'}
        onClose={() => setOpen(null)}
        network={network}
        hosts={bench.hosts}
      />
      <CutDialog
        open={open === 'cut'}
        onClose={() => setOpen(null)}
        bench={bench}
        cut={cut}
        nameOf={nameOf}
      />
      <LanForms
        bench={bench}
        network={open === 'network' ? network : null}
        host={open === 'host' ? host : null}
        onClose={() => setOpen(null)}
      />
    </>
  );
}
