import { isOver, type Job } from '@zb/core/model/job';
import { progress } from '@zb/core/units/progress';
import { formatIec } from '@zb/core/units/bytes';
import { formatDuration, formatRate } from '@zb/core/units/duration';
import { Quiet } from '../../ui/Button';
import { Stamp } from '../../parts/Marks';
import { useJobEvents } from '../../parts/writer';

const STATE: Partial<Record<Job['state'], string>> = {
  'waiting for the file': 'Waiting for the file',
  'waiting for its turn': 'Waiting for its turn',
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
  listed,
  name,
  foretold,
  onCancel,
}: {
  listed: Job;
  /** What the stick is called, where the shelf knows it. */
  name: string;
  foretold: string | undefined;
  onCancel: () => void;
}) {
  const { job = listed, broken } = useJobEvents(listed);
  const { rate } = progress(job.written, job.total, job.seconds);
  if (isOver(job)) return <Ended job={job} />;
  const waits = job.state === 'waiting for its turn';
  return (
    <div className="stack under-way" role="group" aria-label={`Write to ${name}`}>
      {broken && (
        <p className="said said-check">
          The line to the writer is broken; trying again. The image file is unharmed.
        </p>
      )}
      <h2 className="h6">
        {name} <span className="m">…{job.serial.slice(-4)}</span>
      </h2>
      <Bar label="Written" done={job.written} total={job.total} pattern="p-new" />
      <Bar label="Read back and compared" done={job.readBack} total={job.total} pattern="p-code" />
      <div className="row">
        <span>
          {waits
            ? 'Waiting for its turn: another stick on the same port is being written'
            : `${STATE[job.state]} for ${formatDuration(job.seconds)}`}
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
