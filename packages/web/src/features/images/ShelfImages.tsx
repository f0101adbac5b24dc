import { againstList } from '@zb/core/checksum/against';
import { rowWords, verdictWords } from '@zb/core/words/comparison';
import { parseChecksumList } from '@zb/core/formats/checksumList';
import { startsUnder } from '@zb/core/words/image';
import type { ImageItem } from '@zb/core/model/bench';
import { formatIec } from '@zb/core/units/bytes';
import { Mark, type MarkKind } from '../../parts/Marks';
import { useRoom } from '../../parts/room';

const KIND: Record<string, MarkKind> = {
  same: 'yes',
  differs: 'stop',
  'other-size': 'stop',
  'not-listed': 'no',
};

/** The images of the shelf: what each is, what it starts under, and what the list that lies open says of it. */
export function ShelfImages({ images, onOpen }: { images: ImageItem[]; onOpen: (id: string) => void }) {
  const { list } = useRoom();
  const rows = list ? againstList(images, parseChecksumList(list.text), list.from, '') : undefined;
  return (
    <table className="t rows">
      <thead>
        <tr>
          <th scope="col">On the shelf</th>
          <th scope="col" className="num">
            Size
          </th>
          <th scope="col">Starts under</th>
          <th scope="col">{list ? `Against ${list.from}` : 'Compared'}</th>
        </tr>
      </thead>
      <tbody>
        {images.map((image, i) => {
          const row = rows?.[i];
          const comparison = row ? row.comparison : image.comparison;
          const kind = image.inspection?.container.kind ?? 'none';
          return (
            <tr key={image.id}>
              <th scope="row" className="whole">
                <button type="button" className="link" onClick={() => onOpen(image.id)}>
                  {image.name}
                </button>
                {kind !== 'none' && <span className="sub">packed as {kind}</span>}
              </th>
              <td className="num">{formatIec(image.bytes)}</td>
              <td>
                {image.inspection && (startsUnder(image.inspection).join(', ') || 'nothing for certain')}
              </td>
              <td>
                {comparison || row ? (
                  <Mark kind={KIND[comparison?.verdict ?? ''] ?? 'ask'}>
                    {row ? rowWords(row) : comparison ? verdictWords[comparison.verdict] : ''}
                  </Mark>
                ) : (
                  'not yet'
                )}
                {comparison?.of === 'content' && <span className="sub">by what is packed inside</span>}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
