import { Box, Heading, HStack, List, Stack, Text } from '@chakra-ui/react';
import type { WayOut } from '@zb/core/box/goal';
import { wayOutOf } from '@zb/core/box/plan';
import { isOpen, type RunStep } from '@zb/core/box/runSheet';
import { stopTitle } from '@zb/core/model/stops';
import { formatMoment } from '@zb/core/units/date';
import { hazardWords } from '@zb/core/words/hazard';
import { within } from '@zb/core/words/text';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { backWords, evidenceWords, hurtWords, mustWords } from '@zb/core/words/runsheet/around';
import { unmetWords, wayOutWords } from '@zb/core/words/planEnd';
import { Quiet } from '../../ui/Button';
import { Said } from '../../ui/Said';
import { HazardMark, Stamp } from '../../ui/Marks';

/** What must be so first; of what nobody has chosen nothing more is asked. */
const asked = (step: RunStep): RunStep['must'] =>
  step.must.some((m) => m.id === null && m.holds === false)
    ? step.must.filter((m) => m.id !== null || m.holds === false)
    : step.must;

/** What is typed, pressed or looked for, large enough to be read off at arm’s length. */
const Exact = ({ label, text }: { label: string; text: string }) => (
  <Box minWidth="0">
    <Text textStyle="label">{label}</Text>
    <Text textStyle={text.length > 60 ? 'data' : 'letters'} overflowWrap="anywhere" whiteSpace="pre-wrap">
      {text}
    </Text>
  </Box>
);

/** One step, readable from two metres: what to do, to the letter, and what must be true first. */
export function StepFace({ step, onMend }: { step: RunStep; onMend: (way: WayOut) => void }) {
  const words = runStepWords(step.what);
  return (
    <Stack gap="5">
      <Heading as="h1" id="headline" textStyle="far" textWrap="balance" overflowWrap="anywhere">
        {words.title}
      </Heading>
      {step.state === 'done' && (
        <HStack gap="3" flexWrap="wrap">
          <Stamp>
            Done{step.done?.at ? ` ${formatMoment(step.done.at)}` : ''}
            {step.done ? `, ${evidenceWords(step.done.by)}` : ''}
          </Stamp>
          {step.done?.noted ? <Text textStyle="near">Noted: {step.done.noted}</Text> : null}
        </HStack>
      )}
      {step.state === 'not recorded' && (
        <Said kind="check" title="Not recorded.">
          {stopTitle[step.stop]} was marked as done, and nothing says that this step was.
        </Said>
      )}
      {step.changed !== null && (
        <Said kind="check" title="Changed since.">
          It was done as “{step.changed}”. Look whether it has to be done again.
        </Said>
      )}
      {step.state === 'left out' && <Said kind="check">Left out: {step.because}</Said>}
      {step.against.map((h) => (
        <Said kind="stop" key={hazardWords(h)}>
          <HazardMark grade="stop" /> {hazardWords(h)}
        </Said>
      ))}
      {words.lines.length > 0 && (
        <List.Root
          as={words.lines.length > 1 ? 'ol' : 'ul'}
          gap="1.5"
          textStyle="near"
          css={{ maxWidth: '940px' }}
          listStyle={words.lines.length > 1 ? 'decimal' : 'none'}
          paddingInlineStart={words.lines.length > 1 ? '8' : '0'}
        >
          {words.lines.map((l) => (
            <List.Item key={l} overflowWrap="anywhere">
              {l}
            </List.Item>
          ))}
        </List.Root>
      )}
      {words.change && (
        <HStack gap={{ base: '4', md: '8' }} flexWrap="wrap" align="flex-end">
          <Exact label="Now reads" text={words.change.from} />
          <Text textStyle="near" color="fg.muted">
            to
          </Text>
          <Box fontWeight="heavy">
            <Exact label="Change to" text={words.change.to} />
          </Box>
        </HStack>
      )}
      {words.exact.length > 0 && (
        <HStack gap={{ base: '4', md: '8' }} flexWrap="wrap" align="flex-start">
          {words.exact.map((e) => (
            <Exact key={e.label + e.text} {...e} />
          ))}
        </HStack>
      )}
      {words.see !== '' && step.state !== 'done' && (
        <Text textStyle="near" color="fg.muted" css={{ maxWidth: '940px' }}>
          You should see: {within(words.see)}
        </Text>
      )}
      {asked(step).map((m) => (
        <Said
          key={m.code}
          kind={m.holds === false ? 'stop' : m.holds === null ? 'check' : 'note'}
          title="First:"
          loud={false}
        >
          {m.holds === false ? unmetWords({ must: m }) : mustWords(m)}
          {m.holds === null && ' Look.'}
          {m.holds === false && isOpen(step) && (
            <Box marginTop="2">
              <Quiet size="md" onClick={() => onMend(wayOutOf(m))}>
                {wayOutWords(wayOutOf(m))}
              </Quiet>
            </Box>
          )}
        </Said>
      ))}
      {step.hurts.map((h) => (
        <Said key={h} kind="check" title="It can hurt:">
          {hurtWords(h)} {backWords(step.back)}
        </Said>
      ))}
    </Stack>
  );
}
