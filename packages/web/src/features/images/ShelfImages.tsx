import { againstList } from '@zb/core/checksum/against';
import { rowWords, verdictWords } from '@zb/core/words/comparison';
import { parseChecksumList } from '@zb/core/formats/checksumList';
import { startsUnder } from '@zb/core/words/image';
import type { ImageItem } from '@zb/core/model/bench';
import { formatIec } from '@zb/core/units/bytes';
import { Word } from '../../ui/Button';
import { VerdictMark, type MarkKind } from '../../ui/Marks';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Sub } from '../../ui/Words';
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
    <Ruled
      stacked
      label="Images on the shelf"
      heads={[
        'On the shelf',
        { words: 'Size', figure: true },
        'Starts under',
        list ? `Against ${list.from}` : 'Compared',
      ]}
    >
      {images.map((image, i) => {
        const row = rows?.[i];
        const comparison = row ? row.comparison : image.comparison;
        const kind = image.inspection?.container.kind ?? 'none';
        return (
          <Line key={image.id}>
            <LineHead whole>
              <Word onClick={() => onOpen(image.id)}>{image.name}</Word>
              {kind !== 'none' && <Sub>packed as {kind}</Sub>}
            </LineHead>
            <Num>{formatIec(image.bytes)}</Num>
            <Cell>
              {image.inspection && (startsUnder(image.inspection).join(', ') || 'nothing for certain')}
            </Cell>
            <Cell>
              {comparison || row ? (
                <VerdictMark kind={KIND[comparison?.verdict ?? ''] ?? 'ask'}>
                  {row ? rowWords(row) : comparison ? verdictWords[comparison.verdict] : ''}
                </VerdictMark>
              ) : (
                'not yet'
              )}
              {comparison?.of === 'content' && <Sub>by what is packed inside</Sub>}
            </Cell>
          </Line>
        );
      })}
    </Ruled>
  );
}
