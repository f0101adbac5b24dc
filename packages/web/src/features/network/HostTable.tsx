import { Box } from '@chakra-ui/react';
import type { Bench, Host, Network } from '@zb/core/model/bench';
import type { Cut } from '@zb/core/network/cut';
import type { NetworkFinding } from '@zb/core/network/finding';
import { fullName } from '@zb/core/network/names';
import { ipOf } from '@zb/core/network/parsed';
import { formatMoment } from '@zb/core/units/date';
import { cutWords, mannerWords } from '@zb/core/words/lan';
import { CutFate } from '../../parts/LanCut';
import { Word } from '../../ui/Button';
import { DataTable } from '../../ui/DataTable';
import type { Column } from '../../ui/dataTable';
import { HazardMark } from '../../ui/Marks';
import { Data, Sub } from '../../ui/Words';

/** Everybody in a network: sorted, found in, opened by a click or by Enter. */
export function HostTable({
  bench,
  hosts,
  network,
  cut,
  findings,
  onHost,
  onBox,
}: {
  bench: Bench;
  hosts: readonly Host[];
  network: Network;
  cut: Cut | null;
  findings: readonly NetworkFinding[];
  onHost: (id: string) => void;
  onBox: (boxId: string) => void;
}) {
  const fates = new Map(cut?.hosts.map((h) => [h.id, h]));
  const gravest = (h: Host): NetworkFinding['grade'] | undefined =>
    findings.find((f) => f.grade !== 'note' && f.hosts.includes(h.id))?.grade;
  const columns: Column<Host>[] = [
    {
      id: 'name',
      head: 'Who',
      value: (h) => h.name,
      cell: (h) => {
        const grade = gravest(h);
        const box = bench.boxes.find((b) => b.id === h.boxId);
        return (
          <>
            <Word onClick={() => onHost(h.id)}>{h.name}</Word> {grade && <HazardMark grade={grade} />}
            {h.label !== null && (
              <Sub>
                <Data>{fullName(h.label, network.domain)}</Data>
              </Sub>
            )}
            {box && (
              <Sub>
                <Word onClick={() => onBox(box.id)}>its box</Word>
              </Sub>
            )}
          </>
        );
      },
    },
    {
      id: 'address',
      head: 'Address',
      value: (h) => Number(ipOf(h.address)?.value ?? 0n),
      cell: (h) => (
        <>
          <Data>{h.address ?? 'none yet'}</Data>
        </>
      ),
    },
    {
      id: 'how',
      head: 'How it has it',
      value: (h) => mannerWords(h.manner),
      cell: (h) => (
        <>
          {mannerWords(h.manner)}
          {!h.known && <Sub color="check">nobody wrote it down</Sub>}
        </>
      ),
    },
    {
      id: 'cut',
      head: 'After a power cut',
      value: (h) => {
        const fate = fates.get(h.id);
        return fate ? cutWords(fate, cut?.worlds ?? null).word : '';
      },
      cell: (h) => <CutFate cut={fates.get(h.id)} of={cut} />,
    },
    { id: 'address6', head: 'IPv6', value: (h) => h.address6 ?? '', hidden: true },
    {
      id: 'hardware',
      head: 'Card',
      value: (h) => h.hardware ?? '',
      cell: (h) => <Data>{h.hardware ?? ''}</Data>,
      hidden: true,
    },
    {
      id: 'seen',
      head: 'Last seen',
      value: (h) => h.seen?.at ?? '',
      cell: (h) => h.seen && `${formatMoment(h.seen.at)}, ${h.seen.by}`,
      hidden: true,
    },
  ];
  return (
    <Box flex="1" minWidth="0" width="full">
      <DataTable label="Hosts" rows={hosts} columns={columns} empty="Nobody is known here yet." />
    </Box>
  );
}
