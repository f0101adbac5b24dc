import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { aims, type Aim } from '@zb/core/rehearsal/ending';
import type { Precaution } from '@zb/core/rehearsal/precautions';
import type { SafeSet } from '@zb/core/rehearsal/sets';
import { aimWords, precautionWords, setCost, type NameOf } from '@zb/core/words/rehearsal';
import type { SafeSets as Sets } from '@zb/core/rehearsal/sets';
import type { RehearsalFault } from '@zb/core/rehearsal/tally';
import type { Elsewhere } from '../../workers/elsewhere';
import { Quiet } from '../../ui/Button';
import { Fold } from '../../ui/Fold';
import { VerdictMark } from '../../ui/Marks';
import { Said } from '../../ui/Said';
import { Segments } from '../../ui/Segments';
import { Head, Soft, Sub } from '../../ui/Words';
import { Working } from '../../ui/Working';

/** So many sets stand in the open; all others are behind a fold. */
const SHOWN = 3;

function One({
  set,
  precautions,
  nameOf,
  taken,
  onTake,
}: {
  set: SafeSet;
  precautions: readonly Precaution[];
  nameOf: NameOf;
  taken: readonly string[];
  onTake: (set: SafeSet) => void;
}) {
  const words = set.ids.flatMap((id) => {
    const p = precautions.find((x) => x.id === id);
    return p ? [precautionWords(p, nameOf)] : [];
  });
  const on = set.ids.length > 0 && set.ids.every((id) => taken.includes(id));
  return (
    <HStack align="flex-start" justify="space-between" gap="3" borderBottom="thin" paddingBlock="1.5">
      <Box minWidth="0">
        <Text fontWeight="strong">{words.join(' + ') || 'Nothing need be done'}</Text>
        <Sub>{setCost(set)}</Sub>
      </Box>
      {on ? (
        <VerdictMark kind="yes">taken</VerdictMark>
      ) : (
        set.ids.length > 0 && (
          <Quiet
            size="sm"
            flexShrink="0"
            aria-label={`Take it: ${words.join(' + ')}`}
            onClick={() => onTake(set)}
          >
            Take it
          </Quiet>
        )
      )}
    </HStack>
  );
}

/** All smallest sets of precautions, the cheapest first; or the world that remains. */
export function SafeSets({
  aim,
  onAim,
  job,
  precautions,
  nameOf,
  taken,
  onTake,
  onRemains,
}: {
  aim: Aim;
  onAim: (aim: Aim) => void;
  job: Elsewhere<Sets, RehearsalFault>;
  precautions: readonly Precaution[];
  nameOf: NameOf;
  taken: readonly string[];
  onTake: (set: SafeSet) => void;
  onRemains: () => void;
}) {
  const { found, share } = job;
  const show = (set: SafeSet) => (
    <One key={set.ids.join()} {...{ set, precautions, nameOf, taken, onTake }} />
  );
  return (
    <Stack gap="2" role="group" aria-label="Smallest sets">
      <Head>Smallest sets that make every scenario safe</Head>
      <Box alignSelf="flex-start">
        <Segments label="What they are to reach" options={aims} value={aim} onTake={onAim} />
      </Box>
      <Sub>{aimWords[aim]}</Sub>
      {found ? (
        <Box aria-busy={share !== null}>
          {found.sets.slice(0, SHOWN).map(show)}
          {found.sets.length > SHOWN && (
            <Fold title={`${found.sets.length - SHOWN} more that do it`}>
              {found.sets.slice(SHOWN).map(show)}
            </Fold>
          )}
          {found.remains && (
            <Said kind="stop" loud={false}>
              No set of precautions does it: whatever is added, a world remains that ends badly.{' '}
              <Quiet size="sm" onClick={onRemains}>
                Tell that world
              </Quiet>
            </Said>
          )}
        </Box>
      ) : (
        <Soft>{job.fault ? 'Not worked out.' : 'Being worked out …'}</Soft>
      )}
      {share !== null && share > 0 && (
        <Working
          label="Trying sets"
          done={share}
          whole={1}
          says="each set in every scenario"
          onCancel={job.cancel}
          cancelWord="Stop"
        />
      )}
      {job.fault && <Quiet onClick={job.again}>Work them out again</Quiet>}
    </Stack>
  );
}
