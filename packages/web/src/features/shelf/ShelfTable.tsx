import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { decideFates, isMovable, putInto, removeItems } from '@zb/core/acts/several';
import { machinesOf, type Bench, type ShelfItem } from '@zb/core/model/bench';
import { contentTitle } from '@zb/core/model/content';
import { isStore } from '@zb/core/model/shelf';
import { claimOf } from '@zb/core/plan/claims';
import { claimWords } from '@zb/core/words/claim';
import { itemPlace, itemSummary } from '@zb/core/machine/summary';
import { useAct } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { DataTable } from '../../ui/DataTable';
import type { Column } from '../../ui/dataTable';
import { Select } from '../../ui/Select';
import { To } from '../../ui/To';
import { Acts } from '../../ui/Words';
import { wayTo } from './blank';
import { FateWord } from './FateWord';

const columnsOf = (bench: Bench): Column<ShelfItem>[] => [
  { id: 'name', head: 'Name', value: (i) => i.name, cell: (i) => <To to={wayTo(i)}>{i.name}</To> },
  { id: 'kind', head: 'Kind', value: (i) => (i.kind === 'machine' ? i.form : i.kind) },
  { id: 'is', head: 'What it is', value: itemSummary },
  {
    id: 'bytes',
    head: 'Bytes',
    figure: true,
    hidden: true,
    value: (i) => ('bytes' in i ? i.bytes : null),
  },
  { id: 'serial', head: 'Serial', value: (i) => ('serial' in i ? i.serial : null) },
  { id: 'place', head: 'Where', value: (i) => itemPlace(bench, i) },
  {
    id: 'holds',
    head: 'On it',
    value: (i) => (isStore(i) ? contentTitle(i) || 'empty' : null),
  },
  {
    id: 'fate',
    head: 'May it be lost',
    value: (i) => (isStore(i) ? i.fate : null),
    cell: (i) => isStore(i) && <FateWord fate={i.fate} />,
  },
  {
    id: 'held',
    head: 'Box',
    value: (i) => {
      const claim = claimOf(bench, i.id);
      return claim ? claimWords(claim) : null;
    },
  },
  { id: 'notes', head: 'Notes', hidden: true, value: (i) => i.notes },
];

/** All things as a table: sorted, found in, several chosen at once and something done with all of them. */
export function ShelfTable({ bench, items }: { bench: Bench; items: readonly ShelfItem[] }) {
  const act = useAct();
  const go = useNavigate();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const columns = useMemo(() => columnsOf(bench), [bench]);
  const things = useMemo(() => bench.items.filter((i) => chosen.includes(i.id)), [bench.items, chosen]);
  const does = (work: ReturnType<typeof putInto>): void => {
    if (work.changes.length > 0) void act(work);
    setChosen([]);
  };
  return (
    <DataTable
      fill
      label="Shelf"
      rows={items}
      columns={columns}
      empty={null}
      onOpen={(i) => void go(wayTo(i))}
      selected={chosen}
      onSelect={(rows) => setChosen(rows.map((r) => r.id))}
      beside={
        things.length > 0 && (
          <Acts role="group" aria-label="What to do with those that are chosen" align="flex-end">
            {things.some(isStore) && (
              <>
                <Quiet size="sm" onClick={() => does(decideFates(things, 'keep'))}>
                  Keep
                </Quiet>
                <Quiet size="sm" onClick={() => does(decideFates(things, 'may be lost'))}>
                  May be lost
                </Quiet>
              </>
            )}
            {things.some(isMovable) && (
              <Select
                label="Put into"
                width="auto"
                none="choose"
                value=""
                options={[
                  { value: 'loose', words: 'loose on the shelf' },
                  ...machinesOf(bench).map((m) => ({ value: m.id, words: m.name })),
                ]}
                onChange={(e) =>
                  does(
                    putInto(
                      things,
                      machinesOf(bench).find((m) => m.id === e.target.value),
                    ),
                  )
                }
              />
            )}
            <Quiet size="sm" onClick={() => does(removeItems(bench, things))}>
              Take off the shelf
            </Quiet>
          </Acts>
        )
      }
    />
  );
}
