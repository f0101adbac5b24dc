import { Stack, Text } from '@chakra-ui/react';
import type { MeasuredSteps as Measured } from '@zb/core/box/measuredSteps';
import { formatDuration, formatSpan } from '@zb/core/units/duration';
import { calibrationWords } from '@zb/core/words/learning';
import { TimeBar, TimeTicks } from '../../drawing/TimeBar';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';

/** The latest steps, each with its range and what it took, and how often ranges held. */
export function MeasuredSteps({ latest, calibration, within }: Measured) {
  return (
    <Stack gap="2">
      <Text>
        {calibrationWords(calibration)} Ruled: the range of eight in ten, its line the middle. Dot: what it
        took.
      </Text>
      {latest.length > 0 && (
        <Ruled
          label="Steps foretold and measured"
          dense
          stacked
          heads={[
            'Step',
            'Box',
            {
              words: (
                <>
                  Foretold and taken
                  <TimeTicks within={within} />
                </>
              ),
              width: '36%',
            },
            { words: 'Foretold', figure: true },
            { words: 'Took', figure: true },
          ]}
        >
          {latest.map((s) => (
            <Line key={`${s.boxId} ${s.at} ${s.said}`}>
              <LineHead whole>{s.said}</LineHead>
              <Cell>{s.box}</Cell>
              <Cell>
                <TimeBar
                  range={s.range}
                  median={s.median}
                  took={s.seconds}
                  within={within}
                  words={`foretold ${formatSpan(s.range)}, took ${formatDuration(s.seconds)}`}
                />
              </Cell>
              <Num>{formatSpan(s.range)}</Num>
              <Num>{formatDuration(s.seconds)}</Num>
            </Line>
          ))}
        </Ruled>
      )}
    </Stack>
  );
}
