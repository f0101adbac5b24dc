import { Box } from '@chakra-ui/react';
import type { RuleFinding } from '@zb/core/system/finding';
import type { Judgement } from '@zb/core/system/judge';
import { findingWords } from '@zb/core/words/fit/finding';
import { Fold } from '../ui/Fold';
import { VerdictMark, type MarkKind } from '../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../ui/Ruled';
import { Sub } from '../ui/Words';

const RULE_MARK: Record<RuleFinding['outcome'], { kind: MarkKind; word: string }> = {
  meets: { kind: 'yes', word: 'holds' },
  change: { kind: 'change', word: 'needs a change' },
  ask: { kind: 'ask', word: 'not known' },
  no: { kind: 'no', word: 'fails' },
};

/** Every rule with its outcome, reason and margin: the full reasoning behind a verdict. */
export function RuleTable({ judged }: { judged: Judgement }) {
  return (
    <Fold title={`All ${judged.all.length} rules, with their margins`}>
      <Box css={{ fontSize: '12.5px' }}>
        <Ruled dense label="All rules" heads={['Rule', 'Because']} silent>
          {judged.all
            .map((f) => ({ f, words: findingWords(f) }))
            .map(({ f, words }) => (
              <Line key={f.rule + words.because}>
                <LineHead fontSize="small" css={{ width: '34%' }}>
                  {f.rule}
                  <VerdictMark kind={RULE_MARK[f.outcome].kind} display="flex">
                    {RULE_MARK[f.outcome].word}
                  </VerdictMark>
                </LineHead>
                <Cell fontSize="small">
                  {words.because}
                  {words.margin && <Sub>{words.margin}</Sub>}
                </Cell>
              </Line>
            ))}
        </Ruled>
      </Box>
    </Fold>
  );
}
