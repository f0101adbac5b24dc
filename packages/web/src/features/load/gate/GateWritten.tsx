import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { noteGiven } from '@zb/core/acts/rules';
import type { Box } from '@zb/core/model/bench';
import type { BoxGate } from '@zb/core/rules/forBox';
import type { GateReport } from '@zb/core/rules/report';
import { gateFile, gateForms, writeGate, type GateForm } from '@zb/core/rules/write/forms';
import { gateFaultWords } from '@zb/core/words/gateFault';
import { gateFormWords, givenWords } from '@zb/core/words/rules';
import { WrittenText } from '../../../parts/WrittenText';
import { stamp, useAct } from '../../../storage/hooks';
import { Quiet } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { Said } from '../../../ui/Said';
import { Select } from '../../../ui/Select';

/** What the gate is given; nothing while it would lock out whoever gives it, or break a promise. */
export function GateWritten({
  box,
  of,
  report,
  onClose,
}: {
  box: Box;
  of: BoxGate;
  report: GateReport;
  onClose: () => void;
}) {
  const act = useAct();
  const [form, setForm] = useState<GateForm>('rollback');
  const stops = report.findings.filter((f) => f.grade === 'stop');
  const { plan, networks, hosts } = of;
  return (
    <Dialog open onClose={onClose} title={`${box.name}: rules, written for the gate`} size="lg">
      <Stack gap="3">
        {stops.length > 0 ? (
          stops.map((f, i) => (
            <Said key={i} kind="stop">
              {gateFaultWords(f.fault)}
            </Said>
          ))
        ) : (
          <>
            <Select
              label="As"
              value={form}
              options={gateForms.map((f) => ({ value: f, words: gateFormWords(f) }))}
              onChange={(e) => setForm(gateForms.find((f) => f === e.target.value) ?? 'rollback')}
            />
            <WrittenText text={writeGate(form, plan, networks, hosts)} name={gateFile[form]} />
            <Quiet
              alignSelf="flex-start"
              onClick={() => void act(noteGiven(box, givenWords(report), stamp()))}
            >
              Note in the log that they were given
            </Quiet>
          </>
        )}
      </Stack>
    </Dialog>
  );
}
