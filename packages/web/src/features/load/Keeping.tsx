import { Box, HStack } from '@chakra-ui/react';
import { editPool } from '@zb/core/acts/storage';
import { judgedOn } from '@zb/core/box/today';
import type { Box as Build } from '@zb/core/model/bench';
import type { BoxPool } from '@zb/core/model/storage';
import {
  keepingDraftOf,
  keepingSchema,
  type Keeping as HowKept,
  type KeepingDraft,
} from '@zb/core/model/storageDraft';
import { snapshotRoom } from '@zb/core/storage/snapshots';
import { formatIec } from '@zb/core/units/bytes';
import { shareWords } from '@zb/core/words/poolFault';
import { checked } from '../../parts/checked';
import { DraftLines } from '../../parts/DraftLines';
import { useDraftForm } from '../../parts/useDraftForm';
import { saveDay } from '../../storage/calendar';
import { useAct } from '../../storage/hooks';
import { Primary, Quiet } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Input } from '../../ui/Input';
import { Head, Sub } from '../../ui/Words';

/** How the pool is kept: its name, how full it will be, snapshots, and the day on which everything is read through. */
export function Keeping({ box, pool, usable }: { box: Build; pool: BoxPool; usable: number }) {
  const act = useAct();
  const draft = useDraftForm<KeepingDraft, HowKept>({
    values: keepingDraftOf(pool),
    resolver: checked<KeepingDraft, HowKept>(keepingSchema),
    draft: `pool ${box.id}`,
    save: (how) => act(editPool(box, how, `How the pool of ${box.name} is kept`)),
  });
  const { form, submit } = draft;
  const { errors } = form.formState;
  const line = (label: string, key: keyof KeepingDraft, help?: string) => (
    <Input
      label={label}
      data
      {...(help === undefined ? {} : { help })}
      error={errors[key]?.message}
      {...form.register(key)}
    />
  );
  const snapshots = pool.snapshots && snapshotRoom(pool.snapshots, usable);
  const today = judgedOn();
  const read = (): void => {
    if (today !== undefined)
      void act(editPool(box, { scrubbed: today }, `The pool of ${box.name} was read through`));
  };
  return (
    <Box as="section" aria-label="How it is kept">
      <Head marginBottom="1">How it is kept</Head>
      <DraftLines of={draft} />
      <form onSubmit={(e) => void submit(e)}>
        <FormGrid>
          {line('Name', 'name', 'in commands and in /srv')}
          {line('How full it will be, per cent', 'filled', 'some ways make only that anew')}
          {line(
            'Read through every so many days',
            'scrubDays',
            'finds and mends what went bad; empty: never',
          )}
          {line('Last read through', 'scrubbed', 'year-month-day')}
          {line('A snapshot every so many hours', 'everyHours', 'empty: none')}
          {line('Snapshots reach back, days', 'keepDays')}
          {line(
            'Changes in a day',
            'changedPerDay',
            snapshots
              ? `${snapshots.count} snapshots take ${formatIec(snapshots.bytes)} at most, ${shareWords(snapshots.share)} of it`
              : 'what snapshots would keep',
          )}
        </FormGrid>
        <HStack gap="3" marginTop="3" flexWrap="wrap">
          <Primary type="submit">Save</Primary>
          {pool.scrubDays !== null && (
            <Quiet
              onClick={() =>
                void saveDay(`${box.name}: read the pool through`, today ?? '', pool.scrubDays ?? undefined)
              }
            >
              Into the calendar
            </Quiet>
          )}
          <Quiet onClick={read}>It was read through today</Quiet>
          <Sub>A snapshot is no copy: it lies on the same drives.</Sub>
        </HStack>
      </form>
    </Box>
  );
}
