import type { ReactNode } from 'react';
import type { FitVerdict } from '@zb/core/system/judge';

/** A mark is a shape and a word together; neither stands alone. */
export type MarkKind = 'yes' | 'no' | 'ask' | 'change' | 'stop';

export function Mark({ kind, children }: { kind: MarkKind; children: ReactNode }) {
  return (
    <span className={`v v-${kind}`}>
      <i aria-hidden="true" />
      {children}
    </span>
  );
}

const VERDICT: Record<FitVerdict, { kind: MarkKind; word: string; short: string }> = {
  fits: { kind: 'yes', word: 'fits', short: 'fits' },
  'fits after a change': { kind: 'change', word: 'after a change', short: 'change' },
  'cannot say yet': { kind: 'ask', word: 'cannot say yet', short: 'ask' },
  'does not fit': { kind: 'no', word: 'does not fit', short: 'no' },
};

/** Shape and short word of a verdict for a crossing; a crossing without a system has none. */
export const verdictMark = (verdict: FitVerdict | undefined): { kind: MarkKind; short: string } =>
  verdict === undefined ? { kind: 'no', short: 'none' } : VERDICT[verdict];

export const VerdictMark = ({ verdict }: { verdict: FitVerdict }) => (
  <Mark kind={VERDICT[verdict].kind}>{VERDICT[verdict].word}</Mark>
);

export const Grade = ({ grade }: { grade: 'stop' | 'check' | 'note' }) => (
  <span className={`g g-${grade}`}>{grade === 'stop' ? 'Stop' : grade === 'check' ? 'Check' : 'Note'}</span>
);

export const Stamp = ({
  kind = 'good',
  children,
}: {
  kind?: 'good' | 'stop' | 'check';
  children: ReactNode;
}) => <span className={kind === 'good' ? 'stamp' : `stamp stamp-${kind}`}>{children}</span>;
