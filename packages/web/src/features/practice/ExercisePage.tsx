import { Box, Grid, HStack, Stack, Text } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { findBox } from '@zb/core/model/bench';
import { practiceSeedSchema, type Attempt } from '@zb/core/model/practice';
import { stopTitle, type Stop } from '@zb/core/model/stops';
import { findExercise } from '@zb/core/practice/exercises';
import { ownExercise, ownId, ownSetup, type OwnSetup } from '@zb/core/practice/own';
import { HINT, type Played } from '@zb/core/practice/play';
import type { Panel } from '@zb/core/practice/scene';
import { COSTS } from '@zb/core/practice/tale';
import { goals, ownGoal, type ExerciseWords } from '@zb/core/words/practice/goals';
import { noExerciseWords } from '@zb/core/words/practice/own';
import { hintWords } from '@zb/core/words/practice/say';
import { LedgerAside, LedgerGroup, LedgerPair } from '../../parts/LedgerPane';
import NotFound from '../../parts/NotFound';
import { Sheet } from '../../parts/Sheet';
import { useBench } from '../../storage/hooks';
import { recall, remember } from '../../storage/remembered';
import { Fold } from '../../ui/Fold';
import { Primary, Quiet } from '../../ui/Button';
import { Stamp } from '../../ui/Marks';
import { Said } from '../../ui/Said';
import { Segments } from '../../ui/Segments';
import { To } from '../../ui/To';
import { Soft, Sub } from '../../ui/Words';
import { MachinePanel } from './MachinePanel';
import { PanelView } from './Panels';
import { Rehearsed } from './Rehearsed';
import { Told } from './Told';
import { PACES, useExercise, usePlayed, type Pace } from './useExercise';

const PACE_PLACE = 'zb-practice-pace';
const paceKept = (): Pace => {
  const kept = recall(PACE_PLACE);
  return kept !== null && kept in PACES ? (kept as Pace) : 'as it is';
};

/** An exercise as it is worked on: its id, what it is made of, and its words. */
interface Made {
  id: string;
  of: string | OwnSetup;
  boxId: string | null;
  words: ExerciseWords;
  at: Stop;
}

/** One exercise, worked through; or an attempt at it, told again. */
export default function ExercisePage() {
  const { exerciseId = '' } = useParams();
  const [search] = useSearchParams();
  const bench = useBench();
  const boxId = exerciseId.startsWith('own:') ? exerciseId.slice(4) : null;
  const box = findBox(bench, boxId ?? undefined);
  const shipped = findExercise(exerciseId);
  const [own] = useState(() => (box ? ownSetup(bench, box) : null));
  const attempt = bench.attempts.find((a) => a.id === search.get('attempt'));
  const wanted = Number(search.get('seed') ?? NaN);
  const seedWanted = practiceSeedSchema.safeParse(wanted).data ?? null;
  if (boxId !== null && own && 'code' in own)
    return (
      <Sheet title="Practice" headline="There is no exercise in this box">
        <Said kind="check">{noExerciseWords(own)}</Said>
        <To to="/practice">Back to the exercises</To>
      </Sheet>
    );
  const made: Made | null = shipped
    ? {
        id: shipped.id,
        of: shipped.id,
        boxId: null,
        words: goals[shipped.id] ?? ownGoal(shipped.id),
        at: shipped.stop,
      }
    : own && box && !('code' in own)
      ? { id: ownId(box.id), of: own, boxId: box.id, words: ownGoal(box.name), at: 'install' }
      : null;
  if (!made) return <NotFound what="There is no such exercise" />;
  return attempt ? (
    <Again key={attempt.id} made={made} attempt={attempt} />
  ) : (
    <Work key={made.id} made={made} seedWanted={seedWanted} />
  );
}

const scoreLines = (played: Played): [string, string][] => [
  ['Score', `${played.score} of 100`],
  ['Minutes of its evening', String(played.minute)],
  ['Faults and slips', String(played.faults)],
  ['Hints', String(played.hints.length)],
];

/** What the real sheets say beside it: the rehearsal of its machine, and the stop of one’s own boxes. */
function RealSheets({ made, seed }: { made: Made; seed: number }) {
  const bench = useBench();
  const plan = useMemo(() => {
    const exercise = typeof made.of === 'string' ? findExercise(made.of) : ownExercise(made.of);
    return exercise?.plan?.(seed) ?? null;
  }, [made, seed]);
  const [first] = bench.boxes;
  const boxId = made.boxId ?? first?.id;
  return (
    <LedgerGroup title="The real sheets">
      {plan && (
        <Fold title="Its rehearsal">
          <Rehearsed plan={plan} />
        </Fold>
      )}
      {boxId !== undefined && (
        <Text>
          <To to={`/box/${boxId}/${made.at}`} target="_blank">
            {stopTitle[made.at]} of {findBox(bench, boxId)?.name}
          </To>
          , in a window beside this one
        </Text>
      )}
      {made.boxId !== null && <To to={`/box/${made.boxId}/install/rehearsal`}>All scenarios of this plan</To>}
    </LedgerGroup>
  );
}

function Margin({
  made,
  played,
  seed,
  newestFirst,
}: {
  made: Made;
  played: Played | null;
  seed: number;
  newestFirst: boolean;
}) {
  return (
    <LedgerAside label="Exercise">
      <LedgerGroup title="So far">
        {played && scoreLines(played).map(([what, is]) => <LedgerPair key={what} what={what} is={is} />)}
      </LedgerGroup>
      <LedgerGroup title="Reel" count={played?.happened.length ?? 0}>
        {played && <Told exercise={made.id} happened={played.happened} newestFirst={newestFirst} />}
      </LedgerGroup>
      <LedgerGroup title="What it is for">
        <span>{made.words.lesson}</span>
      </LedgerGroup>
      <RealSheets made={made} seed={seed} />
    </LedgerAside>
  );
}

