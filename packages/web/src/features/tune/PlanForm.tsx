import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import { planExperiment } from '@zb/core/acts/tune';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import {
  questionCodes,
  settingKinds,
  type QuestionCode,
  type SettingKind,
  type TunePlan,
} from '@zb/core/model/tune';
import { experimentOfDraft, type ExperimentDraft, type ReadExperiment } from '@zb/core/model/tuneDraft';
import type { Design } from '@zb/core/tune/design';
import { groundOf } from '@zb/core/tune/ground';
import { designFor, experimentOf, proposalOf, type Proposal } from '@zb/core/tune/propose';
import { quantities } from '@zb/core/tune/quantities';
import { questions } from '@zb/core/tune/questions';
import { settingDefinitions } from '@zb/core/tune/settings';
import { formatDuration, formatSpan } from '@zb/core/units/duration';
import { chanceWords, figureWords, groundWords, questionTitle } from '@zb/core/words/tune';
import { capital, list, within } from '@zb/core/words/text';
import { TickField } from '../../parts/fields';
import { checked } from '../../parts/checked';
import { DraftDialog, useActAndClose } from '../../parts/DraftDialog';
import { useDraftForm } from '../../parts/useDraftForm';
import { stamp } from '../../storage/hooks';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import { Head, Sub } from '../../ui/Words';

const title = (k: SettingKind): string => settingDefinitions[k].title;

const LEVER: Record<QuestionCode, SettingKind> = Object.fromEntries(
  questionCodes.map((q) => [q, questions[q].levers[0] ?? 'other']),
) as Record<QuestionCode, SettingKind>;

/** Asking a question: what is changed, from what to what, and what would matter; the rest is worked out beside it. */
export function PlanForm({
  bench,
  box,
  plan,
  question,
  onClose,
  onKept,
}: {
  bench: Bench;
  box: Build;
  plan: TunePlan;
  /** What is asked to begin with. */
  question: QuestionCode;
  onClose: () => void;
  onKept: (id: string) => void;
}) {
  const keep = useActAndClose(onClose);
  const [ids] = useState(() => [crypto.randomUUID(), crypto.randomUUID(), crypto.randomUUID()]);
  const lever = LEVER[question];
  const there = plan.settings.find((s) => s.kind === lever);
  const proposed = (read: ReadExperiment): Proposal => proposalOf(read, plan, ids);
  const designed = (p: Proposal): Design => designFor(p, groundOf(bench, box, p.question));
  const draft = useDraftForm<ExperimentDraft, ReadExperiment>({
    values: {
      question,
      settingId: there?.id ?? '',
      kind: lever,
      name: '',
      from: there?.now ?? settingDefinitions[lever].steps[0] ?? '',
      to: settingDefinitions[lever].steps.find((s, i) => (there ? s !== there.now : i > 0)) ?? '',
      two: false,
      secondId: '',
      secondKind: 'power limit',
      secondFrom: '',
      secondTo: '',
      matters: '',
      runs: '',
      settle: '',
      seed: String(1 + plan.experiments.length),
    },
    resolver: checked<ExperimentDraft, ReadExperiment>(experimentOfDraft),
    draft: `experiment ${box.id} ${question}`,
    ask: false,
    save: async (read) => {
      const p = proposed(read);
      const e = experimentOf(p, designed(p), { id: ids[2] ?? '', at: stamp().now });
      const kept = await keep(
        planExperiment(
          box,
          e,
          p.changes.map((c) => c.setting),
          stamp(),
        ),
      );
      if (kept) onKept(e.id);
      return kept;
    },
  });
  const { form } = draft;
  const { errors } = form.formState;
  const typed = useWatch({ control: form.control, compute: (v: ExperimentDraft) => v });
  const read = experimentOfDraft.safeParse(typed);
  const design = read.success ? designed(proposed(read.data)) : null;
  const q = questions[typed.question];
  const chosen = plan.settings.find((s) => s.id === typed.settingId);
  const kind = chosen?.kind ?? typed.kind;
  const d = settingDefinitions[kind];
  const takeSetting = (id: string): void => {
    const s = plan.settings.find((x) => x.id === id);
    if (!s) return;
    form.setValue('from', s.now || s.came, { shouldDirty: true });
    form.setValue('to', settingDefinitions[s.kind].steps.find((x) => x !== (s.now || s.came)) ?? '', {
      shouldDirty: true,
    });
  };
  const takeKind = (k: SettingKind): void => {
    form.setValue('from', settingDefinitions[k].steps[0] ?? '', { shouldDirty: true });
    form.setValue('to', settingDefinitions[k].steps[1] ?? '', { shouldDirty: true });
  };
  const sheet = plan.settings.map((s) => ({ value: s.id, words: s.name }));
  const kinds = settingKinds.map((k) => ({ value: k, words: title(k) }));
  return (
    <DraftDialog title="What should it do better?" size="lg" draft={draft} onClose={onClose}>
      <Stack gap="4">
        <FormGrid>
          <Select
            label="Question"
            options={questionCodes.map((c) => ({ value: c, words: questionTitle(c) }))}
            help={`usually moved by: ${list(q.levers.map((l) => within(title(l))))} (common practice)`}
            {...form.register('question')}
          />
          <Select
            label="Setting that is changed"
            none="one that is not on the sheet"
            options={sheet}
            {...form.register('settingId', {
              onChange: (e: { target: { value: string } }) => takeSetting(e.target.value),
            })}
          />
          {typed.settingId === '' && (
            <Select
              label="Its kind"
              options={kinds}
              {...form.register('kind', {
                onChange: (e: { target: { value: SettingKind } }) => takeKind(e.target.value),
              })}
            />
          )}
          {typed.settingId === '' && kind === 'other' && (
            <Input label="Its name" error={errors.name?.message} {...form.register('name')} />
          )}
          <Input label="It stands at" data error={errors.from?.message} {...form.register('from')} />
          <Input
            label="Try"
            data
            help={
              typed.two
                ? 'one value'
                : `one value; or several with commas, for a ladder${d.steps.length > 0 ? `. In the trade: ${list(d.steps)}` : ''}`
            }
            error={errors.to?.message}
            {...form.register('to')}
          />
          <Input
            label={`A change that would matter${quantities[q.first].unit === '' ? '' : `, ${quantities[q.first].unit}`}`}
            data
            help={design ? `empty: ${figureWords(design.first, design.matters)}` : undefined}
            error={errors.matters?.message}
            {...form.register('matters')}
          />
          <Input
            label="Runs of each state"
            data
            help="empty: as many as are wanted"
            error={errors.runs?.message}
            {...form.register('runs')}
          />
          {q.settles && (
            <Input
              label="Let it settle, minutes"
              data
              help="empty: by its time constant"
              error={errors.settle?.message}
              {...form.register('settle')}
            />
          )}
          <Input
            label="Seed of the order"
            data
            help="the same seed gives the same order"
            error={errors.seed?.message}
            {...form.register('seed')}
          />
        </FormGrid>
        {d.caution !== '' && <Said kind="check">{d.caution}</Said>}
        {d.once && (
          <Said kind="check">
            It is done once: all runs before come first, and what else changes in the evening is in the
            difference.
          </Said>
        )}
        <Box>
          <TickField control={form.control} name="two">
            two settings at once, as a planned factorial
          </TickField>
          <Sub>
            One change at a time is the rule. All four states of two settings, in mixed order, tell what each
            does and whether they help each other: for those who know why.
          </Sub>
          {typed.two && (
            <FormGrid marginTop="2">
              <Select
                label="Second setting"
                none="one that is not on the sheet"
                options={sheet}
                error={errors.secondId?.message}
                {...form.register('secondId')}
              />
              {typed.secondId === '' && (
                <Select label="Kind of the second" options={kinds} {...form.register('secondKind')} />
              )}
              <Input
                label="The second stands at"
                data
                error={errors.secondFrom?.message}
                {...form.register('secondFrom')}
              />
              <Input
                label="Try for the second"
                data
                error={errors.secondTo?.message}
                {...form.register('secondTo')}
              />
            </FormGrid>
          )}
        </Box>
        {design && (
          <DesignLines design={design} settle={read.success ? read.data.settleSeconds : undefined} />
        )}
      </Stack>
    </DraftDialog>
  );
}

