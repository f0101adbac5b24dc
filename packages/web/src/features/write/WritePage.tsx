import { Stack } from '@chakra-ui/react';
import { probeWords } from '@zb/core/words/probe';
import { useState } from 'react';
import { z } from 'zod';
import { useQueryClient } from '@tanstack/react-query';
import { updateBox } from '@zb/core/acts/box';
import { decideFate, recordProbe } from '@zb/core/acts/shelf';
import {
  probeResultSchema,
  virtualStickSchema,
  type ProbeResult,
  type StickFault,
  type WriteRequest,
} from '@zb/core/model/standIns';
import { afterWrite } from '@zb/core/write/after';
import { contentTitle } from '@zb/core/model/content';
import { claimAgainst } from '@zb/core/plan/claims';
import { guardTargets, shelfRecord } from '@zb/core/write/guard';
import { belongsTo, isOver, jobSchema, jobsOf, tagOf, type Job } from '@zb/core/model/job';
import { writeHeadline } from '@zb/core/words/write';
import { usbLinks } from '@zb/core/machine/links';
import { predictWrite, unknownStick } from '@zb/core/write/time';
import { contentSha256, writtenBytes } from '@zb/core/model/written';
import { findImage, storesOf } from '@zb/core/model/bench';
import { formatIec } from '@zb/core/units/bytes';
import { formatSpan } from '@zb/core/units/duration';
import { getJson, sendFile, sendJson } from '../../parts/api';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { useHealth, useJobs, useSticks } from '../../parts/writer';
import { stamp, useAct } from '../../storage/hooks';
import { Word } from '../../ui/Button';
import { Nothing } from '../../ui/Nothing';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import { To } from '../../ui/To';
import { Sub } from '../../ui/Words';
import { openImageAt } from '../../workers/openImages';
import { Ended, Running } from './JobView';
import { Confirm } from './Confirm';
import { Written } from './Target';
import { Targets } from './Targets';

