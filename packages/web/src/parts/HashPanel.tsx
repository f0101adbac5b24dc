import { useState } from 'react';
import { groupedHex } from '@zb/core/checksum/compare';
import type { ImageItem } from '@zb/core/model/bench';
import { writtenBytes } from '@zb/core/model/written';
import { formatExact, formatIec } from '@zb/core/units/bytes';
import { formatDuration, formatRate } from '@zb/core/units/duration';
import { progress } from '@zb/core/units/progress';
import type { OpenImage } from '../workers/openImages';
import { Quiet } from '../ui/Button';
import { Stamp } from './Marks';
import { PickFile } from './PickFile';
import { readTextFile } from './textFile';

function Reading({ open, onCancel }: { open: OpenImage; onCancel: () => void }) {
  const { share, rate, left } = progress(open.done, open.file.size, open.seconds);
  return (
    <div className="stack" style={{ gap: 6 }}>
      <div
        className="bar"
        role="progressbar"
        aria-label="Reading the image"
        aria-valuenow={Math.round(share * 100)}
        aria-valuemin={0}
        aria-valuemax={100}
      >
        <i className="p-new" style={{ width: `${share * 100}%` }} />
      </div>
      <div className="row">
        <span className="m">
          {formatIec(open.done)} of {formatIec(open.file.size)} · {formatRate(rate)}
          {left !== undefined && ` · ${formatDuration(left)} left`}
        </span>
        <button type="button" className="link" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </div>
  );
}

/** Checks what was pasted or opened as a checksum list; the parent compares. */
function ListEntry({ onList }: { onList: (text: string, from: string) => string | null }) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const take = (value: string, from: string): void => setProblem(onList(value, from));
  const failed = (error: Error): void => setProblem(error.message);
  return (
    <div className="stack" style={{ gap: 6 }}>
      <div style={{ display: 'flex', gap: 8 }}>
        <input
          className="in mono"
          aria-label="Published checksum or list"
          placeholder="Paste the checksum"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && take(text, 'pasted')}
        />
        <Quiet onClick={() => take(text, 'pasted')} disabled={text.trim() === ''}>
          Compare
        </Quiet>
        <PickFile
          label="Open a list"
          onFile={(f) => void readTextFile(f, 'list').then((t) => take(t, f.name), failed)}
        />
      </div>
      {problem !== null && (
        <p className="said said-check" role="alert">
          {problem}
        </p>
      )}
    </div>
  );
}

const ALGORITHM = { sha256: 'SHA-256', sha512: 'SHA-512', sha1: 'SHA-1', md5: 'MD5' } as const;

/** Digest against what was published: progress while reading, then the stamp. */
export function HashPanel({
  open,
  image,
  onList,
  onCancel,
}: {
  open: OpenImage | undefined;
  image: ImageItem | undefined;
  onList: (text: string, from: string) => string | null;
  onCancel: () => void;
}) {
  if (open?.state === 'reading' || open?.state === 'digesting')
    return <Reading open={open} onCancel={onCancel} />;
  const comparison = image?.comparison ?? null;
  const shown = comparison && comparison.published !== '' ? comparison : null;
  const name = ALGORITHM[shown?.algorithm ?? 'sha256'];
  const computed = shown?.computed ?? image?.digests.sha256;
  return (
    <div className="stack" style={{ gap: 6 }}>
      <div className="row" style={{ alignItems: 'center' }}>
        <h2 className="h6">
          {shown
            ? `${name}${shown.of === 'content' ? ' of what is packed inside' : ''} against the published sum`
            : `${name} of this file`}
        </h2>
        {comparison?.verdict === 'same' && <Stamp>SAME FILE</Stamp>}
        {comparison?.verdict === 'differs' && <Stamp kind="stop">NOT THE SAME</Stamp>}
        {comparison?.verdict === 'other-size' && <Stamp kind="stop">ANOTHER SIZE</Stamp>}
        {comparison?.verdict === 'not-listed' && <Stamp kind="check">NOT LISTED</Stamp>}
      </div>
      {open?.state === 'cancelled' && (
        <p className="said said-check" role="alert">
          Cancelled after {formatIec(open.done)}. No checksum was kept; what the tables say stands below. Open
          the file again to read it whole.
        </p>
      )}
      {open?.state === 'failed' && (
        <p className="said said-stop" role="alert">
          {open.problem}
        </p>
      )}
      {computed !== undefined && (
        <div className="hash">
          {shown && (
            <>
              <span>published</span>
              <span>
                <mark className={shown.verdict === 'same' ? '' : 'bad'}>{groupedHex(shown.published)}</mark>
              </span>
            </>
          )}
          {(!shown || shown.verdict === 'differs') && (
            <>
              <span>{shown?.of === 'content' ? 'inside' : 'this file'}</span>
              <span>
                <mark className={shown ? 'bad' : 'plain'}>{groupedHex(computed)}</mark>
              </span>
            </>
          )}
        </div>
      )}
      {open?.state === 'done' && open.seconds > 0 && (
        <span className="sub">
          read in {formatDuration(open.seconds)}
          {open.file.size > 0 &&
            ` at ${formatRate(progress(open.file.size, open.file.size, open.seconds).rate)}`}
          {comparison ? ` · ${comparison.from}` : ''}
        </span>
      )}
      {comparison?.verdict === 'not-listed' && (
        <p className="said said-check">
          The list does not name this file ({comparison.from}). It says nothing about it, good or bad.
        </p>
      )}
      {comparison?.verdict === 'other-size' && image && (
        <p className="said said-stop" role="alert">
          The list names another size: {formatExact(comparison.publishedBytes ?? 0)}, and{' '}
          {comparison.of === 'content' ? 'what is inside' : 'this file'} has{' '}
          {formatExact(comparison.of === 'content' ? writtenBytes(image) : image.bytes)} ({comparison.from}).
          It was cut short, or it is another release. Nothing has been written. Fetch it again.
        </p>
      )}
      {comparison?.verdict === 'differs' && (
        <p className="said said-stop" role="alert">
          The bytes are not those that were published. Nothing has been written. Fetch the file again, over a
          wire if you can, and open it anew.
        </p>
      )}
      {computed !== undefined && comparison?.verdict !== 'same' && <ListEntry onList={onList} />}
    </div>
  );
}
