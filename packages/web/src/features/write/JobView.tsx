import type { Job } from '@zb/core/media/job';
import { progress } from '@zb/core/units/progress';
import { formatIec } from '@zb/core/units/bytes';
import { formatDuration, formatRate } from '@zb/core/units/duration';
import { Quiet } from '../../parts/Button';
import { Stamp } from '../../parts/Marks';

const STATE: Partial<Record<Job['state'], string>> = {
  'waiting for the file': 'Waiting for the file',
  writing: 'Writing',
  'reading back': 'Reading back',
};

function Bar({
  label,
  done,
  total,
  pattern,
}: {
  label: string;
  done: number;
  total: number;
  pattern: string;
}) {
  const { share } = progress(done, total, 0);
  return (
    <div>
      <div className="row">
        <span>{label}</span>
        <span className="m">
          {formatIec(done)} of {formatIec(total)}
        </span>
      </div>
      <div
        className="bar"
        role="progressbar"
        aria-label={label}
        aria-valuenow={Math.round(100 * share)}
        aria-valuemin={0}
        aria-valuemax={100}
      >
        <i className={pattern} style={{ width: `${100 * share}%` }} />
      </div>
    </div>
  );
}

/** A write under way: what is written, what is compared, and the way out. */
export function Running({
  job,
  foretold,
  onCancel,
}: {
  job: Job;
  foretold: string | undefined;
  onCancel: () => void;
}) {
  const { rate } = progress(job.written, job.total, job.seconds);
  return (
    <div className="stack">
      <Bar label="Written" done={job.written} total={job.total} pattern="p-new" />
      <Bar label="Read back and compared" done={job.readBack} total={job.total} pattern="p-code" />
      <div className="row">
        <span>
          {STATE[job.state]} for {formatDuration(job.seconds)}
          {job.state === 'writing' && job.written > 0 && ` at ${formatRate(rate)}`}
          {foretold !== undefined && <span className="sub">foretold {foretold} in all</span>}
        </span>
        <Quiet onClick={onCancel}>Cancel the write</Quiet>
      </div>
    </div>
  );
}

/** How a write ended, in a stamp and a sentence. */
export function Ended({ job }: { job: Job }) {
  const good = job.state === 'proven';
  return (
    <div
      className={`said said-${good ? 'moss' : job.state === 'failed' ? 'stop' : 'check'}`}
      style={{ display: 'flex', gap: 14, alignItems: 'center' }}
      role="status"
    >
      <Stamp kind={good ? 'good' : job.state === 'failed' ? 'stop' : 'check'}>
        {good ? 'PROVEN' : job.state.toUpperCase()}
      </Stamp>
      <span>
        <b>
          {job.imageName} on …{job.serial.slice(-4)}, {formatDuration(job.seconds)}.
        </b>{' '}
        {job.explanation}
      </span>
    </div>
  );
}
