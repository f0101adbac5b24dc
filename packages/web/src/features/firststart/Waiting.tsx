import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { addRound, beginFirst, dropRound, firstAnswered } from '@zb/core/acts/firstStart';
import type { FirstLine } from '@zb/core/firststart/line';
import { blackUpTo } from '@zb/core/firststart/waiting';
import type { Box as Build, Profile } from '@zb/core/model/bench';
import type { FirstRecord } from '@zb/core/model/firstStart';
import { formatMoment } from '@zb/core/units/date';
import { formatDuration, formatSpan } from '@zb/core/units/duration';
import { blackWords, roundsWords } from '@zb/core/words/firstStart';
import { useState } from 'react';
import { useSince } from '../../parts/useSince';
import { stamp, useAct } from '../../storage/hooks';
import { Quiet, Word } from '../../ui/Button';
import { NumberField } from '../../ui/NumberField';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Acts, Data, Head, Sub } from '../../ui/Words';

/** The first start and its updates: how long they take, and how long they took. */
export function Waiting({
  box,
  profile,
  record,
  lines,
}: {
  box: Build;
  profile: Profile;
  record: FirstRecord;
  lines: readonly FirstLine[];
}) {
  const act = useAct();
  const running = record.began !== null && record.seconds === null;
  const since = useSince(running ? record.began : null) ?? 0;
  const [offered, setOffered] = useState('');
  const [round, setRound] = useState<string | null>(null);
  const roundSince = useSince(round) ?? 0;
  const foretold = lines.find((l) => l.code === 'first start')?.seconds;
  const count = /^\d{1,6}$/.test(offered.trim()) ? Number(offered) : null;
  const end = (n: number | null): void => {
    void act(addRound(box, n, round === null ? null : Math.round(roundSince), stamp()));
    setRound(null);
    setOffered('');
  };
  return (
    <Stack gap="4">
      <Box as="section" aria-label="The first start">
        <Head>The first start</Head>
        {record.seconds !== null ? (
          <Text>
            It took <Data>{formatDuration(record.seconds)}</Data>
            {foretold ? ', foretold ' : ''}
            {foretold && <Data>{formatSpan(foretold)}</Data>}.{' '}
            <Word onClick={() => void act(beginFirst(box, stamp()))}>Time it again</Word>
          </Text>
        ) : running ? (
          <>
            <HStack gap="3">
              <Data css={{ fontSize: '28px' }} aria-live="off">
                {formatDuration(since)}
              </Data>
              {foretold && <Sub>foretold {formatSpan(foretold)}</Sub>}
            </HStack>
            <Quiet onClick={() => void act(firstAnswered(box, stamp()))}>It answers</Quiet>
          </>
        ) : (
          <Acts>
            <Quiet onClick={() => void act(beginFirst(box, stamp()))}>I press the power button now</Quiet>
            {foretold && <Sub>foretold {formatSpan(foretold)}</Sub>}
          </Acts>
        )}
        <Sub>{blackWords(blackUpTo(profile.first))}</Sub>
      </Box>
      <Box as="section" aria-label="Updates">
        <Head>Updates, until nothing is offered</Head>
        <Text>{roundsWords(record.rounds, profile.first.rounds)}</Text>
        {record.rounds.length > 0 && (
          <Ruled
            label="Rounds"
            heads={['Round', 'When', { words: 'Offered', figure: true }, { words: 'Took', figure: true }]}
          >
            {record.rounds.map((r, i) => (
              <Line key={r.at}>
                <LineHead>{i + 1}</LineHead>
                <Cell>{formatMoment(r.at)}</Cell>
                <Num>{r.offered ?? 'not counted'}</Num>
                <Num>{r.seconds === null ? 'not timed' : formatDuration(r.seconds)}</Num>
              </Line>
            ))}
          </Ruled>
        )}
        <HStack gap="3" align="flex-end" flexWrap="wrap" marginTop="2">
          {round === null ? (
            <Quiet onClick={() => setRound(new Date().toISOString())}>A round begins</Quiet>
          ) : (
            <Data>{formatDuration(roundSince)}</Data>
          )}
          <Box css={{ width: '110px' }}>
            <NumberField label="Offered" min={0} value={offered} onValue={setOffered} />
          </Box>
          <Quiet onClick={() => end(count)}>Round done</Quiet>
          <Quiet onClick={() => end(0)}>Nothing is offered</Quiet>
          {record.rounds.length > 0 && (
            <Word onClick={() => void act(dropRound(box))}>Take the last back</Word>
          )}
        </HStack>
      </Box>
    </Stack>
  );
}
