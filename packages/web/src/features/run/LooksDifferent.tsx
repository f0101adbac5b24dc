import { Box, List, SimpleGrid, Stack, Text } from '@chakra-ui/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { noteDiagnosis } from '@zb/core/acts/run';
import { momentOf, type RunStep } from '@zb/core/box/runSheet';
import type { CauseCode } from '@zb/core/diagnose/causes';
import { looks, moments, seenAt, type Answered, type Moment, type Symptom } from '@zb/core/diagnose/codes';
import { suspectsOf, type BoxSuspect } from '@zb/core/diagnose/forBox';
import { nextLook, rank, type Ranked } from '@zb/core/diagnose/reason';
import { causeWords } from '@zb/core/words/diagnose/causes';
import { groundWords, lookWords, momentWords, symptomWords } from '@zb/core/words/diagnose/looks';
import { capital } from '@zb/core/words/text';
import type { BoxContext } from '../../parts/BoxFrame';
import { stamp, useAct } from '../../storage/hooks';
import { Primary, Quiet } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Cell, Num, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import { Acts, Head, Sub } from '../../ui/Words';
import { formatPercent } from '@zb/core/units/number';

/** So many causes are worth reading at the machine. */
const SHOWN = 5;

const percent = (share: number): string => (share < 0.01 ? 'under 1 %' : formatPercent(share));

/** The likeliest causes with their shares, and why each weighs as it does here. */
const Causes = ({
  ranked,
  suspects,
  onTake,
}: {
  ranked: readonly Ranked[];
  suspects: readonly BoxSuspect[];
  onTake: (cause: CauseCode) => void;
}) => (
  <Ruled
    label="What may be behind it"
    heads={['What may be behind it', { words: 'Share', figure: true }, { words: 'Take it', silent: true }]}
  >
    {ranked.slice(0, SHOWN).map(({ cause, share }) => {
      const grounds = suspects.find((s) => s.cause === cause)?.grounds ?? [];
      return (
        <Line key={cause}>
          <LineHead whole>
            {causeWords(cause).title}
            <Sub>
              {causeWords(cause).because}
              {grounds.length > 0 && ` Here: ${grounds.map(groundWords).join('; ')}.`}
            </Sub>
          </LineHead>
          <Num>{percent(share)}</Num>
          <Cell>
            <Quiet size="sm" onClick={() => onTake(cause)}>
              It is this
            </Quiet>
          </Cell>
        </Line>
      );
    })}
  </Ruled>
);

/** What mends a cause, and what is unharmed meanwhile. */
const Cure = ({ cause }: { cause: CauseCode }) => {
  const { title, because, cure, unharmed } = causeWords(cause);
  return (
    <Box as="section" aria-label="Most likely">
      <Text textStyle="title">{title}</Text>
      <Text marginTop="1">{because}</Text>
      <List.Root as="ol" listStyle="decimal" paddingInlineStart="6" marginBlock="2" gap="1">
        {cure.map((c) => (
          <List.Item key={c}>{c}</List.Item>
        ))}
      </List.Root>
      <Said title="Meanwhile:">{unharmed}</Said>
    </Box>
  );
};

/** It looks different: what is seen, the look that tells most, and so on until a cause is left with its cure. */
export function LooksDifferent({
  context: { bench, box },
  step,
  onClose,
}: {
  context: BoxContext;
  step: RunStep;
  onClose: () => void;
}) {
  const act = useAct();
  const [moment, setMoment] = useState<Moment>(() => momentOf(step));
  const [seen, setSeen] = useState<Symptom | null>(null);
  const [answered, setAnswered] = useState<Answered[]>([]);
  const suspects = useMemo(() => suspectsOf(bench, box, moment), [bench, box, moment]);
  const ranked = seen === null ? [] : rank(suspects, moment, [seen], answered);
  const next = seen === null ? null : nextLook(ranked, moment, answered);
  const [first] = ranked;
  // The answer that was pressed is gone with its question: who goes by keys, or hears the page, is at the next one.
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (seen !== null) place.current?.focus();
  }, [seen, answered.length]);
  const take = async (cause: CauseCode): Promise<void> => {
    if (seen === null) return;
    const kept = await act(noteDiagnosis(box, step, { moment, seen: [seen], answered, cause }, stamp()));
    if (kept) onClose();
  };
  return (
    <Dialog open onClose={onClose} title="It looks different" size="lg">
      {seen === null ? (
        <Stack gap="3">
          <Select
            label="When"
            value={moment}
            options={moments.map((m) => ({ value: m, words: capital(momentWords(m)) }))}
            onChange={(e) => setMoment(moments.find((m) => m === e.target.value) ?? moment)}
          />
          <Head as="h3">What do you see?</Head>
          <SimpleGrid columns={{ base: 1, md: 2 }} gap="2">
            {seenAt[moment].map((s) => (
              <Quiet
                key={s}
                size="lg"
                justifyContent="flex-start"
                whiteSpace="normal"
                textAlign="start"
                onClick={() => setSeen(s)}
              >
                {symptomWords(s)}
              </Quiet>
            ))}
          </SimpleGrid>
        </Stack>
      ) : (
        <Stack gap="4" ref={place} tabIndex={-1} outline="none">
          <Text>
            <b>{symptomWords(seen)}</b>, {momentWords(moment)}.
          </Text>
          {next ? (
            <Box as="section" aria-label="The next look">
              <Head as="h3">Look {answered.length + 1}: it tells most of them apart</Head>
              <Text textStyle="title" marginBlock="2">
                {lookWords(next.look)}
              </Text>
              <Acts>
                {looks[next.look].answers.map((answer) => (
                  <Quiet
                    key={answer}
                    size="lg"
                    onClick={() => setAnswered([...answered, { look: next.look, answer }])}
                  >
                    {capital(answer)}
                  </Quiet>
                ))}
                <Quiet
                  size="lg"
                  onClick={() => setAnswered([...answered, { look: next.look, answer: null }])}
                >
                  I cannot tell
                </Quiet>
              </Acts>
            </Box>
          ) : (
            first && (
              <>
                <Cure cause={first.cause} />
                <Acts>
                  <Primary size="lg" onClick={() => void take(first.cause)}>
                    Make its cure a step
                  </Primary>
                </Acts>
              </>
            )
          )}
          <Causes ranked={ranked} suspects={suspects} onTake={(c) => void take(c)} />
          {next && first && <Said title="Meanwhile:">{causeWords(first.cause).unharmed}</Said>}
          <Acts>
            <Quiet
              onClick={() => {
                if (answered.length > 0) setAnswered(answered.slice(0, -1));
                else setSeen(null);
              }}
            >
              Take the last answer back
            </Quiet>
          </Acts>
        </Stack>
      )}
    </Dialog>
  );
}
