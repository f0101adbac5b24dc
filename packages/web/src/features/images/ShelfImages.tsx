import { Box, HStack, Menu, Portal } from '@chakra-ui/react';
import { PackageOpen } from 'lucide-react';
import { againstList } from '@zb/core/checksum/against';
import { rowWords, verdictWords } from '@zb/core/words/comparison';
import { parseChecksumList } from '@zb/core/formats/checksumList';
import { startsUnder } from '@zb/core/words/image';
import { updateBox } from '@zb/core/acts/box';
import type { Bench, Box as BoxRecord, ImageItem } from '@zb/core/model/bench';
import { formatIec } from '@zb/core/units/bytes';
import { useAct } from '../../storage/hooks';
import { Word } from '../../ui/Button';
import { DragArea, Draggable, DropPlace } from '../../ui/Drag';
import { IconButton } from '../../ui/IconButton';
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

/** Gives an image to a box by its menu: the same as dragging it there. */
const GiveTo = ({
  image,
  boxes,
  onGive,
}: {
  image: ImageItem;
  boxes: readonly BoxRecord[];
  onGive: (box: BoxRecord) => void;
}) => (
  <Menu.Root lazyMount unmountOnExit>
    <Menu.Trigger asChild>
      <IconButton small word={`Give ${image.name} to a box…`} icon={<PackageOpen />} />
    </Menu.Trigger>
    <Portal>
      <Menu.Positioner>
        <Menu.Content css={{ maxHeight: '300px', overflow: 'auto' }}>
          {boxes.map((b) => (
            <Menu.Item key={b.id} value={b.id} onClick={() => onGive(b)}>
              {b.name}
            </Menu.Item>
          ))}
        </Menu.Content>
      </Menu.Positioner>
    </Portal>
  </Menu.Root>
);

/** So many boxes lie open to be given an image; the others are in the menu of each image. */
const BOXES = 12;

/** The images of the shelf: what each is, what it starts under, and what the list that lies open says of it. */
export function ShelfImages({
  bench,
  images,
  onOpen,
}: {
  bench: Bench;
  images: ImageItem[];
  onOpen: (id: string) => void;
}) {
  const { list } = useRoom();
  const act = useAct();
  const give = (image: ImageItem, box: BoxRecord): void =>
    void act(updateBox(box, { imageId: image.id }, `${image.name} taken for “${box.name}”`));
  const nameOf = (id: string): string =>
    images.find((i) => i.id === id)?.name ?? bench.boxes.find((b) => b.id === id)?.name ?? 'it';
  const rows = list ? againstList(images, parseChecksumList(list.text), list.from, '') : undefined;
  return (
    <DragArea
      nameOf={nameOf}
      onDrop={(thing, place) => {
        const image = images.find((i) => i.id === thing);
        const box = bench.boxes.find((b) => b.id === place);
        if (image && box) give(image, box);
      }}
    >
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
                <Draggable id={image.id} name={image.name}>
                  <Box flex="1" minWidth="0">
                    <Word onClick={() => onOpen(image.id)} overflowWrap="anywhere">
                      {image.name}
                    </Word>
                    {kind !== 'none' && <Sub>packed as {kind}</Sub>}
                  </Box>
                  {bench.boxes.length > 0 && (
                    <GiveTo image={image} boxes={bench.boxes} onGive={(b) => give(image, b)} />
                  )}
                </Draggable>
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
      {bench.boxes.length > 0 && (
        <HStack gap="2" flexWrap="wrap" marginTop="2" role="group" aria-label="Boxes that take an image">
          <Sub>Drop an image on a box:</Sub>
          {bench.boxes.slice(0, BOXES).map((b) => (
            <DropPlace key={b.id} id={b.id} border="firm" paddingInline="2.5" paddingBlock="1">
              {b.name}
              <Sub>{images.find((i) => i.id === b.imageId)?.name ?? 'no image yet'}</Sub>
            </DropPlace>
          ))}
        </HStack>
      )}
    </DragArea>
  );
}
