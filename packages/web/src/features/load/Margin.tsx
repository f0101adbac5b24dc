import { Box } from '@chakra-ui/react';
import type { Box as Build } from '@zb/core/model/bench';
import type { BoxStorage } from '@zb/core/storage/forBox';
import { snapshotRoom } from '@zb/core/storage/snapshots';
import { formatIec } from '@zb/core/units/bytes';
import { takeWords } from '@zb/core/words/storage';
import { LedgerGroup } from '../../parts/LedgerPane';
import { Data } from '../../ui/Words';

const Row = ({ what, is, strong = false }: { what: string; is: string; strong?: boolean }) => (
  <Box display="flex" justifyContent="space-between" gap="3" fontWeight={strong ? 'strong' : 'normal'}>
    <span>{what}</span>
    <Data whiteSpace="nowrap">{is}</Data>
  </Box>
);

/** Where the bytes of the drives go. */
export function Margin({ found, box }: { found: BoxStorage; box: Build }) {
  const { chosen } = found;
  if (!chosen) return null;
  const { room } = chosen;
  const snapshots = box.pool?.snapshots ? snapshotRoom(box.pool.snapshots, room.usable) : null;
  return (
    <LedgerGroup title="Room">
      <Row what="All drives" is={formatIec(room.raw)} />
      {room.takes.map((t) => (
        <Row key={t.what} what={takeWords(t.what)} is={`−${formatIec(t.bytes)}`} />
      ))}
      <Row strong what="Yours" is={formatIec(room.usable)} />
      {snapshots && <Row what={`${snapshots.count} snapshots, at most`} is={formatIec(snapshots.bytes)} />}
    </LedgerGroup>
  );
}