/** What was worked out: what is measured, how long, in which order, and how likely it is to see anything. */
function DesignLines({ design: d, settle }: { design: Design; settle: number | undefined }) {
  return (
    <Box as="section" aria-label="The plan">
      <Head marginBottom="1">The plan</Head>
      <Ruled dense silent label="The plan" heads={['What', 'How', 'Why']}>
        <Line>
          <LineHead>Decided by</LineHead>
          <Cell>
            {quantities[d.first].label}
            {d.beside.length > 0 && `; beside it ${list(d.beside.map((c) => within(quantities[c].label)))}`}
          </Cell>
        </Line>
        <Line>
          <LineHead>Each run</LineHead>
          <Cell>
            {d.settle &&
              `settle ${formatDuration(settle ?? d.settle.seconds)} (time constant ${formatDuration(d.settle.tau)}, ${groundWords(d.settle.ground)}), `}
            measure {formatDuration(d.measureSeconds)}
            {d.coolSeconds > 0 && `, cool ${formatDuration(d.coolSeconds)}`}
          </Cell>
        </Line>
        <Line>
          <LineHead>Order</LineHead>
          <Cell>
            {[...d.order].join(' ')}: {d.runs} of each
          </Cell>
        </Line>
        <Line>
          <LineHead>Chance</LineHead>
          <Cell>
            {capital(chanceWords(d))} Runs are taken to vary by {figureWords(d.first, d.spread.value)} (
            {groundWords(d.spread.ground)}).
          </Cell>
        </Line>
        <Line>
          <LineHead>Takes</LineHead>
          <Cell>{formatSpan(d.seconds)}</Cell>
        </Line>
      </Ruled>
    </Box>
  );
}
