import { chakra, Stack, Text } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { z } from 'zod';
import { applySurvey } from '@zb/core/acts/shelf';
import type { Bench, Machine } from '@zb/core/model/bench';
import { compareSurvey } from '@zb/core/machine/compare';
import { readSurvey } from '@zb/core/machine/read';
import { SURVEY_FILE, SURVEY_SCRIPT } from '@zb/core/machine/script';
import type { Survey } from '@zb/core/machine/types';
import { download } from '../storage/download';
import { stamp, useAct } from '../storage/hooks';
import { Primary, Quiet } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { Lines } from '../ui/Input';
import { PickFile } from '../ui/PickFile';
import { Said } from '../ui/Said';
import { Two } from '../ui/Two';
import { Acts, Data, Head, Sub } from '../ui/Words';
import { checked } from './checked';
import { readTextFile } from './textFile';
import { SurveyChanges } from './SurveyChanges';
import { useDraftForm } from './useDraftForm';

const reportSchema = z.object({
  report: z.string().refine((t) => t.trim() !== '', 'Paste what the script printed first.'),
});

/** Hands out the survey script and takes its output, pasted or opened. */
export function SurveyIntake({
  bench,
  machine,
  boxId,
  onDone,
}: {
  bench: Bench;
  machine: Machine;
  boxId: string | null;
  onDone?: () => void;
}) {
  const act = useAct();
  const [problem, setProblem] = useState('');
  const { form, submit, forget } = useDraftForm({
    values: { report: '' },
    resolver: checked(reportSchema),
    draft: `report ${machine.id}`,
    ask: false,
    save: ({ report }) => take(report),
  });
  const [viewing, setViewing] = useState(false);
  const [copied, setCopied] = useState('');
  const lines = useMemo(() => SURVEY_SCRIPT.trimEnd().split('\n').length, []);
  const [waiting, setWaiting] = useState<Survey | null>(null);
  const keep = (survey: Survey): void => {
    void act(applySurvey(bench, machine, survey, stamp(), boxId));
    forget();
    setWaiting(null);
    onDone?.();
  };
  const take = (text: string): boolean => {
    try {
      const survey = readSurvey(text);
      setProblem('');
      // A machine surveyed before shows what changed first; a first survey has nothing to be held against.
      if (machine.surveyedAt === null) keep(survey);
      else setWaiting(survey);
    } catch (error) {
      setWaiting(null);
      setProblem(error instanceof Error ? error.message : String(error));
    }
    return false;
  };
  const copy = (): void => {
    navigator.clipboard.writeText(SURVEY_SCRIPT).then(
      () => setCopied('Copied.'),
      () => setCopied('The browser did not allow copying; view the script and copy it there.'),
    );
  };
  if (waiting)
    return (
      <SurveyChanges
        changes={compareSurvey(bench, machine, waiting)}
        before={machine.surveyedAt ?? ''}
        onTake={() => keep(waiting)}
        onLeave={() => setWaiting(null)}
      />
    );
  return (
    <Two>
      <Stack gap="2">
        <Head>1. Run the script on {machine.name}</Head>
        <Text>
          {lines} lines of plain <Data>sh</Data>. It reads only, writes no file, needs no root and nothing
          installed.
        </Text>
        <Data>sh {SURVEY_FILE} &gt; report.txt</Data>
        <Acts>
          <Quiet onClick={() => setViewing(true)}>View</Quiet>
          <Quiet onClick={copy}>Copy</Quiet>
          <Quiet onClick={() => download(SURVEY_FILE, SURVEY_SCRIPT, 'text/x-shellscript')}>Download</Quiet>
        </Acts>
        <Sub role="status">{copied}</Sub>
      </Stack>
      <form onSubmit={(e) => void submit(e)}>
        <Stack gap="2">
          <Lines
            label="2. Paste what it printed"
            data
            rows={4}
            spellCheck={false}
            placeholder="==== zb-survey ===="
            error={form.formState.errors.report?.message}
            {...form.register('report')}
          />
          <Acts>
            <Primary type="submit">Read the report</Primary>
            <PickFile
              label="Open a report file"
              onFile={(f) => void readTextFile(f, 'report').then(take, (e: Error) => setProblem(e.message))}
            />
          </Acts>
          {problem !== '' && <Said kind="stop">{problem}</Said>}
        </Stack>
      </form>
      <Dialog open={viewing} onClose={() => setViewing(false)} title="The survey script" size="lg">
        <chakra.pre
          tabIndex={0}
          textStyle="data"
          bg="bg.margin"
          border="thin"
          padding="3"
          overflow="auto"
          css={{ fontSize: '12px', maxHeight: '60vh' }}
        >
          {SURVEY_SCRIPT}
        </chakra.pre>
      </Dialog>
    </Two>
  );
}
