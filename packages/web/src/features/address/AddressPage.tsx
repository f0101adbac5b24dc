import { HStack, Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { decideAddress, editHost, placeBox } from '@zb/core/acts/network';
import { findNetwork, hostsOfBox } from '@zb/core/model/bench';
import type { Host } from '@zb/core/model/network';
import { addressSchools, networkFindings } from '@zb/core/network/forBox';
import { nextFree } from '@zb/core/network/next';
import { mannerWords, schoolWords } from '@zb/core/words/lan';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { CutDialog, CutFate } from '../../parts/LanCut';
import { HostForm } from '../../parts/LanForms';
import { LanRead } from '../../parts/LanRead';
import { LanStreet } from '../../parts/LanStreet';
import { LanWrite } from '../../parts/LanWrite';
import { stamp, useAct } from '../../storage/hooks';
import { Primary, Quiet, Word } from '../../ui/Button';
import { Choices } from '../../ui/Choices';
import { Nothing } from '../../ui/Nothing';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Segments } from '../../ui/Segments';
import { To } from '../../ui/To';
import { Data, Sub } from '../../ui/Words';
import { useCut } from '../../workers/cutting';
import { Before } from './Before';
import { IsItBack } from './IsItBack';
import { Label } from '../../parts/Label';
import { Reached } from './Reached';
import { ToWriteDown } from './ToWriteDown';

type Open = 'read' | 'write' | 'cut' | 'host' | 'label' | null;

function headlineOf(box: string, host: Host | undefined, moves: boolean | undefined): string {
  if (!host) return `At which address will ${box} answer?`;
  if (host.address === null) return `${box} takes what the pool gives`;
  if (moves === undefined) return `${box} takes ${host.address}`;
  return moves
    ? `${box} has ${host.address}, and may be gone after a power cut`
    : `${box} takes ${host.address}, and keeps it through a power cut`;
}

