import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { editTune, sayVerdict } from '@zb/core/acts/tune';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import type { TunePlan, TuneVerdict } from '@zb/core/model/tune';
import {
  panelDraftOf,
  panelOfDraft,
  verdictOfDraft,
  type PanelDraft,
  type VerdictDraft,
} from '@zb/core/model/tuneDraft';
import type { BoxTune } from '@zb/core/tune/forBox';
import { heatLimits } from '@zb/core/tune/limits';
import { followedRates } from '@zb/core/tune/pace';
import { formatDuration } from '@zb/core/units/duration';
import { formatNumber } from '@zb/core/units/number';
import { amount } from '@zb/core/words/money';
import { checked } from '../../parts/checked';
import { DraftDialog, useActAndClose } from '../../parts/DraftDialog';
import { useDraftForm } from '../../parts/useDraftForm';
import { stamp } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Input, Lines } from '../../ui/Input';
import { VerdictMark } from '../../ui/Marks';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Select } from '../../ui/Select';
import { Two } from '../../ui/Two';
import { Acts, Head, Sub } from '../../ui/Words';

type Open = 'panel' | 'works' | 'recommended' | null;
const MARK = { yes: 'yes', partly: 'change', no: 'no' } as const;

/** What stands around the experiments: pace of the picture, what it costs to run, limits of heat, and the two verdicts. */
export function Around({ bench, box, found }: { bench: Bench; box: Build; found: BoxTune }) {
  const [open, setOpen] = useState<Open>(null);
  const close = (): void => setOpen(null);
  const { plan, pace, running, battery } = found;
  const range = pace && followedRates(pace.panel);
  return (
    <Stack gap="5">
      <Two>
        <Stack gap="4">
          <Box as="section" aria-label="Two verdicts">
            <Head marginBottom="1">Two verdicts, which are not the same</Head>
            <Ruled dense silent label="Verdicts" heads={['What', 'Verdict']}>
              {(['works', 'recommended'] as const).map((which) => {
                const v = plan[which];
                return (
                  <Line key={which}>
                    <LineHead>{which === 'works' ? 'It works' : 'I would recommend it'}</LineHead>
                    <Cell>
                      {v ? (
                        <>
                          <VerdictMark kind={MARK[v.is]}>{v.is}</VerdictMark>
                          <Sub>{v.words}</Sub>
                        </>
                      ) : (
                        'not said yet'
                      )}
                    </Cell>
                    <Cell textAlign="end">
                      <Quiet size="sm" onClick={() => setOpen(which)}>
                        {v ? 'Say it anew' : 'Say it'}
                      </Quiet>
                    </Cell>
                  </Line>
                );
              })}
            </Ruled>
          </Box>
          <Box as="section" aria-label="Pace">
            <Head marginBottom="1">Caps that pace evenly on this panel</Head>
            {pace ? (
              <>
                <Ruled
                  dense
                  label="Caps"
                  heads={[{ words: 'Cap, frames/s', figure: true }, 'Each frame stays', 'It keeps up']}
                >
                  {pace.caps.map((c) => (
                    <Line key={c.cap} here={c.cap === pace.take?.cap}>
                      <Num>{formatNumber(c.cap, c.cap % 1 === 0 ? 0 : 1)}</Num>
                      <Cell>
                        {c.stays === null
                          ? 'as long as it takes: the panel follows'
                          : c.stays === 1
                            ? 'one refresh'
                            : `${c.stays} refreshes`}
                      </Cell>
                      <Cell>
                        {pace.low === null ? (
                          'not measured'
                        ) : (
                          <VerdictMark kind={pace.low >= c.cap ? 'yes' : 'no'}>
                            {pace.low >= c.cap ? 'yes' : 'not its slowest hundredth'}
                          </VerdictMark>
                        )}
                      </Cell>
                    </Line>
                  ))}
                </Ruled>
                {range && (
                  <Sub>
                    It follows from {formatNumber(range.low, 0)} to {formatNumber(range.high, 0)} frames a
                    second
                    {range.low < (pace.panel.low ?? 0) ? ', below its range by showing frames twice' : ''}.
                  </Sub>
                )}
              </>
            ) : (
              <Sub>Which rate the panel has was not said.</Sub>
            )}
            <Acts marginTop="1">
              <Quiet onClick={() => setOpen('panel')}>Panel and battery</Quiet>
            </Acts>
          </Box>
        </Stack>
        <Stack gap="4">
          <Box as="section" aria-label="What it costs to run">
            <Head marginBottom="1">
              What it costs to run, {formatNumber(running.hours, running.hours % 1 === 0 ? 0 : 1)} h a day
            </Head>
            {running.now && running.came ? (
              <Ruled
                dense
                label="Running"
                heads={[
                  'State',
                  { words: 'Watts', figure: true },
                  { words: 'kWh a year', figure: true },
                  { words: 'A year', figure: true },
                ]}
              >
                {(['came', 'now'] as const).map((k) => {
                  const r = running[k];
                  return (
                    r && (
                      <Line key={k}>
                        <LineHead>{k === 'came' ? 'As it came' : 'As it is'}</LineHead>
                        <Num>{formatNumber(r.watts, 1)}</Num>
                        <Num>{formatNumber(r.yearly.kwh, 0)}</Num>
                        <Num>{amount(bench, r.yearly.money)}</Num>
                      </Line>
                    )
                  );
                })}
              </Ruled>
            ) : (
              <Sub>No run has watts at the wall yet.</Sub>
            )}
            {found.fan && Math.abs(found.fan.decibels) >= 0.5 && (
              <Sub>
                Its fan went from {formatNumber(found.fan.came)} to {formatNumber(found.fan.now)} turns a
                minute: {found.fan.decibels < 0 ? 'quieter' : 'louder'} by about{' '}
                {formatNumber(Math.abs(found.fan.decibels), 0)} dB, by its speed alone (fan laws, from
                memory).
              </Sub>
            )}
            {battery && (
              <Sub>
                {battery.now === null
                  ? 'How long its battery lasts is told once a run has watts from the battery.'
                  : `Its battery lasts ${formatDuration(battery.now * 60)}${battery.came === null ? '' : `, as it came ${formatDuration(battery.came * 60)}`}.`}
              </Sub>
            )}
          </Box>
          <Box as="section" aria-label="Limits of heat">
            <Head marginBottom="1">How warm parts may be</Head>
            <Ruled
              dense
              label="Limits of heat"
              heads={[
                'Part',
                { words: 'For long, °C', figure: true },
                { words: 'Never above, °C', figure: true },
                'Says who',
              ]}
            >
              {Object.values(heatLimits).map((l) => (
                <Line key={l.part}>
                  <LineHead>{l.part}</LineHead>
                  <Num>{l.check}</Num>
                  <Num>{l.stop}</Num>
                  <Cell>
                    <Sub>{l.source}</Sub>
                  </Cell>
                </Line>
              ))}
            </Ruled>
          </Box>
        </Stack>
      </Two>
      {open === 'panel' && <PanelForm box={box} plan={plan} onClose={close} />}
      {(open === 'works' || open === 'recommended') && (
        <VerdictForm box={box} plan={plan} which={open} onClose={close} />
      )}
    </Stack>
  );
}

