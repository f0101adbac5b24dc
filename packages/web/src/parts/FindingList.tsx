import { Link } from 'react-router';
import type { RuleFinding } from '@zb/core/system/finding';
import type { Judgement } from '@zb/core/system/judge';
import { findingWords } from '@zb/core/words/fit/finding';

/** The deciding findings, what mends them, what to find out, and soft limits that can be set aside. */
export function FindingList({
  judged,
  onOverrule,
  onTakeBack,
  machineId,
}: {
  judged: Judgement;
  onOverrule: (finding: RuleFinding) => void;
  onTakeBack: (finding: RuleFinding) => void;
  machineId?: string;
}) {
  const aside = judged.all.filter((f) => f.overruled !== undefined);
  return (
    <>
      {judged.binding
        .slice(0, 4)
        .map((f) => ({ f, words: findingWords(f) }))
        .map(({ f, words }) => (
          <p key={f.rule + words.because} style={{ padding: '2px 0' }}>
            {words.because} {words.repair && <b>{words.repair}</b>}
            {f.soft && f.outcome === 'no' && (
              <>
                {' '}
                <span className="soft">A limit of the trade, not of the machine.</span>{' '}
                <button type="button" className="link" onClick={() => onOverrule(f)}>
                  Set it aside
                </button>
              </>
            )}
          </p>
        ))}
      {aside.map((f) => (
        <p key={`aside-${f.rule}`} style={{ padding: '2px 0' }}>
          {findingWords(f).because}{' '}
          <button type="button" className="link" onClick={() => onTakeBack(f)}>
            Let it count again
          </button>
        </p>
      ))}
      {judged.missing.length > 0 && (
        <div>
          <b>To find out:</b>
          <ul>
            {judged.missing.map((m) => (
              <li key={m.fact}>
                {m.ask}{' '}
                {machineId && (
                  <Link className="link" to={`/shelf/${machineId}`}>
                    answer
                  </Link>
                )}
              </li>
            ))}
          </ul>
          {judged.likely !== judged.verdict && (
            <p className="soft">If the assumed facts are true: {judged.likely}.</p>
          )}
        </div>
      )}
    </>
  );
}
