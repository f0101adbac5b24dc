import { Box, HStack, Stack } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { keepArm } from '@zb/core/acts/tune';
import { tuneOf } from '@zb/core/tune/forBox';
import { offeredArm, type ExperimentResult, type ExperimentState } from '@zb/core/tune/results';
import { questionTitle, stateTitle, tuneHeadline } from '@zb/core/words/tune';
import { within } from '@zb/core/words/text';
import type { ArmName, QuestionCode } from '@zb/core/model/tune';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { stamp, useAct } from '../../storage/hooks';
import { Primary, Quiet } from '../../ui/Button';
import { Nothing } from '../../ui/Nothing';
import { Select } from '../../ui/Select';
import { Tabs } from '../../ui/Tabs';
import { useElsewhere } from '../../workers/elsewhere';
import { Around } from './Around';
import { Effects } from './Effects';
import { HeatPlot } from './HeatPlot';
import { KeepDialog } from './KeepDialog';
import { LogDialog } from './LogDialog';
import { Margin } from './Margin';
import { PlanForm } from './PlanForm';
import { Questions } from './Questions';
import { RunDialog } from './RunDialog';
import { Runs } from './Runs';
import { SettingsSheet } from './SettingsSheet';
import { TradePlot } from './TradePlot';

const SIDES = ['effects', 'runs', 'settings', 'around'] as const;
type Side = (typeof SIDES)[number];
const TITLES: Record<Side, string> = {
  effects: 'What it did',
  runs: 'Runs',
  settings: 'Settings sheet',
  around: 'Panel, heat, verdict',
};

const made = (): Worker =>
  new Worker(new URL('../../workers/tuneWorker.ts', import.meta.url), { type: 'module' });

/** The experiment as its thread is asked: runs without what is only drawn. */
function useResult(context: BoxContext, state: ExperimentState | undefined): ExperimentResult | null {
  const { plan, runs } = tuneOf(context.bench, context.box);
  const job = useMemo(
    () =>
      state
        ? {
            experiment: state.experiment,
            settings: plan.settings,
            runs: runs
              .filter((r) => r.experimentId === state.experiment.id)
              .map((r) => ({ ...r, traces: [], frames: [] })),
          }
        : null,
    [state, plan.settings, runs],
  );
  const { found } = useElsewhere<ExperimentResult, 'stopped'>(made, 'stopped', job);
  return found && found.experiment.id === state?.experiment.id ? found : null;
}

/** Stop 11: one change at a time, measured before and after. */
function TunePage({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const act = useAct();
  const found = tuneOf(bench, box);
  const { plan, results } = found;
  const [side, setSide] = useState<Side>('effects');
  const [chosen, setChosen] = useState<string | null>(null);
  const [open, setOpen] = useState<'plan' | 'run' | 'log' | 'keep' | null>(null);
  const [arm, setArm] = useState<ArmName | null>(null);
  const [asked, setAsked] = useState<QuestionCode>('cooler');
  const close = (): void => setOpen(null);
  const state = results.find((r) => r.experiment.id === chosen) ?? results.at(-1);
  const result = useResult(context, state);
  const take = (id: string): void => {
    setChosen(id);
    setArm(null);
  };
  const empty = results.length === 0;
  const offered = arm ?? (state ? offeredArm(state, result) : null);
  const title = (a: ArmName): string => (state ? stateTitle(state, a) : '');
  return (
    <BoxFrame
      context={context}
      stop="tune"
      headline={tuneHeadline(box.name, state, result)}
      shortcuts={SIDES.map((s, i) => ({
        keys: String(i + 1),
        does: TITLES[s].toLowerCase(),
        act: () => setSide(s),
      }))}
      margin={<Margin bench={bench} found={found} state={state} onState={take} />}
      acts={
        <>
          {state?.next && <Quiet onClick={() => setOpen('run')}>Make run {state.next.place + 1}</Quiet>}
          {state && offered && !state.next && state.experiment.kept === null && (
            <Quiet onClick={() => setOpen('keep')}>Keep {within(title(offered))}</Quiet>
          )}
          {!empty && <Quiet onClick={() => setOpen('plan')}>Ask something else</Quiet>}
          <Quiet onClick={() => setOpen('log')}>Open a log</Quiet>
        </>
      }
    >
      {empty ? (
        <Stack gap="2">
          <Nothing
            title="Five settings at once tell nothing"
            words="Say what it should do better. Which figures to take, how long to wait, how many runs and in which order is worked out, and in the end what the change did, or that it cannot be said."
          >
            <Primary onClick={() => setOpen('plan')}>Ask a question</Primary>
          </Nothing>
          <Questions
            onAsk={(q) => {
              setAsked(q);
              setOpen('plan');
            }}
          />
        </Stack>
      ) : (
        <Stack gap="3">
          {results.length > 1 && (
            <Box hideFrom="md">
              <Select
                label="Experiment"
                width={{ base: 'full', md: 'form' }}
                value={state?.experiment.id ?? ''}
                onChange={(e) => take(e.target.value)}
                options={results.map((r) => ({
                  value: r.experiment.id,
                  words: `${questionTitle(r.experiment.question)}: ${r.changes.map((c) => within(c.name)).join(' and ')}, ${r.made} of ${r.planned} runs`,
                }))}
              />
            </Box>
          )}
          {state && (
            <Tabs
              label="Tune"
              at={side}
              onAt={(id) => setSide(SIDES.find((s) => s === id) ?? 'effects')}
              sides={[
                {
                  id: 'effects',
                  title: TITLES.effects,
                  body: (
                    <Stack gap="4">
                      <HStack gap="6" align="flex-start" flexDirection={{ base: 'column', lg: 'row' }}>
                        <Box flex="1" minWidth="0" width="full">
                          <TradePlot state={state} result={result} />
                        </Box>
                        <Box flex="1" minWidth="0" width="full">
                          <HeatPlot state={state} taken={offered} />
                        </Box>
                      </HStack>
                      <Effects state={state} result={result} taken={offered} onTake={setArm} />
                    </Stack>
                  ),
                },
                { id: 'runs', title: TITLES.runs, body: <Runs state={state} bench={bench} box={box} /> },
                { id: 'settings', title: TITLES.settings, body: <SettingsSheet box={box} plan={plan} /> },
                {
                  id: 'around',
                  title: TITLES.around,
                  body: <Around bench={bench} box={box} found={found} />,
                },
              ]}
            />
          )}
        </Stack>
      )}
      <Box marginTop="6">
        <LogEntryForm box={box} stop="tune" kinds={['setting', 'note']} />
      </Box>
      {open === 'plan' && (
        <PlanForm bench={bench} box={box} plan={plan} question={asked} onClose={close} onKept={setChosen} />
      )}
      {open === 'run' && state?.next && (
        <RunDialog box={box} plan={plan} state={state} next={state.next} onClose={close} />
      )}
      {open === 'log' && <LogDialog plan={plan} onClose={close} />}
      {open === 'keep' && state && offered && (
        <KeepDialog
          title={title(offered)}
          result={result}
          arm={offered}
          onKeep={(because) => act(keepArm(box, state.experiment, offered, because, stamp()))}
          onClose={close}
        />
      )}
    </BoxFrame>
  );
}

export default withBox(TunePage);
