import { useState } from 'react';
import { updateBox } from '@zb/core/acts/box';
import { formatDay } from '@zb/core/units/date';
import { blankMachine } from '@zb/core/acts/shelf';
import { machinesOf } from '@zb/core/model/bench';
import { surveyHeadline } from '@zb/core/words/survey';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Primary, Quiet } from '../../ui/Button';
import { MachineBody } from '../../parts/MachineBody';
import { stamp, useAct } from '../../storage/hooks';

function PickMachine({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const act = useAct();
  const [name, setName] = useState('');
  const take = (id: string, words: string): void =>
    void act(updateBox(box, { machineId: id, profileId: null }, words));
  const make = (): void => {
    const machine = blankMachine(name.trim(), 'office desktop', stamp());
    void act({
      label: `${machine.name} put on the shelf`,
      changes: [
        { in: 'items', id: machine.id, to: machine },
        ...updateBox(box, { machineId: machine.id }, '').changes,
      ],
    });
  };
  return (
    <div className="stack">
      <table className="t">
        <thead>
          <tr>
            <th scope="col">On the shelf</th>
            <th scope="col">Kind</th>
            <th scope="col">Surveyed</th>
            <th scope="col">
              <span className="hidden-text">Take it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {machinesOf(bench).map((m) => {
            const user = bench.boxes.find((b) => b.machineId === m.id && b.id !== box.id);
            return (
              <tr key={m.id}>
                <th scope="row">{m.name}</th>
                <td>
                  {m.form}
                  {user && <span className="sub">already in “{user.name}”</span>}
                </td>
                <td className="soft">{m.surveyedAt === null ? 'not yet' : formatDay(m.surveyedAt)}</td>
                <td>
                  <button
                    type="button"
                    className="link"
                    onClick={() => take(m.id, `${m.name} taken for “${box.name}”`)}
                  >
                    Take {m.name}
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <form
        className="actions"
        onSubmit={(e) => {
          e.preventDefault();
          if (name.trim()) make();
        }}
      >
        <label className="field">
          <span>Or a new machine: its nickname</span>
          <input className="in" value={name} maxLength={200} onChange={(e) => setName(e.target.value)} />
        </label>
        <Primary type="submit" disabled={name.trim() === ''} alignSelf="flex-end">
          Put it on the shelf
        </Primary>
      </form>
    </div>
  );
}

function SurveyPage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  return (
    <BoxFrame
      context={context}
      stop="survey"
      headline={surveyHeadline(machine)}
      acts={
        machine && (
          <>
            <Quiet
              onClick={() =>
                void act(updateBox(box, { machineId: null, profileId: null }, 'Machine set aside'))
              }
            >
              Another machine
            </Quiet>
          </>
        )
      }
    >
      {!machine ? (
        <PickMachine context={context} />
      ) : (
        <MachineBody bench={bench} machine={machine} boxId={box.id} />
      )}
    </BoxFrame>
  );
}

export default withBox(SurveyPage);
