import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { storesIn, type Bench, type Machine } from '@zb/core/model/bench';
import { formatDay } from '@zb/core/units/date';
import { schematic } from '@zb/core/machine/schematic';
import { Schematic } from '../drawing/Schematic';
import { Word } from '../ui/Button';
import { Said } from '../ui/Said';
import { DetailTables } from './DetailTables';
import { Facts } from './Facts';
import { MachinePhotos } from './MachinePhotos';
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
    <Stack gap="3">
      {(first || again) && (
        <SurveyIntake bench={bench} machine={machine} boxId={boxId} onDone={() => setAgain(false)} />
      )}
      {first && <UsualValues machine={machine} />}
      {!first && (
        <Box>
          <Word onClick={() => setAgain((v) => !v)}>
            {again
              ? 'Keep the survey as it is'
              : `Survey it again (last ${formatDay(machine.surveyedAt ?? '')})`}
          </Word>
        </Box>
      )}
      {machine.missing.length > 0 && (
        <Said kind="check">
          <b>The report did not tell:</b> {machine.missing.join('; ')}. Enter what you know; what you enter
          wins.
        </Said>
      )}
      <Schematic groups={schematic(bench, machine.id)} name={machine.name} />
      <Facts machine={machine} />
      <DetailTables machine={machine} />
      {inside.length > 0 && <StoreTable stores={inside} caption={`In ${machine.name}`} />}
      <MachinePhotos machine={machine} />
    </Stack>
  );
}
