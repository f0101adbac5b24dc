import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { isOpen, type RunSheet, type RunStep } from '@zb/core/box/runSheet';
import type { Plan } from '@zb/core/box/plan';
import { isLeftAlone } from '@zb/core/box/waits';
import { wholeOf } from '@zb/core/runsheet/step';
import { formatSpan } from '@zb/core/units/duration';
import { foretoldWords } from '@zb/core/words/learning';
import { planHeadline } from '@zb/core/words/planEnd';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { leftWords, needWords } from '@zb/core/words/runsheet/around';
import { TellMe } from '../../parts/TellMe';
import { useSince } from '../../parts/useSince';
import { Word } from '../../ui/Button';
import { HazardMark } from '../../ui/Marks';
import { Head } from '../../ui/Words';

/** So many of the next steps have room. */
const NEXT = 5;

const clockText = (seconds: number): string => {
  const two = (n: number): string => String(n).padStart(2, '0');
  const minutes = Math.floor(seconds / 60);
  return minutes < 60
    ? `${minutes}:${two(Math.floor(seconds % 60))}`
    : `${Math.floor(minutes / 60)}:${two(minutes % 60)}:${two(Math.floor(seconds % 60))}`;
};

const Group = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <Box as="section" aria-label={title}>
    <Head borderBottom="firm" paddingBottom="1" marginBottom="1.5">
      {title}
    </Head>
    {children}
  </Box>
);

/** The clock of the step with its usual range. */
function Clock({ sheet, step, since }: { sheet: RunSheet; step: RunStep; since: string | null }) {
  const seconds = useSince(since);
  const usual = wholeOf(step);
  const late = seconds !== null && seconds > usual.high && usual.high > 0;
  return (
    <>
      <Text
        role="timer"
        aria-label="Time on this step"
        textStyle="far"
        fontFamily="mono"
        css={{ fontVariantNumeric: 'tabular-nums' }}
        color={late ? 'check' : 'fg'}
      >
        {seconds === null ? '–:––' : clockText(seconds)}
      </Text>
      <Text color="fg.muted">
        {step.foretold ? foretoldWords(step.foretold) : `usually ${formatSpan(usual)}`}
        {late ? ', longer than that' : ''}
      </Text>
      {step.alone.high > 0 && (
        <Text>
          {step.pauses || step.hands.high < step.alone.high
            ? `It goes on alone for ${formatSpan(step.alone)}.`
            : ''}
        </Text>
      )}
      {since !== null && isLeftAlone(step) && <TellMe>Tell me outside this page when it is over</TellMe>}
      {since === null && sheet.clock && sheet.clock.key !== step.key && (
        <Text textStyle="small">
          The clock runs on step {sheet.steps.find((s) => s.key === sheet.clock?.key)?.number}.
        </Text>
      )}
    </>
  );
}

/** Beside the step: its clock, what comes, what if it goes wrong, what it needs. */
export function RunMargin({
  plan,
  step,
  since,
  onGo,
  onAll,
}: {
  plan: Plan;
  step: RunStep;
  /** Since when it is worked on; null while it is not. */
  since: string | null;
  onGo: (key: string) => void;
  onAll: () => void;
}) {
  const { sheet } = plan;
  const words = runStepWords(step.what);
  const then = sheet.steps.filter((s) => s.number > step.number && isOpen(s)).slice(0, NEXT);
  const waits = sheet.steps.filter((s) => step.after.includes(s.key) && isOpen(s));
  return (
    <Stack gap="5" css={{ fontSize: '15.5px', lineHeight: 1.45 }}>
      <Group title="On this step">
        <Clock sheet={sheet} step={step} since={since} />
      </Group>
      {step.state === 'waits' && (
        <Group title="It waits for">
          {waits.slice(0, NEXT).map((s) => (
            <Text key={s.key}>
              <Word onClick={() => onGo(s.key)}>
                {s.number} {runStepWords(s.what).title}
              </Word>
            </Text>
          ))}
        </Group>
      )}
      {words.wrong !== '' && <Group title="If it goes wrong">{words.wrong}</Group>}
      {words.why !== '' && <Group title="Why">{words.why}</Group>}
      {then.length > 0 && (
        <Group title="Then">
          {then.map((s) => (
            <Text key={s.key} truncate>
              {s.number} {runStepWords(s.what).title}
            </Text>
          ))}
        </Group>
      )}
      {plan.reaches !== true && (
        <Group title="Its end">
          <Text>
            {plan.reaches === false && <HazardMark grade="stop" />} {planHeadline(plan)}{' '}
            <Word onClick={onAll}>Show what is lacking</Word>
          </Text>
        </Group>
      )}
      <Group title="Left">
        <Text>{leftWords(sheet)}</Text>
        <HStack gap="2" flexWrap="wrap">
          {step.needs.length > 0 && <Text>It takes: {step.needs.map(needWords).join(', ')}.</Text>}
          <Text>{step.pauses ? 'It can be left in the middle.' : 'Stay with it until it is done.'}</Text>
        </HStack>
      </Group>
    </Stack>
  );
}
