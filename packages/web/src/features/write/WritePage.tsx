import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { updateBox } from '@zb/core/acts/box';
import type { StickFault } from '@zb/core/demo/sticks';
import { afterWrite } from '@zb/core/media/after';
import { guardTargets, type GuardedTarget } from '@zb/core/media/guard';
import { belongsTo, isOver, jobsOf, tagOf, type Job } from '@zb/core/media/job';
import { writeHeadline } from '@zb/core/media/headline';
import { predictWrite, unknownStick } from '@zb/core/media/time';
import { findImage, storesOf, type ImageItem } from '@zb/core/schema/bench';
import { formatIec, MIB } from '@zb/core/units/bytes';
import { formatSpan } from '@zb/core/units/duration';
import { sendFile, sendJson } from '../../parts/api';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Primary } from '../../parts/Button';
import { useJobEvents, useJobs, useSticks } from '../../parts/writer';
import { useAct } from '../../storage/hooks';
import { openImageAt } from '../../workers/openImages';
import { Ended, Running } from './JobView';
import { BeforeAfter, Written } from './Target';
import { Targets } from './Targets';

const FAULTS: { name: string; make: (image: ImageItem) => StickFault; is: (f: StickFault) => boolean }[] = [
  { name: 'none', make: () => ({}), is: (f) => Object.keys(f).length === 0 },
  {
    name: 'lies about its capacity',
    make: (i) => ({ realBytes: Math.max(MIB, Math.floor(i.bytes / 2)) }),
    is: (f) => f.realBytes !== undefined,
  },
  {
    name: 'has a weak place',
    make: (i) => ({ weakAt: Math.floor(i.bytes * 0.6) }),
    is: (f) => f.weakAt !== undefined,
  },
  { name: 'is pulled out half-way', make: () => ({ pulledAt: 0.5 }), is: (f) => f.pulledAt !== undefined },
];

