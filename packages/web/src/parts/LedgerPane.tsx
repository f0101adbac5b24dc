import type { ReactNode } from 'react';
import type { LedgerLine } from '@zb/core/box/stopModule';
import type { Summary } from '@zb/core/box/summary';
import { hazardWords } from '@zb/core/words/hazard';
import { Grade } from './Marks';

export function LedgerGroup({
  title,
  count,
  children,
}: {
  title: string;
  count?: ReactNode;
  children: ReactNode;
}) {
  return (
    <section className="led">
      <h2 className="h6">
        <span>{title}</span>
        <span>{count}</span>
      </h2>
      {children}
    </section>
  );
}

export const LedgerAside = ({ children, label = 'Ledger' }: { children: ReactNode; label?: string }) => (
  <aside className="ledger" aria-label={label} tabIndex={0}>
    {children}
  </aside>
);

/** A figure that opens to where it came from. */
export const LedgerRow = ({ line }: { line: LedgerLine }) => (
  <details>
    <summary>
      <span className="row">
        <span>{line.label}</span>
        <span className="m">{line.value}</span>
      </span>
    </summary>
    <p>{line.because}</p>
  </details>
);

/** The ledger of a box: all of it comes from core; this only sets it out. */
export function BoxLedger({ ledger }: { ledger: Summary }) {
  const count = (g: string): number => ledger.hazards.filter((h) => h.grade === g).length;
  return (
    <LedgerAside>
      <LedgerGroup
        title="Hazards"
        count={
          <span title="Stop · Check · Note">{`${count('stop')} · ${count('check')} · ${count('note')}`}</span>
        }
      >
        {ledger.hazards.length === 0 && <p className="soft">None known.</p>}
        {ledger.hazards.map((h) => (
          <div className="hz" key={hazardWords(h)}>
            <Grade grade={h.grade} />
            <span>{hazardWords(h)}</span>
          </div>
        ))}
      </LedgerGroup>
      <LedgerGroup title="Time to a finished box">
        {ledger.times.map((line) => (
          <LedgerRow key={line.label} line={line} />
        ))}
      </LedgerGroup>
      <LedgerGroup title="Bytes at risk">
        {ledger.bytesAtRisk.map((line) => (
          <LedgerRow key={line.label} line={line} />
        ))}
      </LedgerGroup>
      <LedgerGroup title="Open questions" count={ledger.questions.length}>
        {ledger.questions.length === 0 ? (
          <p className="soft">None.</p>
        ) : (
          ledger.questions.map((q) => <p key={q}>{q}</p>)
        )}
      </LedgerGroup>
    </LedgerAside>
  );
}