/** Stop 9: the address of a box, how it keeps it, and how it is reached once nobody sits before it. */
function AddressPage({ context }: { context: BoxContext }) {
  const { bench, box, profile } = context;
  const act = useAct();
  const go = useNavigate();
  const [open, setOpen] = useState<Open>(null);
  const [which, setWhich] = useState<string | null>(null);
  const mine = hostsOfBox(bench, box.id);
  const host = mine.find((h) => h.id === which) ?? mine[0];
  const network = findNetwork(bench, host?.networkId ?? null) ?? bench.networks[0];
  const cut = useCut(network, bench.hosts);
  const findings = networkFindings(bench);
  const nameOf = (id: string): string => bench.hosts.find((h) => h.id === id)?.name ?? '';
  const fates = new Map(cut.found?.hosts.map((h) => [h.id, h]));
  if (!network)
    return (
      <BoxFrame context={context} stop="network" headline={headlineOf(box.name, undefined, undefined)}>
        <Nothing
          title="Nothing is known of your network yet"
          words="Paste what a machine or the router tells of it: then a free address is named, and what a power cut would do."
        >
          <HStack gap="3">
            <Primary onClick={() => setOpen('read')}>Read what is there</Primary>
            <Quiet onClick={() => void go('/network')}>Say it by hand</Quiet>
          </HStack>
        </Nothing>
        <LanRead open={open === 'read'} onClose={() => setOpen(null)} bench={bench} network={null} />
      </BoxFrame>
    );
  const place = (): void => void act(placeBox(bench, box, network, stamp()));
  const schools = host ? addressSchools(bench, box, host, network) : [];
  const fate = host && fates.get(host.id)?.fate;
  const decide = (manner: Host['manner']): void => {
    const school = schools.find((s) => s.manner === manner);
    if (!host || !school) return;
    const address = manner === 'pool' ? (host.seen?.address ?? null) : school.address;
    const because = schoolWords(school, fate, null).title;
    void act(decideAddress(box, host, { manner, address }, because, stamp()));
  };
  const next = (): void => {
    if (!host) return place();
    const address = nextFree(network, bench.hosts, { purpose: box.purpose, place: host.place });
    if (address !== undefined) void act(editHost(host, { address }, `${box.name}: ${address}`));
  };
  const boxes = bench.hosts.filter((h) => h.networkId === network.id && h.boxId !== null);
  return (
    <BoxFrame
      context={context}
      stop="network"
      headline={headlineOf(
        box.name,
        host,
        fate && (fate === 'may move' || fate === 'shared' || fate === 'perhaps'),
      )}
      shortcuts={[
        { keys: 'a', does: 'the next free address', act: next },
        { keys: 'c', does: 'cut the power', act: () => setOpen('cut') },
      ]}
      acts={
        <>
          <Quiet onClick={() => setOpen('write')}>Save for the router</Quiet>
          <Quiet onClick={() => setOpen('cut')}>Cut the power</Quiet>
          <Quiet onClick={() => setOpen('label')}>Label</Quiet>
        </>
      }
      margin={<ToWriteDown host={host} network={network} />}
    >
      <Stack direction={{ base: 'column', lg: 'row' }} gap="6" align="flex-start">
        <Stack css={{ flex: '0 0 220px', maxWidth: '100%' }}>
          {mine.length > 1 && host && (
            <Segments
              label="Which of its cards"
              options={mine.map((h) => ({ value: h.id, words: h.port ?? h.name }))}
              value={host.id}
              onTake={setWhich}
            />
          )}
          <LanStreet network={network} hosts={bench.hosts} findings={findings} here={host?.id} most={16} />
        </Stack>
        <Stack gap="4" flex="1" minWidth="0" width="full">
          <Ruled
            stacked
            label="Boxes in this network"
            heads={['Box', 'Address', 'How it keeps it', 'After a power cut']}
          >
            {boxes.map((h) => (
              <Line key={h.id} here={h.id === host?.id}>
                <LineHead>
                  {h.boxId === box.id ? h.name : <To to={`/box/${h.boxId ?? ''}/network`}>{h.name}</To>}
                </LineHead>
                <Cell>
                  <Data>{h.address ?? 'none yet'}</Data>
                </Cell>
                <Cell>
                  {mannerWords(h.manner)}
                  {h.id === host?.id && h.hardware !== null && (
                    <Sub>
                      <Data>{h.hardware}</Data>
                    </Sub>
                  )}
                </Cell>
                <Cell>
                  <CutFate cut={fates.get(h.id)} of={cut.found} />
                </Cell>
              </Line>
            ))}
          </Ruled>
          {host ? (
            <>
              <Choices
                label={`How ${box.name} has its address`}
                value={host.manner === 'not known' ? null : host.manner}
                choices={schools.map((s) => {
                  const { title, means } = schoolWords(
                    s,
                    s.manner === host.manner ? fate : undefined,
                    network.leaseSeconds === null ? null : Math.round(network.leaseSeconds / 360) / 10,
                  );
                  return {
                    value: s.manner,
                    words: (
                      <>
                        <b>{title}</b>
                        {s.usual ? ', our first choice for such a box' : ''}
                      </>
                    ),
                    means,
                  };
                })}
                onTake={decide}
              />
              <Text>
                <Word onClick={next}>Next free address</Word> ·{' '}
                <Word onClick={() => setOpen('host')}>All of it by hand</Word> ·{' '}
                <Word onClick={place}>Another card of this box</Word> ·{' '}
                <Word onClick={() => setOpen('read')}>Read what is there</Word>
              </Text>
              {host.address !== null && (
                <Before bench={bench} box={box} host={host} network={network} address={host.address} />
              )}
              <Reached box={box} profile={profile} host={host} network={network} />
              <IsItBack key={host.id} box={box} host={host} profile={profile} />
            </>
          ) : (
            <Nothing
              title={`${box.name} has no place in ${network.name} yet`}
              words="It gets the next free address by this network’s scheme, reserved where its card is known."
            >
              <Primary onClick={place}>Give it one</Primary>
            </Nothing>
          )}
        </Stack>
      </Stack>
      <LanRead open={open === 'read'} onClose={() => setOpen(null)} bench={bench} network={network} />
      <LanWrite
        open={open === 'write'}
        onClose={() => setOpen(null)}
        network={network}
        hosts={bench.hosts}
        host={host}
        first={host?.manner === 'fixed' ? 'networkd' : 'dnsmasq'}
      />
      <CutDialog
        open={open === 'cut'}
        onClose={() => setOpen(null)}
        bench={bench}
        cut={cut}
        nameOf={nameOf}
      />
      <Label open={open === 'label'} onClose={() => setOpen(null)} bench={bench} box={box} />
      {open === 'host' && host && <HostForm bench={bench} host={host} onClose={() => setOpen(null)} />}
    </BoxFrame>
  );
}

export default withBox(AddressPage);
