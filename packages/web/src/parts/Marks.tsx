import type { FitVerdict } from '@zb/core/system/judge';
import { VerdictMark as Mark, type MarkKind } from '../ui/Marks';

const VERDICT: Record<FitVerdict, { kind: MarkKind; word: string; short: string }> = {
  fits: { kind: 'yes', word: 'fits', short: 'fits' },
  'fits after a change': { kind: 'change', word: 'after a change', short: 'change' },
  'cannot say yet': { kind: 'ask', word: 'cannot say yet', short: 'ask' },
  'does not fit': { kind: 'no', word: 'does not fit', short: 'no' },
};

/** Shape and short word of a verdict for a crossing; a crossing without a system has none. */
export const verdictMark = (verdict: FitVerdict | undefined): { kind: MarkKind; short: string } =>
  verdict === undefined ? { kind: 'no', short: 'none' } : VERDICT[verdict];

/** Does a system fit? */
export const FitMark = ({ verdict }: { verdict: FitVerdict }) => (
  <Mark kind={VERDICT[verdict].kind}>{VERDICT[verdict].word}</Mark>
);
