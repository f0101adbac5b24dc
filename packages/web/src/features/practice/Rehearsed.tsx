import { Box, Stack, Text } from '@chakra-ui/react';
import type { RehearsalPlan } from '@zb/core/model/rehearsal';
import { wrongWorld } from '@zb/core/rehearsal/rehearse';
import {
  frameWords,
  namesIn,
  precautionWords,
  rehearsalFaultWords,
  rehearsalHeadline,
  setCost,
} from '@zb/core/words/rehearsal';
import { Said } from '../../ui/Said';
import { Head, Soft, Sub } from '../../ui/Words';
import { useRehearsal, useSafeSets } from '../../workers/rehearsing';

/** So many sets of precautions are named. */
const SHOWN = 3;
const NONE: readonly string[] = [];

/** What the Rehearsal sheet says of the machine in front: how its scenarios end, the shortest bad one, and what makes all of them safe. */
export function Rehearsed({ plan }: { plan: RehearsalPlan }) {
  const { found, fault } = useRehearsal(plan, NONE);
  const { found: safe } = useSafeSets(plan, 'nothing lost');
  if (fault) return <Said kind="check">{rehearsalFaultWords(fault)}</Said>;
  if (!found) return <Soft>Every scenario is being walked…</Soft>;
  const nameOf = namesIn(plan);
  const bad = wrongWorld(found);
  return (
    <Stack gap="2">
      <Text fontWeight="strong">{rehearsalHeadline(found, nameOf)}.</Text>
      {bad && (
        <Box as="ol" css={{ paddingInlineStart: '18px', listStyle: 'decimal' }}>
          {bad.frames.map((f, i) => {
            const { title, because } = frameWords(f, nameOf);
            return (
              <li key={i}>
                {title}
                {because !== '' && <Sub>{because}</Sub>}
              </li>
            );
          })}
        </Box>
      )}
      {safe && safe.sets.length > 0 && (
        <Box>
          <Head>Under these nothing is lost</Head>
          {safe.sets.slice(0, SHOWN).map((s) => (
            <Box key={s.ids.join()} paddingBlock="1">
              {s.ids
                .flatMap((id) => found.precautions.find((p) => p.precaution.id === id) ?? [])
                .map((p) => precautionWords(p.precaution, nameOf))
                .join(' + ') || 'Nothing need be done'}
              <Sub>{setCost(s)}</Sub>
            </Box>
          ))}
        </Box>
      )}
    </Stack>
  );
}
