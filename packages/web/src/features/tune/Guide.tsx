import { Box, HStack, Text } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Experiment } from '@zb/core/model/tune';
import { endOfThree } from '@zb/core/tune/numbers/exponential';
import { formatDuration } from '@zb/core/units/duration';
import { formatNumber } from '@zb/core/units/number';
import { Quiet } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Fold } from '../../ui/Fold';
import { Input } from '../../ui/Input';
import { Working } from '../../ui/Working';
import { Sub } from '../../ui/Words';

const STEPS = [
  {
    key: 'settle',
    of: (e: Experiment) => e.settleSeconds,
    does: 'Let it settle under its load; do nothing else on it.',
  },
  {
    key: 'measure',
    of: (e: Experiment) => e.measureSeconds,
    does: 'Measure now: frames, temperatures, watts.',
  },
  { key: 'cool', of: (e: Experiment) => e.coolSeconds, does: 'Let it cool before the next run.' },
] as const;

/** The clock of a run: settle, measure, cool, with what to do in each. */
export function Guide({ experiment }: { experiment: Experiment }) {
  const [began, setBegan] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (began === null) return;
    const tick = setInterval(() => setNow(performance.now()), 500);
    return () => clearInterval(tick);
  }, [began]);
  const steps = STEPS.filter((s) => s.of(experiment) > 0);
  const whole = steps.reduce((s, x) => s + x.of(experiment), 0);
  const gone = began === null ? 0 : Math.max(0, (now - began) / 1000);
  const ends = steps.map((_, i) => steps.slice(0, i + 1).reduce((s, x) => s + x.of(experiment), 0));
  const at = ends.findIndex((e) => gone < e);
  const step = steps[at];
  return (
    <Box as="section" aria-label="The run’s clock">
      <Text>{steps.map((s) => `${s.key} ${formatDuration(s.of(experiment))}`).join(', then ')}.</Text>
      {began === null ? (
        <Quiet
          marginTop="1"
          onClick={() => {
            setNow(performance.now());
            setBegan(performance.now());
          }}
        >
          Start the clock
        </Quiet>
      ) : step ? (
        <Working
          label={step.does}
          done={gone}
          whole={whole}
          says={`${formatDuration((ends[at] ?? 0) - gone)} of this left`}
          onCancel={() => setBegan(null)}
          cancelWord="Stop the clock"
        />
      ) : (
        <HStack>
          <Text role="status">The run is over: note its figures.</Text>
          <Quiet onClick={() => setBegan(null)}>Again</Quiet>
        </HStack>
      )}
      {experiment.settleSeconds > 0 && (
        <Fold title="Where will it end? Three readings, equally far apart">
          <ThreePoints />
        </Fold>
      )}
    </Box>
  );
}

/** The end of a temperature from three readings at equal distances. */
function ThreePoints() {
  const [typed, setTyped] = useState(['', '', '']);
  const [a, b, c] = typed.map((t) => (t.trim() === '' ? NaN : Number(t.replace(',', '.'))));
  const all = [a, b, c].every((x) => Number.isFinite(x));
  const end = all ? endOfThree(a ?? 0, b ?? 0, c ?? 0) : undefined;
  return (
    <Box marginTop="1">
      <FormGrid>
        {['First', 'Second', 'Third'].map((word, i) => (
          <Input
            key={word}
            label={`${word} reading, °C`}
            data
            inputMode="decimal"
            value={typed[i] ?? ''}
            onChange={(e) => setTyped(typed.map((t, k) => (k === i ? e.target.value : t)))}
          />
        ))}
      </FormGrid>
      <Sub role="status">
        {end !== undefined
          ? `It ends near ${formatNumber(end, 1)} °C, if it settles with one time constant.`
          : all
            ? 'These three do not settle: each step must be smaller than the one before, and go the same way.'
            : 'Such as after 5, 10 and 15 minutes.'}
      </Sub>
    </Box>
  );
}