/** How it ended, and what it cost; `whole`: all that happened stands below it anyway. */
function Ending({ exercise, played, whole = false }: { exercise: string; played: Played; whole?: boolean }) {
  if (played.end === null) return null;
  const clean = played.score === 100;
  const cost = played.happened.filter((h) => COSTS[h.grade] > 0);
  return (
    <Stack gap="2">
      <Box>
        <Stamp kind={played.end === 'lost' ? 'stop' : clean ? 'good' : 'check'}>
          {played.end === 'lost' ? 'Lost' : clean ? 'Without a fault' : 'Done'}, {played.score}
        </Stamp>
      </Box>
      {cost.length > 0 && !whole && <Told exercise={exercise} happened={cost} />}
    </Stack>
  );
}

/** What stands before whoever practises: the machine first, the note and the drives beside it. */
function Ground({
  made,
  played,
  take,
  byHand,
}: {
  made: Made;
  played: Played;
  take: Parameters<typeof PanelView>[0]['take'];
  byHand: boolean;
}) {
  const stands = (p: Panel): p is Extract<Panel, { kind: 'machine' | 'table' }> =>
    p.kind === 'machine' || p.kind === 'table';
  const at = { exercise: made.id, take };
  const main = played.panels
    .filter(stands)
    .map((p, i) =>
      p.kind === 'machine' ? (
        <MachinePanel key={i} panel={p} byHand={byHand} {...at} />
      ) : (
        <PanelView key={i} panel={p} {...at} />
      ),
    );
  const aside = played.panels.map((p, i) => (stands(p) ? null : <PanelView key={i} panel={p} {...at} />));
  // With nothing left to do on it, it can still be reached and scrolled by keys.
  const still = take ? {} : { role: 'group', 'aria-label': 'How it stood at the end', tabIndex: 0 };
  // Where nothing is drawn the tables take the whole width, under the note.
  if (!played.panels.some((p) => p.kind === 'drives'))
    return (
      <Stack gap="4" {...still}>
        {aside}
        {main}
      </Stack>
    );
  return (
    <Grid
      templateColumns={{ base: 'minmax(0, 1fr)', xl: 'minmax(0, 1fr) 256px' }}
      gap="4"
      alignItems="start"
      {...still}
    >
      <Stack gap="4">{main}</Stack>
      <Stack gap="4">{aside}</Stack>
    </Grid>
  );
}

function Work({ made, seedWanted }: { made: Made; seedWanted: number | null }) {
  const [pace, setPace] = useState<Pace>(paceKept);
  const { played, seed, take, again } = useExercise({
    id: made.id,
    title: made.words.title,
    of: made.of,
    boxId: made.boxId,
    seedWanted,
    pace,
  });
  const over = played !== null && played.end !== null;
  const machine = played?.panels.some((p) => p.kind === 'machine') === true;
  const lastHint = played?.hints.at(-1);
  return (
    <>
      <Sheet
        title={made.words.title}
        mid={stopTitle[made.at]}
        right={`seed ${seed}`}
        headline={made.words.goal}
        foot={
          over ? (
            <>
              <Primary onClick={() => again()}>Again, drawn anew</Primary>
              <Quiet onClick={() => again(seed)}>Again, the same</Quiet>
              <To to="/practice">All exercises</To>
            </>
          ) : (
            <>
              <Quiet onClick={() => take(HINT)}>A hint, for 4 of 100</Quiet>
              <Quiet onClick={() => again()}>Draw another</Quiet>
              <To to="/practice">All exercises</To>
            </>
          )
        }
      >
        <Stack gap="3">
          {machine && !over && (
            <HStack gap="3">
              <Sub>Time goes by</Sub>
              <Segments
                label="How time goes by"
                options={Object.keys(PACES) as Pace[]}
                value={pace}
                onTake={(p) => {
                  setPace(p);
                  remember(PACE_PLACE, p);
                }}
              />
            </HStack>
          )}
          {over && <Ending exercise={made.id} played={played} />}
          {!over && lastHint && <Said>{hintWords(made.id, lastHint)}</Said>}
          {played ? (
            <Ground made={made} played={played} take={over ? null : take} byHand={pace === 'by hand'} />
          ) : (
            <Soft>Being drawn…</Soft>
          )}
        </Stack>
      </Sheet>
      <Margin made={made} played={played} seed={seed} newestFirst={!over} />
    </>
  );
}

/** An attempt told again: how it stood at its end, and all that happened. */
function Again({ made, attempt }: { made: Made; attempt: Attempt }) {
  const { played, kept } = usePlayed(made.of, attempt.seed, attempt.acts);
  return (
    <>
      <Sheet
        title={made.words.title}
        mid="told again"
        right={`seed ${attempt.seed}`}
        headline={made.words.goal}
        foot={
          <>
            <To to={`/practice/${encodeURIComponent(made.id)}?seed=${attempt.seed}`}>The same once more</To>
            <To to="/practice">All exercises</To>
          </>
        }
      >
        <Stack gap="3">
          {kept !== null && kept < attempt.acts.length && (
            <Said kind="check">
              The exercise, or the box it was made from, is not what it was then. Its score stays on record:{' '}
              {attempt.score}.
            </Said>
          )}
          {played && <Ending whole exercise={made.id} played={played} />}
          {played && <Told exercise={made.id} happened={played.happened} />}
          {!played && <Soft>Being told…</Soft>}
        </Stack>
      </Sheet>
      <Margin made={made} played={played} seed={attempt.seed} newestFirst={false} />
    </>
  );
}