function WritePage({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const act = useAct();
  const client = useQueryClient();
  const image = findImage(bench, box.imageId);
  const sticks = useSticks();
  const jobs = useJobs();
  const health = useHealth();
  const mine = jobsOf(bench, jobs.data ?? []).filter((j) => belongsTo(j).boxId === box.id);
  const running = mine.filter((j) => !isOver(j));
  const ended = mine.filter((j) => isOver(j)).at(-1);
  const [problem, setProblem] = useState('');
  const [probed, setProbed] = useState<ProbeResult | null>(null);
  const [again, setAgain] = useState(false);
  const [local, setLocal] = useState<File | null>(null);

  const bytes = image ? writtenBytes(image) : 0;
  const busy = (jobs.data ?? []).filter((j) => !isOver(j)).map((j) => j.stickId);
  const targets = guardTargets(sticks.data ?? [], storesOf(bench), bytes, busy, (s) =>
    claimAgainst(bench, box, s.id),
  );
  const choice = targets.find((g) => g.allowed && g.target.serial === box.targetSerial);
  const stick = sticks.data?.find((s) => s.id === choice?.target.id);
  const opened = openImageAt(box.id);
  const file =
    local ??
    (opened && image && opened.name === image.name && opened.file.size === image.bytes ? opened.file : null);
  const haveBytes = image?.depotFile != null || file !== null;
  const steps =
    choice && !again && choice.target.serial === box.written?.serial ? afterWrite(bench, box) : [];
  const nameOf = (job: Job): string => {
    const g = targets.find((t) => t.target.id === job.stickId);
    return g?.known?.name ?? g?.target.model ?? 'a stick';
  };
  const foretoldOf = (job: Job): string | undefined => {
    const g = targets.find((t) => t.target.id === job.stickId);
    const link = g?.target.link;
    return (
      g &&
      formatSpan(
        predictWrite(job.total, g.known ?? unknownStick(g.target.serial), bench.log, link && usbLinks[link])
          .value,
      )
    );
  };

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
  /** A write that is over before all is sent (called off, given up) cuts the sending short: how it ended says the job. */
  const sendContent = async (job: Job, content: File): Promise<void> => {
    try {
      await sendFile(`/api/writer/jobs/${job.id}/content`, content);
    } catch (error) {
      const now = await getJson('/api/writer/jobs', z.array(jobSchema));
      if (!now.some((j) => j.id === job.id && isOver(j))) throw error;
    }
  };
  const write = (tail: string): Promise<void> =>
    attempt(async () => {
      if (!image || !choice) return;
      const source: WriteRequest['image'] =
        image.depotFile !== null && file === null
          ? { from: 'depot', file: image.depotFile }
          : {
              from: 'upload',
              name: image.name,
              bytes: image.bytes,
              container: image.inspection?.container.kind ?? 'none',
              innerBytes: image.inspection?.container.innerBytes ?? null,
              sha256: contentSha256(image),
            };
      const started = await sendJson(
        'POST',
        '/api/writer/jobs',
        {
          stickId: choice.target.id,
          serialTail: tail,
          image: source,
          tag: tagOf(box, image.id),
          shelf: choice.known ? shelfRecord(choice.known, claimAgainst(bench, box, choice.known.id)) : null,
        } satisfies WriteRequest,
        jobSchema,
      );
      setAgain(false);
      refresh();
      if (source.from === 'upload' && file) await sendContent(started, file);
    });
  const setFault = (fault: StickFault): Promise<void> =>
    attempt(async () => {
      if (!stick) return;
      await sendJson('PUT', `/api/writer/sticks/${stick.id}/fault`, fault, virtualStickSchema);
      await client.invalidateQueries({ queryKey: ['sticks'] });
    });
  const probe = (): Promise<void> =>
    attempt(async () => {
      if (!stick || !choice) return;
      const found = await sendJson('POST', `/api/writer/sticks/${stick.id}/probe`, {}, probeResultSchema);
      setProbed(found);
      if (choice.known) await act(recordProbe(choice.known, found, stamp()));
    });
  const plug = (id: string): Promise<void> =>
    attempt(async () => {
      const store = storesOf(bench).find((s) => s.id === id);
      if (!store) return;
      const body = {
        bytes: store.bytes,
        serial: store.serial ?? 'none',
        model: store.model ?? store.name.slice(0, 100),
      };
      await sendJson('POST', '/api/writer/sticks', body, virtualStickSchema);
      await client.invalidateQueries({ queryKey: ['sticks'] });
    });
  const loose = storesOf(bench).filter(
    (s) => s.kind !== 'drive' && s.in === null && !sticks.data?.some((v) => v.serial === s.serial),
  );

  return (
    <BoxFrame
      context={context}
      stop="write"
      headline={writeHeadline(bench, box, image, running.length)}
      busy={running.length > 0 ? 'A write is under way' : undefined}
      hint="The stand-in writer: virtual sticks, real bytes. Nothing of yours is touched."
    >
      {!image ? (
        <Nothing
          title="No image is chosen for this box"
          words="What is written is an image that was read and compared with what was published."
        >
          <To to={`/box/${box.id}/verify`}>Open one at Verify</To>
        </Nothing>
      ) : (
        <Stack gap="4">
          {(sticks.error ?? jobs.error) && (
            <Said kind="stop">
              {(sticks.error ?? jobs.error)?.message}{' '}
              <Word
                onClick={() => {
                  void sticks.refetch();
                  refresh();
                }}
              >
                Try again
              </Word>
            </Said>
          )}
          {health.data?.troubles.map((t) => (
            <Said key={t} kind="check">
              {t} Nothing of yours is harmed; make room or put it right, and it goes on by itself.
            </Said>
          ))}
          {problem !== '' && <Said kind="stop">{problem}</Said>}
          {ended && running.length === 0 && <Ended job={ended} />}
          {running.map((job) => (
            <Running
              key={job.id}
              listed={job}
              name={nameOf(job)}
              foretold={foretoldOf(job)}
              onCancel={() =>
                void attempt(() =>
                  sendJson('POST', `/api/writer/jobs/${job.id}/cancel`, undefined, jobSchema),
                )
              }
            />
          ))}
          {probed && (
            <Said kind={probed.real < probed.claimed ? 'stop' : 'proven'} loud={false}>
              {probeWords(probed)}
            </Said>
          )}
          {choice && steps.length > 0 && running.length === 0 && (
            <Written
              guarded={choice}
              image={{ name: image.name, bytes }}
              steps={steps}
              onAgain={() => setAgain(true)}
            />
          )}
          {choice && stick && (steps.length === 0 || running.length > 0) && (
            <Confirm
              key={choice.target.id}
              bench={bench}
              box={box}
              image={image}
              bytes={bytes}
              choice={choice}
              stick={stick}
              haveBytes={haveBytes}
              onLocal={(same) => {
                if (same.size === image.bytes) setLocal(same);
                else setProblem('That is another file: its size differs. Nothing was written.');
              }}
              onWrite={(tail) => void write(tail)}
              onFault={(fault) => void setFault(fault)}
              onProbe={() => void probe()}
            />
          )}
          {running.length > 0 && !choice && (
            <Sub>Another stick may be picked meanwhile; sticks on one port take turns.</Sub>
          )}
          <Targets
            targets={targets}
            picked={choice?.target.id ?? null}
            onPick={(g) => {
              setProbed(null);
              void act(updateBox(box, { targetSerial: g.target.serial }, `Stick …${g.tail} picked`));
            }}
            onDecide={(store, fate) => void act(decideFate(store, fate))}
            holds={(g) => (g.known ? contentTitle(g.known) || 'empty' : 'not on the shelf; unknown')}
          />
          {running.length === 0 && loose.length > 0 && !sticks.error && (
            <Select
              label="Plug in another stick from the shelf"
              width={{ base: 'full', md: 'field' }}
              none="choose"
              value=""
              onChange={(e) => void plug(e.target.value)}
              options={loose.map((s) => ({ value: s.id, words: `${s.name}, ${formatIec(s.bytes)}` }))}
            />
          )}
        </Stack>
      )}
    </BoxFrame>
  );
}

export default withBox(WritePage);
