import { Box } from '@chakra-ui/react';
import type { ArmName, QuantityCode } from '@zb/core/model/tune';
import type { Outcome } from '@zb/core/tune/compare';
import { quantities } from '@zb/core/tune/quantities';
import { questions } from '@zb/core/tune/questions';
import { setsOf, type ExperimentResult, type ExperimentState } from '@zb/core/tune/results';
import {
  bareFigure,
  changeTitle,
  differenceWords,
  figureWords,
  judgedWords,
  methodWords,
  roomWords,
  outcomeWords,
  stateTitle,
} from '@zb/core/words/tune';
import { within } from '@zb/core/words/text';
import { Word } from '../../ui/Button';
import { VerdictMark, type MarkKind } from '../../ui/Marks';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Head, Sub } from '../../ui/Words';

const MARK: Record<Outcome, MarkKind> = {
  better: 'yes',
  worse: 'no',
  'no difference': 'change',
  'no difference seen': 'ask',
  'cannot say': 'ask',
};

/** Every state with its figures, and what the change did: each against the first. */
export function Effects({
  state,
  result,
  taken,
  onTake,
}: {
  state: ExperimentState;
  result: ExperimentResult | null;
  taken: ArmName | null;
  onTake: (arm: ArmName) => void;
}) {
  const { experiment: e, arms, changes } = state;
  const q = questions[e.question];
  const shown = [q.first, ...q.beside].filter((c) => arms.some((a) => a.values[c])).slice(0, 4);
  const heads: QuantityCode[] = shown.length > 0 ? shown : [q.first];
  return (
    <Box as="section" aria-label="What each change did">
      <Ruled
        stacked
        label="What each change did"
        heads={[
          'Changed, one at a time',
          { words: 'Runs', figure: true },
          ...heads.map((c) => ({
            words:
              quantities[c].unit === ''
                ? quantities[c].label
                : `${quantities[c].label}, ${quantities[c].unit}`,
            figure: true,
          })),
          'What it did',
        ]}
      >
        {arms.map((a) => {
          const said = result?.comparisons.filter((c) => c.arm === a.arm) ?? [];
          const title =
            a.arm === 'A' ? stateTitle(state, a.arm) : changeTitle(changes, setsOf(state, 'A'), a.sets);
          return (
            <Line key={a.arm} here={a.arm === taken}>
              <LineHead>
                <Word onClick={() => onTake(a.arm)} aria-pressed={a.arm === taken}>
                  {title}
                </Word>
                <Sub>
                  {a.arm === 'A' ? 'as it was' : ''}
                  {e.kept === a.arm ? `${a.arm === 'A' ? ', ' : ''}kept` : ''}
                </Sub>
              </LineHead>
              <Num>
                <Box as="span" hideFrom="md" textStyle="small">
                  Runs{' '}
                </Box>
                {a.counted.length}
                {a.counted.length < a.runs.length ? ` of ${a.runs.length}` : ''}
              </Num>
              {heads.map((c) => {
                const v = a.values[c];
                return (
                  <Num key={c}>
                    <Box as="span" hideFrom="md" textStyle="small">
                      {quantities[c].label}{' '}
                    </Box>
                    {v ? (
                      <>
                        {bareFigure(c, v.mean)}
                        <Box as="span" hideFrom="md">
                          {quantities[c].unit === 'bytes/s' ? '' : ` ${quantities[c].unit}`}
                        </Box>
                      </>
                    ) : (
                      '–'
                    )}
                  </Num>
                );
              })}
              <Cell>
                {a.arm === 'A'
                  ? '–'
                  : said.map((c) => (
                      <Box key={c.quantity} marginBottom="1">
                        <VerdictMark kind={MARK[c.judged.outcome]}>
                          {outcomeWords(c.quantity, c.judged.outcome)}
                        </VerdictMark>
                        <Sub>
                          {differenceWords(c.quantity, c.judged)}
                          {`, ${within(quantities[c.quantity].label)}`}
                          {judgedWords(c.quantity, c.judged) === ''
                            ? ''
                            : `. ${judgedWords(c.quantity, c.judged)}`}
                        </Sub>
                      </Box>
                    ))}
              </Cell>
            </Line>
          );
        })}
      </Ruled>
      {result && result.comparisons.length > 0 && (
        <Sub marginTop="1">{methodWords(result.comparisons.map((c) => c.judged))}</Sub>
      )}
      {state.room.of > 0 && <Sub>{roomWords(state.room)}</Sub>}
      {result?.effects && (
        <Box marginTop="4" as="section" aria-label="Effects of both settings">
          <Head marginBottom="1">What each setting does by itself, and both together</Head>
          <Ruled
            dense
            label="Effects of both settings"
            heads={['Setting', { words: quantities[state.first].label, figure: true }, 'At 95 %', 'Sure']}
          >
            {result.effects.map((f) => (
              <Line key={f.of}>
                <LineHead>
                  {f.of === 'both together'
                    ? 'Both, beyond each by itself'
                    : (changes[f.of === 'first' ? 0 : 1]?.name ?? f.of)}
                </LineHead>
                <Num>{figureWords(state.first, f.change, true)}</Num>
                <Num>
                  {bareFigure(state.first, f.low)} to {bareFigure(state.first, f.high)}
                </Num>
                <Cell>
                  <VerdictMark kind={f.corrected <= 0.05 ? 'yes' : 'ask'}>
                    {f.corrected <= 0.05 ? 'seen' : 'not seen'}
                  </VerdictMark>
                </Cell>
              </Line>
            ))}
          </Ruled>
        </Box>
      )}
    </Box>
  );
}
