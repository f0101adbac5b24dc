import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { dropExperiment, dropRun, leaveRunOut } from '@zb/core/acts/tune';
import type { Bench, Box as Build, TuneRun } from '@zb/core/model/bench';
import type { QuantityCode } from '@zb/core/model/tune';
import { questions } from '@zb/core/tune/questions';
import { quantities } from '@zb/core/tune/quantities';
import { counts, setsOf, type ExperimentState } from '@zb/core/tune/results';
import { tuneCsv, tuneJson } from '@zb/core/tune/exported';
import { formatNumber } from '@zb/core/units/number';
import { armWords, bareFigure } from '@zb/core/words/tune';
import { useAct } from '../../storage/hooks';
import { download } from '../../storage/download';
import { Primary, Quiet, Word } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Input } from '../../ui/Input';
import { VerdictMark } from '../../ui/Marks';
import { Nothing } from '../../ui/Nothing';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Acts, Sub } from '../../ui/Words';

/** Every run of the experiment, in its order; none is thrown away unseen. */
export function Runs({ bench, box, state }: { bench: Bench; box: Build; state: ExperimentState }) {
  const act = useAct();
  const [leaving, setLeaving] = useState<TuneRun | null>(null);
  const e = state.experiment;
  const runs = state.arms.flatMap((a) => a.runs).sort((a, b) => a.place - b.place);
  const q = questions[e.question];
  const codes = [...new Set<QuantityCode>([q.first, ...q.beside, 'wall'])]
    .filter((c) => runs.some((r) => r.values[c] !== undefined))
    .slice(0, 4);
  if (runs.length === 0) return <Nothing title="No run was made yet" words={`Their order is ${e.order}.`} />;
  return (
    <Stack gap="3">
      <Ruled
        stacked
        label="Runs"
        heads={[
          'Run',
          'State',
          ...codes.map((c) => ({ words: `${quantities[c].label}, ${quantities[c].unit}`, figure: true })),
          'Counts',
          { words: 'Acts', silent: true },
        ]}
      >
        {runs.map((r) => (
          <Line key={r.id}>
            <LineHead>
              {r.place + 1}
              <Sub>{r.source === 'read' ? r.from : r.source}</Sub>
            </LineHead>
            <Cell whiteSpace={{ md: 'nowrap' }}>{armWords(state.changes, setsOf(state, r.arm))}</Cell>
            {codes.map((c) => {
              const [v, within] = [r.values[c], r.within[c]];
              return (
                <Num key={c}>
                  {v === undefined ? '–' : bareFigure(c, v)}
                  {within && (
                    <Sub>
                      {bareFigure(c, within[0])} to {bareFigure(c, within[1])}
                    </Sub>
                  )}
                </Num>
              );
            })}
            <Cell>
              <VerdictMark kind={counts(e, r) ? 'yes' : r.leftOut === '' ? 'ask' : 'no'}>
                {r.leftOut !== '' ? 'left out' : counts(e, r) ? 'counts' : 'not settled'}
              </VerdictMark>
              <Sub>{r.leftOut || (r.tau === null ? '' : `time constant ${formatNumber(r.tau)} s`)}</Sub>
            </Cell>
            <Cell whiteSpace={{ md: 'nowrap' }}>
              {r.leftOut === '' ? (
                <Word onClick={() => setLeaving(r)}>leave out</Word>
              ) : (
                <Word onClick={() => void act(leaveRunOut(r, ''))}>count again</Word>
              )}{' '}
              <Word onClick={() => void act(dropRun(r))}>take away</Word>
            </Cell>
          </Line>
        ))}
      </Ruled>
      <Acts>
        <Quiet onClick={() => download(`${box.name} runs.csv`, tuneCsv(bench, box), 'text/csv')}>
          Save as CSV
        </Quiet>
        <Quiet
          onClick={() =>
            download(
              `${box.name} tuning.json`,
              JSON.stringify(tuneJson(bench, box), null, 2),
              'application/json',
            )
          }
        >
          Save as JSON
        </Quiet>
        <Quiet onClick={() => void act(dropExperiment(bench, box, e))}>Take the experiment away</Quiet>
      </Acts>
      {leaving && <LeaveOut run={leaving} onClose={() => setLeaving(null)} />}
    </Stack>
  );
}

/** A run is left out for a reason, which stays with it. */
function LeaveOut({ run, onClose }: { run: TuneRun; onClose: () => void }) {
  const act = useAct();
  const [why, setWhy] = useState('');
  return (
    <Dialog open onClose={onClose} title={`Leave run ${run.place + 1} out`} size="sm">
      <Input
        label="Why"
        help="An update ran, somebody opened the window. Never because of the figure itself."
        value={why}
        onChange={(e) => setWhy(e.target.value)}
      />
      <Box marginTop="3">
        <Primary
          disabled={why.trim() === ''}
          onClick={() => void act(leaveRunOut(run, why.trim().slice(0, 200))).then((k) => k && onClose())}
        >
          Leave it out
        </Primary>
      </Box>
    </Dialog>
  );
}
