import { Box, HStack, Menu, Portal, Stack } from '@chakra-ui/react';
import { ArrowUpDown } from 'lucide-react';
import { saveWish } from '@zb/core/acts/wishes';
import type { Bench, Wish } from '@zb/core/model/bench';
import { useAct } from '../../storage/hooks';
import { Dialog } from '../../ui/Dialog';
import { DragArea, Draggable, DropPlace, focusThing } from '../../ui/Drag';
import { IconButton } from '../../ui/IconButton';
import { Head, Soft, Sub } from '../../ui/Words';

const LEVELS = [5, 4, 3, 2, 1] as const;
const WORDS: Record<number, string> = {
  5: 'comes first',
  4: 'matters',
  3: 'wanted',
  2: 'good to have',
  1: 'would be nice',
};
const placeOf = (level: number): string => `level-${level}`;

/** Takes a wish to another rank by its menu: the same as dragging it. */
const Elsewhere = ({ wish, onRank }: { wish: Wish; onRank: (level: number) => void }) => (
  <Menu.Root lazyMount unmountOnExit>
    <Menu.Trigger asChild>
      <IconButton small word={`Rank ${wish.name}…`} icon={<ArrowUpDown />} />
    </Menu.Trigger>
    <Portal>
      <Menu.Positioner>
        <Menu.Content>
          {LEVELS.filter((l) => l !== wish.importance).map((l) => (
            <Menu.Item key={l} value={String(l)} onClick={() => onRank(l)}>
              {l} of 5, {WORDS[l]}
            </Menu.Item>
          ))}
        </Menu.Content>
      </Menu.Positioner>
    </Portal>
  </Menu.Root>
);

/** Which wishes come first: each is taken to its rank, and the plan follows. */
export function WishOrder({ bench, onClose }: { bench: Bench; onClose: () => void }) {
  const act = useAct();
  const rank = (wish: Wish, importance: number): void => {
    if (wish.importance !== importance)
      void act(saveWish(wish, { ...wish, importance }, `${wish.name}: ${importance} of 5`));
  };
  const nameOf = (id: string): string =>
    bench.wishes.find((w) => w.id === id)?.name ??
    LEVELS.filter((l) => placeOf(l) === id)
      .map((l) => `${l} of 5`)
      .join('');
  return (
    <Dialog open onClose={onClose} title="Which wishes come first?" size="md">
      <DragArea
        nameOf={nameOf}
        onDrop={(thing, place) => {
          const wish = bench.wishes.find((w) => w.id === thing);
          const level = LEVELS.find((l) => placeOf(l) === place);
          if (wish && level !== undefined) rank(wish, level);
        }}
      >
        <Stack gap="2">
          {LEVELS.map((level) => {
            const mine = bench.wishes.filter((w) => w.importance === level);
            return (
              <DropPlace key={level} id={placeOf(level)} border="firm" paddingInline="3" paddingBlock="2">
                <Head as="h3">
                  {level} of 5, {WORDS[level]}
                </Head>
                <Box as="ul" listStyle="none" aria-label={`${level} of 5`}>
                  {mine.map((w) => (
                    <Box as="li" key={w.id}>
                      <Draggable id={w.id} name={w.name}>
                        <HStack flex="1" justify="space-between" gap="2">
                          <span>
                            {w.name} <Soft>{w.purpose}</Soft>
                          </span>
                          <Elsewhere
                            wish={w}
                            onRank={(l) => {
                              rank(w, l);
                              focusThing(w.id);
                            }}
                          />
                        </HStack>
                      </Draggable>
                    </Box>
                  ))}
                </Box>
                {mine.length === 0 && <Sub>none</Sub>}
              </DropPlace>
            );
          })}
        </Stack>
      </DragArea>
    </Dialog>
  );
}
