import { HStack, Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { takeTicks } from '@zb/core/acts/run';
import type { Plan } from '@zb/core/box/plan';
import type { RunStep } from '@zb/core/box/runSheet';
import { wholeOf } from '@zb/core/runsheet/step';
import { readTravel, TravelError } from '@zb/core/model/travel';
import { stopTitle } from '@zb/core/model/stops';
import { formatSpan } from '@zb/core/units/duration';
import { evidenceWords } from '@zb/core/words/runsheet/around';
import { plural } from '@zb/core/words/text';
import { runSheetMarkdown } from '@zb/core/words/runsheet/markdown';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { travelFaultWords, travelHtml, travelOf } from '@zb/core/words/runsheet/travel';
import type { BoxContext } from '../../parts/BoxFrame';
import { download, fileName } from '../../storage/download';
import { stamp, useAct } from '../../storage/hooks';
import { Quiet, Word } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { PickFile } from '../../ui/PickFile';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Acts, Data } from '../../ui/Words';
import { PlanEnd } from './PlanEnd';

const STATE: Record<RunStep['state'], string> = {
  done: 'done',
  'left out': 'left out',
  'not recorded': 'not recorded',
  ready: 'ready',
  waits: 'waits',
};

/** What became of a sheet that was read back. */
type Back = { kind: 'stop' | 'proven'; words: string };

/** All steps of a box, the sheet to take along, and its way back. */
export function AllSteps({
  context,
  plan,
  at,
  onGo,
  onClose,
}: {
  context: BoxContext;
  plan: Plan;
  at: string | undefined;
  onGo: (key: string) => void;
  onClose: () => void;
}) {
  const { bench, box } = context;
  const { sheet } = plan;
  const act = useAct();
  const [back, setBack] = useState<Back | null>(null);
  const read = async (file: File): Promise<void> => {
    try {
      const travel = readTravel(await file.text());
      if (travel.box.id !== box.id) throw new TravelError({ code: 'of another box', box: travel.box.name });
      const { act: ticks, fresh, known, strange } = takeTicks(bench, box, travel.done);
      if (fresh > 0) await act(ticks);
      setBack({
        kind: 'proven',
        words: `${[
          `${plural(fresh, 'step')} taken from it`,
          known > 0 ? `${plural(known, 'step')} known already` : '',
          strange.length > 0 ? `${plural(strange.length, 'step')} that this box has no more` : '',
        ]
          .filter(Boolean)
          .join(', ')}.`,
      });
    } catch (error) {
      if (!(error instanceof TravelError)) throw error;
      setBack({ kind: 'stop', words: travelFaultWords(error.fault) });
    }
  };
  return (
    <Dialog open onClose={onClose} title={`All steps of ${box.name}`} size="lg">
      <Stack gap="3">
        <Acts>
          <Quiet
            onClick={() =>
              download(
                fileName(`${box.name} run sheet`, 'html'),
                travelHtml(travelOf(sheet, box, bench.name, stamp().now)),
                'text/html',
              )
            }
          >
            Save a sheet to take along
          </Quiet>
          <PickFile label="Read one back" accept={['.html']} onFile={(file) => void read(file)} />
          <Quiet
            onClick={() =>
              download(fileName(`${box.name} run sheet`, 'md'), runSheetMarkdown(plan), 'text/markdown')
            }
          >
            Save as Markdown
          </Quiet>
        </Acts>
        <Text textStyle="small">
          The sheet to take along is one file that opens on any device, without us. It keeps its ticks and
          times; saved there it is read back here.
        </Text>
        {back && <Said kind={back.kind}>{back.words}</Said>}
        <PlanEnd context={context} plan={plan} onGo={onGo} />
        <Ruled label="Steps" heads={['Step', 'Stop', 'Usually', 'State']}>
          {sheet.steps.map((s) => (
            <Line key={s.key}>
              <LineHead whole>
                <HStack gap="2" align="baseline">
                  <Data>{s.number}</Data>
                  <Word
                    onClick={() => onGo(s.key)}
                    {...(s.key === at ? { 'aria-current': 'step' as const, fontWeight: 'strong' } : {})}
                  >
                    {runStepWords(s.what).title}
                  </Word>
                </HStack>
              </LineHead>
              <Cell>{stopTitle[s.stop]}</Cell>
              <Cell>{formatSpan(wholeOf(s))}</Cell>
              <Cell>
                {STATE[s.state]}
                {s.done && `, ${evidenceWords(s.done.by)}`}
                {s.changed === null ? '' : ', changed since'}
              </Cell>
            </Line>
          ))}
        </Ruled>
        {sheet.gone.length > 0 && (
          <Said kind="check" title="Done, and on the sheet no more:">
            {sheet.gone.map((g) => g.said).join('; ')}
          </Said>
        )}
      </Stack>
    </Dialog>
  );
}
