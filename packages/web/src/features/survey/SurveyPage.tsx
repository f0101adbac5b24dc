import { useState } from 'react';
import { updateBox } from '@zb/core/acts/box';
import { blankMachine } from '@zb/core/acts/shelf';
import { isMachine } from '@zb/core/schema/shelf';
import { storesIn } from '@zb/core/schema/bench';
import { surveyHeadline } from '@zb/core/survey/headline';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Primary, Quiet } from '../../parts/Button';
import { Facts } from '../../parts/Facts';
import { StoreTable } from '../../parts/StoreTable';
import { SurveyIntake } from '../../parts/SurveyIntake';
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
          {bench.items.filter(isMachine).map((m) => {
            const user = bench.boxes.find((b) => b.machineId === m.id && b.id !== box.id);
            return (
              <tr key={m.id}>
                <th scope="row">{m.name}</th>
                <td>
                  {m.form}
                  {user && <span className="sub">already in “{user.name}”</span>}
                </td>
                <td className="soft">{m.surveyedAt?.slice(0, 10) ?? 'not yet'}</td>
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
  const [again, setAgain] = useState(false);
  const inside = machine ? storesIn(bench, machine.id) : [];
  const intake = machine && (machine.surveyedAt === null || again);
  return (
    <BoxFrame
      context={context}
      stop="survey"
      headline={surveyHeadline(machine)}
      acts={
        machine && (
          <>
            {machine.surveyedAt !== null && (
              <Quiet onClick={() => setAgain((v) => !v)}>
                {again ? 'Keep the survey as it is' : 'Survey again'}
              </Quiet>
            )}
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
        <div className="stack">
          {intake && (
            <SurveyIntake bench={bench} machine={machine} boxId={box.id} onDone={() => setAgain(false)} />
          )}
          {machine.missing.length > 0 && (
            <div className="said said-check">
              <b>The report did not tell:</b> {machine.missing.join('; ')}. Enter what you know; what you
              enter wins.
            </div>
          )}
          <Facts machine={machine} />
          {inside.length > 0 && <StoreTable stores={inside} caption={`In ${machine.name}`} />}
        </div>
      )}
    </BoxFrame>
  );
}

export default withBox(SurveyPage);
