import { useNavigate, useParams } from 'react-router';
import { removeItem, saveItem } from '@zb/core/acts/shelf';
import { isMachine, isStore, machineForms, type Machine, type ShelfItem } from '@zb/core/model/shelf';
import { itemPlace, itemSummary } from '@zb/core/machine/summary';
import NotFound from '../../parts/NotFound';
import { BenchLedger } from '../../parts/BenchLedger';
import { Quiet } from '../../ui/Button';
import { MachineBody } from '../../parts/MachineBody';
import { Sheet } from '../../parts/Sheet';
import { useAct, useBench } from '../../storage/hooks';
import { Erase } from './Erase';
import { ItemForm } from './ItemForm';

function MachineSheet({ machine }: { machine: Machine }) {
  const bench = useBench();
  const act = useAct();
  return (
    <div className="stack">
      <div className="actions">
        <label className="field">
          <span>Nickname</span>
          <input
            className="in"
            defaultValue={machine.name}
            key={machine.name}
            maxLength={200}
            onBlur={(e) =>
              e.target.value.trim() &&
              e.target.value.trim() !== machine.name &&
              void act(saveItem(machine, { ...machine, name: e.target.value.trim() }))
            }
          />
        </label>
        <label className="field">
          <span>Kind</span>
          <select
            className="in"
            value={machine.form}
            onChange={(e) =>
              void act(saveItem(machine, { ...machine, form: e.target.value as Machine['form'] }))
            }
          >
            {machineForms.map((f) => (
              <option key={f}>{f}</option>
            ))}
          </select>
        </label>
        <label className="field" style={{ flex: 1, minWidth: 200 }}>
          <span>Notes</span>
          <input
            className="in"
            defaultValue={machine.notes}
            key={machine.notes}
            onBlur={(e) =>
              e.target.value !== machine.notes &&
              void act(saveItem(machine, { ...machine, notes: e.target.value }))
            }
          />
        </label>
      </div>
      <MachineBody bench={bench} machine={machine} boxId={null} />
    </div>
  );
}

export default function ItemPage() {
  const { itemId } = useParams();
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const item: ShelfItem | undefined = bench.items.find((i) => i.id === itemId);
  if (!item) return <NotFound what="This is not on the shelf" />;
  const remove = (): void => {
    void act(removeItem(bench, item));
    void go('/shelf');
  };
  return (
    <>
      <Sheet
        title={item.name}
        mid={item.kind === 'machine' ? item.form : item.kind}
        right={itemPlace(bench, item)}
        headline={`${item.name}: ${itemSummary(item)}`}
        foot={<Quiet onClick={remove}>Take it off the shelf</Quiet>}
        hint="Undo brings it back"
      >
        {isMachine(item) ? (
          <MachineSheet key={item.id} machine={item} />
        ) : (
          <div className="stack">
            <ItemForm key={item.id} item={item} store={isStore(item)} />
            {isStore(item) && <Erase store={item} />}
          </div>
        )}
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
