import { HStack, Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { z } from 'zod';
import { doneChore, setChore } from '@zb/core/acts/keep';
import { isDue, type Chore } from '@zb/core/keeping/chores';
import type { Bench, Box } from '@zb/core/model/bench';
import { choreHow, choreTitle, dueWords, everyWords, keepCalendar } from '@zb/core/words/keep';
import { formatDay } from '@zb/core/units/date';
import { checked } from '../../parts/checked';
import { DraftDialog, useActAndClose } from '../../parts/DraftDialog';
import { useDraftForm } from '../../parts/useDraftForm';
import { download, fileName } from '../../storage/download';
import { stamp, useAct } from '../../storage/hooks';
import { Quiet, Word } from '../../ui/Button';
import { Input } from '../../ui/Input';
import { VerdictMark } from '../../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Sub } from '../../ui/Words';

const often = z.object({
  days: z
    .string()
    .trim()
    .regex(/^\d{0,4}$/, 'Whole days; leave it empty for what is usual.'),
});

/** How often something is done here. */
function HowOften({ box, chore, onClose }: { box: Box; chore: Chore; onClose: () => void }) {
  const keep = useActAndClose(onClose);
  const draft = useDraftForm({
    values: { days: chore.everyDays === null ? '' : String(chore.everyDays) },
    resolver: checked(often),
    draft: `how often ${box.id} ${chore.key}`,
    ask: false,
    save: ({ days }) =>
      keep(
        setChore(box, chore, {
          everyDays: Number(days) === 0 ? null : Math.min(3650, Number(days)),
          off: false,
        }),
      ),
  });
  return (
    <DraftDialog
      title={choreTitle(chore)}
      draft={draft}
      remove={{
        words: 'Not done here',
        act: () => void keep(setChore(box, chore, { everyDays: null, off: true })),
      }}
      onClose={onClose}
    >
      <Text>{choreHow(chore.code)}</Text>
      <Input
        label="Every so many days"
        help={chore.usualDays === null ? 'Not usual for such a box.' : `Usual: ${chore.usualDays}.`}
        data
        inputMode="numeric"
        error={draft.form.formState.errors.days?.message}
        {...draft.form.register('days')}
      />
    </DraftDialog>
  );
}

/** What comes round for a box: when it is due, when it was last done, how often. */
export function ComesRound({
  bench,
  box,
  chores,
  today,
}: {
  bench: Bench;
  box: Box;
  chores: readonly Chore[];
  today: string;
}) {
  const act = useAct();
  const [asked, setAsked] = useState<Chore | null>(null);
  return (
    <Stack gap="3">
      <Ruled
        stacked
        dense
        label="What comes round"
        heads={['What', 'Due', 'Last', 'How often', { words: 'Done', silent: true }]}
      >
        {chores.map((c) => (
          <Line key={c.key} here={isDue(c)}>
            <LineHead whole>
              {choreTitle(c)}
              <Sub>{choreHow(c.code)}</Sub>
            </LineHead>
            <Cell whiteSpace="nowrap">
              {isDue(c) ? <VerdictMark kind="ask">{dueWords(c)}</VerdictMark> : dueWords(c)}
            </Cell>
            <Cell whiteSpace="nowrap">{c.last === null ? '–' : formatDay(c.last)}</Cell>
            <Cell whiteSpace="nowrap">
              {c.everyDays === null && !c.off ? (
                everyWords(c)
              ) : (
                <Word
                  whiteSpace="nowrap"
                  onClick={() => setAsked(c)}
                  aria-label={`${everyWords(c)}: ${choreTitle(c)}`}
                >
                  {everyWords(c)}
                </Word>
              )}
            </Cell>
            <Cell>
              {!c.off && (
                <Quiet
                  aria-label={`Done today: ${choreTitle(c)}`}
                  onClick={() => void act(doneChore(box, c, today, stamp()))}
                >
                  Done today
                </Quiet>
              )}
            </Cell>
          </Line>
        ))}
      </Ruled>
      <HStack gap="3">
        <Quiet
          onClick={() =>
            download(
              fileName(box.name, 'ics'),
              keepCalendar(bench, [box], today, new Date().toISOString()),
              'text/calendar',
            )
          }
        >
          Save as a calendar
        </Quiet>
        <Sub>How often is common practice where nobody decided otherwise.</Sub>
      </HStack>
      {asked && <HowOften box={box} chore={asked} onClose={() => setAsked(null)} />}
    </Stack>
  );
}
