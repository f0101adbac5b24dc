import { useState } from 'react';
import { storesIn, type Bench, type Machine } from '@zb/core/model/bench';
import { formatDay } from '@zb/core/units/date';
import { schematic } from '@zb/core/machine/schematic';
import { DetailTables } from './DetailTables';
import { Facts } from './Facts';
import { MachinePhotos } from './MachinePhotos';
import { Schematic } from './Schematic';
import { StoreTable } from './StoreTable';
import { SurveyIntake } from './SurveyIntake';
import { UsualValues } from './UsualValues';

/** The machine sheet, the same at the survey stop and on the shelf. */
export function MachineBody({
  bench,
  machine,
  boxId,
}: {
  bench: Bench;
  machine: Machine;
  boxId: string | null;
}) {
  const [again, setAgain] = useState(false);
  const inside = storesIn(bench, machine.id);
  const first = machine.surveyedAt === null;
  return (
    <div className="stack">
      {(first || again) && (
        <SurveyIntake bench={bench} machine={machine} boxId={boxId} onDone={() => setAgain(false)} />
      )}
      {first && <UsualValues machine={machine} />}
      {!first && (
        <button
          type="button"
          className="link"
          style={{ alignSelf: 'flex-start' }}
          onClick={() => setAgain((v) => !v)}
        >
          {again
            ? 'Keep the survey as it is'
            : `Survey it again (last ${formatDay(machine.surveyedAt ?? '')})`}
        </button>
      )}
      {machine.missing.length > 0 && (
        <div className="said said-check">
          <b>The report did not tell:</b> {machine.missing.join('; ')}. Enter what you know; what you enter
          wins.
        </div>
      )}
      <Schematic groups={schematic(bench, machine.id)} name={machine.name} />
      <Facts machine={machine} />
      <DetailTables machine={machine} />
      {inside.length > 0 && <StoreTable stores={inside} caption={`In ${machine.name}`} />}
      <MachinePhotos machine={machine} />
    </div>
  );
}
