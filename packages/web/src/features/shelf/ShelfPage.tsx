import { HStack, Menu, Portal } from '@chakra-ui/react';
import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { addItem, blankMachine } from '@zb/core/acts/shelf';
import { replaced } from '@zb/core/model/changes';
import { shelfHeadline } from '@zb/core/machine/summary';
import { BenchLedger } from '../../parts/BenchLedger';
import { Sheet } from '../../parts/Sheet';
import { stamp, useAct, useBench } from '../../storage/hooks';
import { Primary, Quiet } from '../../ui/Button';
import { Input } from '../../ui/Input';
import { Nothing } from '../../ui/Nothing';
import { Segments } from '../../ui/Segments';
import { Select } from '../../ui/Select';
import { Soft } from '../../ui/Words';
import { blankItem, KIND_TITLES, type ItemKind } from './blank';
import { ShelfPlaces } from './ShelfPlaces';
import { ShelfTable } from './ShelfTable';

const KINDS = Object.keys(KIND_TITLES) as ItemKind[];
const ADDED = KINDS.filter((k) => k !== 'machine' && k !== 'image');
const VIEWS = ['By place', 'As a table'] as const;
/** By place is for what can be looked over; beyond that the table opens. */
const LOOKED_OVER = 120;

export default function ShelfPage() {
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const [words, setWords] = useState('');
  const usual = bench.items.length > LOOKED_OVER ? 'As a table' : 'By place';
  const view = VIEWS.find((v) => v === params.get('view')) ?? usual;
  const kind = KINDS.find((k) => k === params.get('kind'));
  // The table finds by itself.
  const wanted = view === 'By place' ? words.trim().toLowerCase() : '';
  const shown = bench.items.filter(
    (i) =>
      (!kind || i.kind === kind) &&
      (wanted === '' || `${i.name} ${'serial' in i ? (i.serial ?? '') : ''}`.toLowerCase().includes(wanted)),
  );
  const turn = (key: 'kind' | 'view', to: string | undefined): void =>
    setParams((now) => {
      const next = new URLSearchParams(now);
      if (to) next.set(key, to);
      else next.delete(key);
      return next;
    });
  const add = async (k: ItemKind): Promise<void> => {
    const item = blankItem(k, stamp());
    await act(addItem(item, `${KIND_TITLES[k]} put on the shelf`));
    void go(`/shelf/${item.id}`);
  };
  const machine = async (): Promise<void> => {
    const item = blankMachine('New machine', 'office desktop', stamp());
    await act(addItem(item, 'Machine put on the shelf'));
    void go(`/shelf/${item.id}`);
  };
  return (
    <>
      <Sheet
        title="Shelf"
        mid={`${bench.items.length} ${bench.items.length === 1 ? 'thing' : 'things'}`}
        headline={shelfHeadline(bench)}
        foot={
          <>
            <Primary onClick={() => void machine()}>Add a machine</Primary>
            <Menu.Root lazyMount unmountOnExit>
              <Menu.Trigger asChild>
                <Quiet>
                  Add something else <ChevronDown aria-hidden="true" />
                </Quiet>
              </Menu.Trigger>
              <Portal>
                <Menu.Positioner>
                  <Menu.Content>
                    {ADDED.map((k) => (
                      <Menu.Item key={k} value={k} onClick={() => void add(k)}>
                        {KIND_TITLES[k]}
                      </Menu.Item>
                    ))}
                  </Menu.Content>
                </Menu.Positioner>
              </Portal>
            </Menu.Root>
          </>
        }
        hint="What you mark to keep is never written to"
        fill={bench.items.length > 0}
      >
        {bench.items.length === 0 ? (
          <Nothing
            title="Begin with one real thing"
            words="Add a machine and paste its survey, or open an image and see what it starts on. Or look around on a bench that is made up."
          >
            <HStack gap="3" flexWrap="wrap">
              <Primary onClick={() => void machine()}>Paste a report</Primary>
              <Quiet onClick={() => void go('/images')}>Open an image</Quiet>
              <Quiet onClick={() => void act(replaced('Demo bench loaded', bench, saltmarshHall()))}>
                Load the demo bench
              </Quiet>
            </HStack>
          </Nothing>
        ) : (
          <>
            <HStack gap="3" align="flex-end" flexWrap="wrap" marginBottom="2">
              <Segments
                label="How the shelf is laid out"
                options={VIEWS}
                value={view}
                onTake={(v) => turn('view', v)}
              />
              <Select
                label="Kind"
                width="auto"
                none={`all, ${bench.items.length}`}
                value={kind ?? ''}
                onChange={(e) => turn('kind', e.target.value)}
                options={KINDS.map((k) => ({
                  value: k,
                  words: `${KIND_TITLES[k]}, ${bench.items.filter((i) => i.kind === k).length}`,
                }))}
              />
              {view === 'By place' && (
                <Input
                  label="Narrow the shelf"
                  width="field"
                  placeholder="Name or serial"
                  value={words}
                  onChange={(e) => setWords(e.target.value)}
                />
              )}
            </HStack>
            {shown.length === 0 ? (
              <Soft>Nothing on the shelf is called that.</Soft>
            ) : view === 'By place' ? (
              <ShelfPlaces bench={bench} items={shown} />
            ) : (
              <ShelfTable bench={bench} items={shown} />
            )}
          </>
        )}
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
