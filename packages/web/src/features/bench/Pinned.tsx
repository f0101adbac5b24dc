import { Box, HStack } from '@chakra-ui/react';
import { addDays, addSeconds, format, isValid, parse } from 'date-fns';
import { useState } from 'react';
import { stretchesOf, type Evening } from '@zb/core/box/evening';
import type { Solved } from '@zb/core/schedule/solve';
import { lateWords } from '@zb/core/words/evening';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { Quiet, Word } from '../../ui/Button';
import { Fold } from '../../ui/Fold';
import { Input } from '../../ui/Input';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import type { Pins } from './pins';

/** What is pinned, and the way to pin a step without dragging. */
export function Pinned({
  evening,
  plan,
  from,
  pins,
  onPins,
}: {
  evening: Evening;
  plan: Solved;
  from: Date;
  pins: Pins;
  onPins: (to: Pins) => void;
}) {
  const rows = stretchesOf(evening, plan).flatMap((row, b) =>
    row
      .filter((s) => s.free > s.from)
      .map((s) => ({
        key: s.key,
        words: `${evening.problem.boxes[b]?.name ?? ''}: ${runStepWords(s.step.what).title}`,
        begins: format(addSeconds(from, s.from), 'HH:mm'),
      })),
  );
  const [key, setKey] = useState('');
  const chosen = rows.find((r) => r.key === key) ?? rows[0];
  const [at, setAt] = useState('');
  const pinned = rows.filter((r) => pins.at.has(r.key));
  const late = lateWords(plan);
  return (
    <Box>
      {late !== '' && <Said kind="check">{late}</Said>}
      {pinned.length > 0 && (
        <Ruled
          dense
          label="Pinned steps"
          heads={['Pinned', 'To begin', 'Begins', { words: '', silent: true }]}
        >
          {pinned.map((r) => (
            <Line key={r.key}>
              <LineHead>{r.words}</LineHead>
              <Cell>{format(pins.at.get(r.key) ?? from, 'HH:mm')}</Cell>
              <Cell>{r.begins}</Cell>
              <Cell>
                <Word onClick={() => onPins(pins.with(r.key, null))} aria-label={`Let it go: ${r.words}`}>
                  Let it go
                </Word>
              </Cell>
            </Line>
          ))}
        </Ruled>
      )}
      {chosen && (
        <Fold title="Pin a step">
          <HStack gap="3" align="flex-end" flexWrap="wrap" marginTop="2">
            <Box flex="1 1 280px">
              <Select
                label="A step"
                value={chosen.key}
                onChange={(e) => setKey(e.target.value)}
                options={rows.map((r) => ({ value: r.key, words: r.words }))}
              />
            </Box>
            <Input
              label="Begins at"
              type="time"
              width="auto"
              value={at === '' ? chosen.begins : at}
              onChange={(e) => setAt(e.target.value)}
            />
            <Quiet
              onClick={() => {
                const to = parse(at === '' ? chosen.begins : at, 'HH:mm', from);
                // What lies before now is of the next day.
                if (isValid(to)) onPins(pins.with(chosen.key, to < from ? addDays(to, 1) : to));
              }}
            >
              Pin it
            </Quiet>
          </HStack>
        </Fold>
      )}
    </Box>
  );
}
