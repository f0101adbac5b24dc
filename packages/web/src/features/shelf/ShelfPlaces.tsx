import { Box, Grid, HStack, Menu, Portal } from '@chakra-ui/react';
import { ArrowRightLeft } from 'lucide-react';
import { isMovable, putInto } from '@zb/core/acts/several';
import { machinesOf, type Bench, type Machine, type ShelfItem } from '@zb/core/model/bench';
import { contentTitle } from '@zb/core/model/content';
import { isStore } from '@zb/core/model/shelf';
import { claimOf } from '@zb/core/plan/claims';
import { claimWords } from '@zb/core/words/claim';
import { schematic } from '@zb/core/machine/schematic';
import { itemPlace, itemSummary } from '@zb/core/machine/summary';
import { Places } from '../../drawing/Places';
import { useAct } from '../../storage/hooks';
import { DragArea, Draggable, DropPlace, focusThing } from '../../ui/Drag';
import { IconButton } from '../../ui/IconButton';
import { To } from '../../ui/To';
import { Data, Head, Soft, Sub } from '../../ui/Words';
import { wayTo } from './blank';
import { FateWord } from './FateWord';

const LOOSE = 'loose';

/** Takes a thing to another place by its menu: the same as dragging it. */
function Elsewhere({
  item,
  machines,
  onPut,
}: {
  item: ShelfItem;
  machines: readonly Machine[];
  onPut: (place: string) => void;
}) {
  const here = 'in' in item ? (item.in ?? LOOSE) : LOOSE;
  return (
    <Menu.Root lazyMount unmountOnExit>
      <Menu.Trigger asChild>
        <IconButton small word={`Put ${item.name} into…`} icon={<ArrowRightLeft />} />
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content css={{ maxHeight: '300px', overflow: 'auto' }}>
            {[{ id: LOOSE, name: 'loose on the shelf' }, ...machines]
              .filter((m) => m.id !== here)
              .map((m) => (
                <Menu.Item key={m.id} value={m.id} onClick={() => onPut(m.id)}>
                  {m.name}
                </Menu.Item>
              ))}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}

function Thing({
  bench,
  item,
  machines,
  onPut,
}: {
  bench: Bench;
  item: ShelfItem;
  machines: readonly Machine[];
  onPut: (item: string, place: string) => void;
}) {
  // Where it lies is told by where it stands here; that a box holds it, or that it is to be bought, is not.
  const claim = claimOf(bench, item.id);
  const promised = !isMovable(item) || !item.owned;
  const body = (
    <Box flex="1" minWidth="0">
      <HStack justify="space-between" align="baseline" gap="2">
        <To to={wayTo(item)} fontWeight="strong" truncate title={item.name}>
          {item.name}
        </To>
        <HStack gap="1" flexShrink="0">
          {isStore(item) && <FateWord fate={item.fate} />}
          {isMovable(item) && (
            <Elsewhere
              item={item}
              machines={machines}
              onPut={(to) => {
                onPut(item.id, to);
                focusThing(item.id);
              }}
            />
          )}
        </HStack>
      </HStack>
      <Sub>
        {itemSummary(item)}
        {'serial' in item && item.serial && (
          <>
            {' · '}
            <Data>{item.serial}</Data>
          </>
        )}
        {isStore(item) && ` · ${contentTitle(item) || 'empty'}`}
        {promised && ` · ${itemPlace(bench, item)}`}
        {claim && ` · ${claimWords(claim)}`}
      </Sub>
    </Box>
  );
  return (
    <Box as="li" borderTop="thin" paddingBlock="1">
      {isMovable(item) ? (
        <Draggable id={item.id} name={item.name}>
          {body}
        </Draggable>
      ) : (
        body
      )}
    </Box>
  );
}

/** So many loose things are shown here; all of them are in the table. */
const MOST = 200;

/** The shelf by where things are: each machine with its places and what sits in it, then what lies loose. */
export function ShelfPlaces({ bench, items }: { bench: Bench; items: readonly ShelfItem[] }) {
  const act = useAct();
  const machines = machinesOf(bench);
  const nameOf = (id: string): string =>
    id === LOOSE ? 'loose on the shelf' : (bench.items.find((i) => i.id === id)?.name ?? 'a thing');
  const put = (thing: string, place: string): void => {
    const item = bench.items.find((i) => i.id === thing);
    const work =
      item &&
      putInto(
        [item],
        machines.find((m) => m.id === place),
      );
    if (work && work.changes.length > 0) void act(work);
  };
  const shown = new Set(items.map((i) => i.id));
  const there = machines
    .map((m) => ({ m, inside: items.filter((i) => 'in' in i && i.in === m.id) }))
    .filter(({ m, inside }) => shown.has(m.id) || inside.length > 0);
  const loose = items.filter((i) => i.kind !== 'machine' && (!('in' in i) || i.in === null));
  return (
    <Box overflow="auto" minHeight="0" flex={{ md: '1 1 0' }} paddingRight="1">
      <DragArea onDrop={put} nameOf={nameOf}>
        <Grid
          gap="3"
          alignItems="start"
          css={{ gridTemplateColumns: 'repeat(auto-fill, minmax(min(330px, 100%), 1fr))' }}
        >
          {there.map(({ m, inside }) => (
            <DropPlace key={m.id} id={m.id} border="firm" padding="3" minWidth="0">
              <HStack justify="space-between" align="baseline" gap="2">
                <To to={wayTo(m)} variant="plain" textStyle="title" truncate title={m.name}>
                  {m.name}
                </To>
                <Sub flexShrink="0">{m.form}</Sub>
              </HStack>
              <Sub>
                {itemSummary(m)} · {itemPlace(bench, m)}
              </Sub>
              <Box marginBlock="1">
                <Places groups={schematic(bench, m.id)} name={m.name} />
              </Box>
              <Box as="ul" listStyle="none" aria-label={`In ${m.name}`}>
                {inside.map((i) => (
                  <Thing key={i.id} bench={bench} item={i} machines={machines} onPut={put} />
                ))}
              </Box>
              {inside.length === 0 && <Soft>Nothing in it is on the shelf’s record.</Soft>}
            </DropPlace>
          ))}
          <DropPlace id={LOOSE} border="firm" padding="3" minWidth="0" gridColumn="1 / -1">
            <Head>Loose on the shelf</Head>
            <Box
              as="ul"
              listStyle="none"
              aria-label="Loose on the shelf"
              css={{ columns: '3 300px', columnGap: '24px', '& > li': { breakInside: 'avoid' } }}
            >
              {loose.slice(0, MOST).map((i) => (
                <Thing key={i.id} bench={bench} item={i} machines={machines} onPut={put} />
              ))}
            </Box>
            {loose.length === 0 && <Soft>Nothing.</Soft>}
            {loose.length > MOST && <Soft>and {loose.length - MOST} more, in the table</Soft>}
          </DropPlace>
        </Grid>
      </DragArea>
    </Box>
  );
}
