import type { RuleFinding } from '@zb/core/system/finding';
import type { Judgement } from '@zb/core/system/judge';
import { findingWords } from '@zb/core/words/fit/finding';
import { Mark, type MarkKind } from './Marks';

const RULE_MARK: Record<RuleFinding['outcome'], { kind: MarkKind; word: string }> = {
  meets: { kind: 'yes', word: 'holds' },
  change: { kind: 'change', word: 'needs a change' },
  ask: { kind: 'ask', word: 'not known' },
  no: { kind: 'no', word: 'fails' },
};

/** Every rule with its outcome, reason and margin: the full reasoning behind a verdict. */
export function RuleTable({ judged }: { judged: Judgement }) {
  return (
    <details className="why">
      <summary>All {judged.all.length} rules, with their margins</summary>
      <table className="t rules">
        <tbody>
          {judged.all
            .map((f) => ({ f, words: findingWords(f) }))
            .map(({ f, words }) => (
              <tr key={f.rule + words.because}>
                <th scope="row">
                  {f.rule}
                  <Mark kind={RULE_MARK[f.outcome].kind}>{RULE_MARK[f.outcome].word}</Mark>
                </th>
                <td>
                  {words.because}
                  {words.margin && <span className="sub m">{words.margin}</span>}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
    </details>
  );
}
