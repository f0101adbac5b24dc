import { Stack } from '@chakra-ui/react';
import { Link } from 'react-router';
import { forgetAttempts } from '@zb/core/acts/practice';
import type { Attempt } from '@zb/core/model/practice';
import { stopTitle } from '@zb/core/model/stops';
import { exercises } from '@zb/core/practice/exercises';
import { ownId } from '@zb/core/practice/own';
import { progressOf, recordOf } from '@zb/core/practice/record';
import { goals } from '@zb/core/words/practice/goals';
import { attemptWords, practiceHeadline } from '@zb/core/words/practice/record';
import { BenchLedger } from '../../parts/BenchLedger';
import { Sheet } from '../../parts/Sheet';
import { useAct, useBench } from '../../storage/hooks';
import { Primary, Quiet } from '../../ui/Button';
import { Moment } from '../../ui/Moment';
import { VerdictMark } from '../../ui/Marks';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { To } from '../../ui/To';
import { Head, Soft } from '../../ui/Words';

const pathTo = (id: string): string => `/practice/${encodeURIComponent(id)}`;

/** How the last attempt ended, which can be told again. */
function Last({ attempt, path }: { attempt: Attempt | null; path: string }) {
  if (!attempt) return <Soft>not tried</Soft>;
  return (
    <>
      <To to={`${path}?attempt=${attempt.id}`}>{attemptWords(attempt)}</To>, <Moment at={attempt.at} />
    </>
  );
}

/** Everything that can be practised, and how one gets on. */
export default function PracticePage() {
  const bench = useBench();
  const act = useAct();
  const record = recordOf(bench.attempts);
  const progress = progressOf(bench.attempts, record);
  const shown = exercises.map((e) => ({
    id: e.id,
    stop: stopTitle[e.stop],
    title: goals[e.id]?.title ?? e.id,
    goal: goals[e.id]?.goal ?? '',
  }));
  return (
    <>
      <Sheet
        title="Practice"
        mid="on machines that are made up: nothing real is at risk"
        headline={practiceHeadline(progress)}
        foot={
          <>
            {progress.next !== null && (
              <Primary asChild>
                <Link to={pathTo(progress.next)}>Take: {goals[progress.next]?.title}</Link>
              </Primary>
            )}
            {bench.attempts.length > 0 && (
              <Quiet onClick={() => void act(forgetAttempts(bench.attempts))}>Strike the record out</Quiet>
            )}
          </>
        }
      >
        <Stack gap="5">
          <Ruled
            dense
            stacked
            label="Exercises"
            heads={[
              'Exercise',
              'Stop',
              { words: 'Tries', figure: true },
              { words: 'Best', figure: true },
              'Last',
            ]}
          >
            {shown.map((e) => {
              const of = record.get(e.id);
              return (
                <Line key={e.id} here={e.id === progress.next}>
                  <LineHead>
                    <To to={pathTo(e.id)} title={e.goal}>
                      {e.title}
                    </To>
                  </LineHead>
                  <Cell>{e.stop}</Cell>
                  <Num>{of?.tries ?? 0}</Num>
                  <Num>
                    {of?.best == null ? (
                      '–'
                    ) : of.clean > 0 ? (
                      <VerdictMark kind="yes">{of.best}</VerdictMark>
                    ) : (
                      of.best
                    )}
                  </Num>
                  <Cell>
                    <Last attempt={of?.last ?? null} path={pathTo(e.id)} />
                  </Cell>
                </Line>
              );
            })}
          </Ruled>
          {bench.boxes.length > 0 && (
            <Stack gap="1.5">
              <Head>What could go wrong with mine</Head>
              <Ruled dense stacked label="Made from your boxes" heads={['Box', 'Last']}>
                {bench.boxes.map((b) => (
                  <Line key={b.id}>
                    <LineHead>
                      <To to={pathTo(ownId(b.id))}>{b.name}</To>
                    </LineHead>
                    <Cell>
                      <Last attempt={record.get(ownId(b.id))?.last ?? null} path={pathTo(ownId(b.id))} />
                    </Cell>
                  </Line>
                ))}
              </Ruled>
            </Stack>
          )}
        </Stack>
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
