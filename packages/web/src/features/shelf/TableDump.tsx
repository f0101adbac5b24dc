import { useState } from 'react';
import { DumpError } from '@zb/core/formats/sfdiskDump';
import { contentFromDump } from '@zb/core/machine/dumped';
import type { Content } from '@zb/core/model/content';
import { Quiet } from '../../ui/Button';
import { stamp } from '../../storage/hooks';

/** What lies on a drive, taken over from the dump of its partition table that a person pastes. */
export function TableDump({
  content,
  onContent,
}: {
  content: Content | null;
  onContent: (content: Content) => void;
}) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const take = (): void => {
    try {
      onContent(contentFromDump(text, content, stamp().now));
      setText('');
      setProblem('');
    } catch (error) {
      if (!(error instanceof DumpError)) throw error;
      setProblem(error.message);
    }
  };
  return (
    <details className="why">
      <summary>From a dump of its table</summary>
      <div className="stack" style={{ gap: 6 }}>
        <label className="field">
          <span>
            What <code>sfdisk --dump</code> prints
          </span>
          <textarea
            className="in mono"
            rows={6}
            spellCheck={false}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
        {problem !== '' && (
          <p className="said said-stop" role="alert">
            {problem}
          </p>
        )}
        <div>
          <Quiet disabled={text.trim() === ''} onClick={take}>
            Take the parts over
          </Quiet>
        </div>
      </div>
    </details>
  );
}
