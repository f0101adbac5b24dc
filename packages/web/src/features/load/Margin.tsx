import type { Box as Build } from '@zb/core/model/bench';
import type { BoxStorage } from '@zb/core/storage/forBox';
import { snapshotRoom } from '@zb/core/storage/snapshots';
import { formatIec } from '@zb/core/units/bytes';
import { takeWords } from '@zb/core/words/storage';
import { LedgerGroup, LedgerPair } from '../../parts/LedgerPane';

/** Where the bytes of the drives go. */
export function Margin({ found, box }: { found: BoxStorage; box: Build }) {
  const { chosen } = found;
  if (!chosen) return null;
  const { room } = chosen;
  const snapshots = box.pool?.snapshots ? snapshotRoom(box.pool.snapshots, room.usable) : null;
  return (
    <LedgerGroup title="Room">
      <LedgerPair what="All drives" is={formatIec(room.raw)} />
      {room.takes.map((t) => (
        <LedgerPair key={t.what} what={takeWords(t.what)} is={`−${formatIec(t.bytes)}`} />
      ))}
      <LedgerPair strong what="Yours" is={formatIec(room.usable)} />
      {snapshots && (
        <LedgerPair what={`${snapshots.count} snapshots, at most`} is={formatIec(snapshots.bytes)} />
      )}
    </LedgerGroup>
  );
}