function WritePage({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const act = useAct();
  const client = useQueryClient();
  const image = findImage(bench, box.imageId);
  const sticks = useSticks();
  const jobs = useJobs();
  const mine = jobsOf(bench, jobs.data ?? []).filter((j) => belongsTo(j).boxId === box.id);
  const latest = mine[mine.length - 1];
  const { job, broken } = useJobEvents(latest);
  const [tail, setTail] = useState('');
  const [problem, setProblem] = useState('');
  const [again, setAgain] = useState(false);
  const [local, setLocal] = useState<File | null>(null);

  const targets = guardTargets(sticks.data ?? [], storesOf(bench), image?.bytes ?? 0);
  const choice = targets.find((g) => g.allowed && g.target.serial === box.targetSerial);
  const stick = sticks.data?.find((s) => s.id === choice?.target.id);
  const shelfOf = (g: GuardedTarget) => g.known ?? unknownStick(g.target.serial);
  const foretold = choice && image ? predictWrite(image.bytes, shelfOf(choice), bench.log) : undefined;
  const opened = openImageAt(box.id);
  const file =
    local ??
    (opened && image && opened.name === image.name && opened.file.size === image.bytes ? opened.file : null);
  const haveBytes = image?.depotFile != null || file !== null;
  const running = job !== undefined && !isOver(job);
  const underWay = running ? targets.find((g) => g.target.id === job.stickId) : undefined;

  const steps =
    choice && !again && choice.target.serial === box.written?.serial ? afterWrite(bench, box) : [];

  const refresh = (): void => void client.invalidateQueries({ queryKey: ['jobs'] });
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setProblem('');
    try {
      await work();
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
    refresh();
  };
  const write = (): Promise<void> =>
    attempt(async () => {
      if (!image || !choice) return;
      const source =
        image.depotFile !== null && file === null
          ? { from: 'depot', file: image.depotFile }
          : { from: 'upload', name: image.name, bytes: image.bytes };
      const started = await sendJson<Job>('POST', '/api/writer/jobs', {
        stickId: choice.target.id,
        serialTail: tail,
        image: source,
        tag: tagOf(box, image.id),
      });
      setTail('');
      setAgain(false);
      refresh();
      if (source.from === 'upload' && file) await sendFile(`/api/writer/jobs/${started.id}/content`, file);
    });
  const setFault = (name: string): Promise<void> =>
    attempt(async () => {
      const fault = FAULTS.find((f) => f.name === name);
      if (!fault || !stick || !image) return;
      await sendJson('PUT', `/api/writer/sticks/${stick.id}/fault`, fault.make(image));
      await client.invalidateQueries({ queryKey: ['sticks'] });
    });
  const plug = (id: string): Promise<void> =>
    attempt(async () => {
      const store = storesOf(bench).find((s) => s.id === id);
      if (!store) return;
      await sendJson('POST', '/api/writer/sticks', {
        bytes: store.bytes,
        serial: store.serial ?? 'none',
        model: store.model ?? store.name.slice(0, 100),
      });
      await client.invalidateQueries({ queryKey: ['sticks'] });
    });
  const loose = storesOf(bench).filter(
    (s) => s.kind !== 'drive' && s.in === null && !sticks.data?.some((v) => v.serial === s.serial),
  );

  return (
    <BoxFrame
      context={context}
      stop="write"
      headline={writeHeadline(box, image, running)}
      busy={running ? 'A write is under way' : undefined}
      hint="The stand-in writer: virtual sticks, real bytes. Nothing of yours is touched."
    >
      {!image ? (
        <p>
          No image is chosen for this box.{' '}
          <Link className="link" to={`/box/${box.id}/verify`}>
            Open one at Verify
          </Link>
          .
        </p>
      ) : (
        <div className="stack">
          {(sticks.error ?? jobs.error) && (
            <p className="said said-stop" role="alert">
              {(sticks.error ?? jobs.error)?.message}{' '}
              <button
                type="button"
                className="link"
                onClick={() => {
                  void sticks.refetch();
                  refresh();
                }}
              >
                Try again
              </button>
            </p>
          )}
          {problem !== '' && (
            <p className="said said-stop" role="alert">
              {problem}
            </p>
          )}
          {broken && running && (
            <p className="said said-check">
              The line to the writer is broken; trying again. The image file is unharmed.
            </p>
          )}
          {job && !running && <Ended job={job} />}
          {job && running && (
            <div className={underWay ? 'two wide-left' : ''}>
              {underWay && (
                <BeforeAfter guarded={underWay} imageBytes={job.total} imageName={job.imageName} />
              )}
              <Running
                job={job}
                foretold={underWay && formatSpan(predictWrite(job.total, shelfOf(underWay), bench.log).value)}
                onCancel={() => void attempt(() => sendJson('POST', `/api/writer/jobs/${job.id}/cancel`))}
              />
            </div>
          )}
          {!running && choice && steps.length > 0 && (
            <Written guarded={choice} image={image} steps={steps} onAgain={() => setAgain(true)} />
          )}
          {!running && choice && stick && steps.length === 0 && (
            <div className="two wide-left">
              <BeforeAfter guarded={choice} imageBytes={image.bytes} imageName={image.name} />
              <div className="stack" style={{ gap: 8 }}>
                {!haveBytes && (
                  <label className="said said-check">
                    After a reload the browser forgets which file was open. Open {image.name} again:
                    <input
                      type="file"
                      aria-label={`Open ${image.name} again`}
                      onChange={(e) => {
                        const same = e.target.files?.[0];
                        if (same && same.size === image.bytes) setLocal(same);
                        else setProblem('That is another file: its size differs. Nothing was written.');
                      }}
                    />
                  </label>
                )}
                <p>
                  All of stick <b className="m">…{choice.tail}</b> will be lost. Read the serial off the stick
                  and type its <b>last four</b>:
                </p>
                <form
                  className="actions"
                  onSubmit={(e) => {
                    e.preventDefault();
                    void write();
                  }}
                >
                  <input
                    className="in mono"
                    aria-label="Last four of the serial"
                    style={{ width: 96, fontSize: 16 }}
                    maxLength={4}
                    value={tail}
                    onChange={(e) => setTail(e.target.value.toUpperCase())}
                    autoComplete="off"
                  />
                  <Primary type="submit" disabled={tail !== choice.tail || !haveBytes}>
                    Write and compare
                  </Primary>
                </form>
                {tail.length === 4 && tail !== choice.tail && (
                  <p role="alert" style={{ color: 'var(--stop)' }}>
                    That is not this stick’s serial. Look again before you go on.
                  </p>
                )}
                {foretold && (
                  <details className="why">
                    <summary>Foretold: {formatSpan(foretold.value)}</summary>
                    <p className="sub">{foretold.because.join('; ')}</p>
                  </details>
                )}
                <label className="field" style={{ maxWidth: 240 }}>
                  <span>Practise a fault: this stick</span>
                  <select
                    className="in"
                    value={FAULTS.find((f) => f.is(stick.fault))?.name}
                    onChange={(e) => void setFault(e.target.value)}
                  >
                    {FAULTS.map((f) => (
                      <option key={f.name} value={f.name}>
                        {f.name === 'none' ? 'has no fault' : f.name}
                      </option>
                    ))}
                  </select>
                </label>
              </div>
            </div>
          )}
          {!running && (
            <div className="scroll-x">
              <Targets
                targets={targets}
                picked={choice?.target.id ?? null}
                onPick={(g) => {
                  setTail('');
                  void act(updateBox(box, { targetSerial: g.target.serial }, `Stick …${g.tail} picked`));
                }}
                holds={(g) => (g.known ? g.known.holds || 'empty' : 'not on the shelf; unknown')}
              />
            </div>
          )}
          {!running && loose.length > 0 && !sticks.error && (
            <label className="field" style={{ maxWidth: 320 }}>
              <span>Plug in another stick from the shelf</span>
              <select className="in" value="" onChange={(e) => void plug(e.target.value)}>
                <option value="">choose</option>
                {loose.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.name}, {formatIec(s.bytes)}
                  </option>
                ))}
              </select>
            </label>
          )}
        </div>
      )}
    </BoxFrame>
  );
}

export default withBox(WritePage);
