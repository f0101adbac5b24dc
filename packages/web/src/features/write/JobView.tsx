import { Box, HStack, Stack } from '@chakra-ui/react';
import { isOver, type Job } from '@zb/core/model/job';
import { progress } from '@zb/core/units/progress';
import { formatDuration } from '@zb/core/units/duration';
import { Quiet } from '../../ui/Button';
import { Stamp } from '../../ui/Marks';
import { Said } from '../../ui/Said';
import { Data, Head, Sub } from '../../ui/Words';
import { Working } from '../../ui/Working';
import { useJobEvents } from '../../parts/writer';

const STATE: Partial<Record<Job['state'], string>> = {
  'waiting for the file': 'Waiting for the file',
  'waiting for its turn': 'Waiting for its turn',
  writing: 'Writing',
  'reading back': 'Reading back',
};

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
  const { rate, left } = progress(job.written, job.total, job.seconds);
  if (isOver(job)) return <Ended job={job} />;
  const waits = job.state === 'waiting for its turn';
  const writing = job.state === 'writing' && job.written > 0;
  return (
    <Stack
      role="group"
      aria-label={`Write to ${name}`}
      gap="2"
      css={{ borderInlineStart: '3px solid {colors.work}', paddingInlineStart: '12px' }}
    >
      {broken && (
        <Said kind="check">The line to the writer is broken; trying again. The image file is unharmed.</Said>
      )}
      <Head>
        {name} <Data>…{job.serial.slice(-4)}</Data>
      </Head>
      <Working
        label="Written"
        done={job.written}
        whole={job.total}
        {...(writing ? { rate, ...(left === undefined ? {} : { left }) } : {})}
      />
      <Working label="Read back and compared" done={job.readBack} whole={job.total} />
      <HStack justify="space-between" gap="3" align="baseline">
        <Box>
          {waits
            ? 'Waiting for its turn: another stick on the same port is being written'
            : `${STATE[job.state]} for ${formatDuration(job.seconds)}`}
          {foretold !== undefined && <Sub>foretold {foretold} in all</Sub>}
        </Box>
        <Quiet onClick={onCancel}>Cancel the write</Quiet>
      </HStack>
    </Stack>
  );
}

/** How a write ended, in a stamp and a sentence. */
export function Ended({ job }: { job: Job }) {
  const good = job.state === 'proven';
  const kind = good ? 'good' : job.state === 'failed' ? 'stop' : 'check';
  return (
    <Said kind={kind === 'good' ? 'proven' : kind} loud={false}>
      <HStack gap="3">
        <Stamp kind={kind}>{good ? 'PROVEN' : job.state.toUpperCase()}</Stamp>
        <span>
          <b>
            {job.imageName} on …{job.serial.slice(-4)}, {formatDuration(job.seconds)}.
          </b>{' '}
          {job.explanation}
        </span>
      </HStack>
    </Said>
  );
}