function PanelForm({ box, plan, onClose }: { box: Build; plan: TunePlan; onClose: () => void }) {
  const keep = useActAndClose(onClose);
  const draft = useDraftForm<PanelDraft, Pick<TunePlan, 'panel' | 'batteryWattHours'>>({
    values: panelDraftOf(plan),
    resolver: checked<PanelDraft, Pick<TunePlan, 'panel' | 'batteryWattHours'>>(panelOfDraft),
    draft: `panel ${box.id}`,
    ask: false,
    save: (p) => keep(editTune(box, p, 'Panel and battery saved')),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog title="Panel and battery" size="sm" draft={draft} onClose={onClose}>
      <FormGrid>
        <Input label="Refresh rate, Hz" data error={errors.hz?.message} {...form.register('hz')} />
        <Input
          label="Follows from, Hz"
          data
          help="empty: it does not"
          error={errors.low?.message}
          {...form.register('low')}
        />
        <Input label="Follows to, Hz" data error={errors.high?.message} {...form.register('high')} />
        <Input
          label="Battery when full, Wh"
          data
          help="as printed on it"
          error={errors.wattHours?.message}
          {...form.register('wattHours')}
        />
      </FormGrid>
    </DraftDialog>
  );
}

function VerdictForm({
  box,
  plan,
  which,
  onClose,
}: {
  box: Build;
  plan: TunePlan;
  which: 'works' | 'recommended';
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const [at] = useState(() => stamp().now);
  const draft = useDraftForm<VerdictDraft, TuneVerdict>({
    values: { is: plan[which]?.is ?? 'yes', words: plan[which]?.words ?? '' },
    resolver: checked<VerdictDraft, TuneVerdict>(verdictOfDraft(at)),
    draft: `verdict ${box.id} ${which}`,
    ask: false,
    save: (v) => keep(sayVerdict(box, which, v, stamp())),
  });
  const { form } = draft;
  return (
    <DraftDialog
      title={which === 'works' ? 'Does it work?' : 'Would you recommend it?'}
      size="sm"
      draft={draft}
      remove={
        plan[which]
          ? { words: 'Take it back', act: () => void keep(sayVerdict(box, which, null, stamp())) }
          : undefined
      }
      onClose={onClose}
    >
      <Stack gap="3">
        <Select label="Verdict" options={['yes', 'partly', 'no']} {...form.register('is')} />
        <Lines
          label={which === 'works' ? 'What works, and what does not' : 'For whom, and for whom not'}
          rows={3}
          error={form.formState.errors.words?.message}
          {...form.register('words')}
        />
      </Stack>
    </DraftDialog>
  );
}
