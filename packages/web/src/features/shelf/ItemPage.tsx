import { HStack, Stack } from '@chakra-ui/react';
import { useNavigate, useParams } from 'react-router';
import { z } from 'zod';
import { removeItem, saveItem } from '@zb/core/acts/shelf';
import {
  isMachine,
  isStore,
  machineForms,
  machineSchema,
  type Machine,
  type ShelfItem,
} from '@zb/core/model/shelf';
import { claimOf } from '@zb/core/plan/claims';
import { claimWords } from '@zb/core/words/claim';
import { itemPlace, itemSummary } from '@zb/core/machine/summary';
import NotFound from '../../parts/NotFound';
import { BenchLedger } from '../../parts/BenchLedger';
import { MachineBody } from '../../parts/MachineBody';
import { OneFact } from '../../parts/OneFact';
import { Sheet } from '../../parts/Sheet';
import { useAct, useBench } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { Select } from '../../ui/Select';
import { Content } from './Content';
import { Erase } from './Erase';
import { ItemForm } from './ItemForm';

const nameSchema = z.string().trim().pipe(machineSchema.shape.name);

function MachineSheet({ machine }: { machine: Machine }) {
  const bench = useBench();
  const act = useAct();
  return (
    <Stack gap="3">
      <HStack gap="3" align="flex-start" flexWrap={{ base: 'wrap', md: 'nowrap' }}>
        <OneFact
          label="Nickname"
          width={{ base: 'full', md: 'field' }}
          value={machine.name}
          schema={nameSchema}
          maxLength={200}
          onKeep={(name) => act(saveItem(machine, { ...machine, name }))}
        />
        <Select
          label="Kind"
          width={{ base: 'full', md: 'field' }}
          options={machineForms}
          value={machine.form}
          onChange={(e) =>
            void act(saveItem(machine, { ...machine, form: e.target.value as Machine['form'] }))
          }
        />
        <OneFact
          label="Notes"
          value={machine.notes}
          schema={machineSchema.shape.notes}
          onKeep={(notes) => act(saveItem(machine, { ...machine, notes }))}
        />
      </HStack>
      <MachineBody bench={bench} machine={machine} boxId={null} />
    </Stack>
  );
}

export default function ItemPage() {
  const { itemId } = useParams();
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const item: ShelfItem | undefined = bench.items.find((i) => i.id === itemId);
  if (!item || item.kind === 'image') return <NotFound what="This is not on the shelf" />;
  const claim = claimOf(bench, item.id);
  const remove = (): void => {
    void act(removeItem(bench, item));
    void go('/shelf');
  };
  return (
    <>
      <Sheet
        title={item.name}
        mid={item.kind === 'machine' ? item.form : item.kind}
        right={claim ? `${itemPlace(bench, item)} · ${claimWords(claim)}` : itemPlace(bench, item)}
        headline={`${item.name}: ${itemSummary(item)}`}
        foot={<Quiet onClick={remove}>Take it off the shelf</Quiet>}
        hint="Undo brings it back"
      >
        {isMachine(item) ? (
          <MachineSheet key={item.id} machine={item} />
        ) : (
          <Stack gap="4" key={item.id}>
            {isStore(item) && <Content store={item} />}
            <ItemForm item={item} />
            {isStore(item) && <Erase store={item} />}
          </Stack>
        )}
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
