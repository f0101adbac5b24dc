import { Box, HStack } from '@chakra-ui/react';
import { Ban, Undo2 } from 'lucide-react';
import type { Aim } from '@zb/core/rehearsal/ending';
import type { Precaution } from '@zb/core/rehearsal/precautions';
import type { Rehearsal, Tried } from '@zb/core/rehearsal/rehearse';
import { effectWords, precautionCost, precautionWords, type NameOf } from '@zb/core/words/rehearsal';
import { Checkbox } from '../../ui/Checkbox';
import { IconButton } from '../../ui/IconButton';
import { Cell, Line, Ruled } from '../../ui/Ruled';
import { Head, Soft, Sub } from '../../ui/Words';

/** Every precaution by itself: on or off, what it costs, and what it changes against its absence. */
export function Precautions({
  rehearsal,
  aim,
  nameOf,
  always,
  refused,
  onSwitch,
  onRefuse,
}: {
  rehearsal: Rehearsal;
  aim: Aim;
  nameOf: NameOf;
  /** Taken whatever is decided. */
  always: readonly string[];
  refused: readonly { id: string; words: string }[];
  onSwitch: (tried: Tried) => void;
  onRefuse: (p: Pick<Precaution, 'id'>, refuse: boolean, words: string) => void;
}) {
  const { precautions } = rehearsal;
  return (
    <Box role="group" aria-label="Precautions">
      <Head>Try a precaution</Head>
      <Ruled
        dense
        label="Precautions"
        heads={['Precaution', 'What it does', { words: 'Leave out', silent: true }]}
      >
        {precautions.map((t, i) => {
          const words = precautionWords(t.precaution, nameOf);
          return (
            <Line key={t.precaution.id} here={t.on}>
              <Cell>
                <Checkbox
                  checked={t.on}
                  disabled={always.includes(t.precaution.id)}
                  onChange={() => onSwitch(t)}
                >
                  {words}
                  <Sub>
                    {i < 9 ? `${i + 1} · ` : ''}
                    {precautionCost(t.precaution)}
                  </Sub>
                </Checkbox>
              </Cell>
              <Cell>
                <Sub>{effectWords(t.effect, aim)}</Sub>
              </Cell>
              <Cell>
                <IconButton
                  word={`Leave out: ${words}`}
                  small
                  icon={<Ban />}
                  onClick={() => onRefuse(t.precaution, true, words)}
                />
              </Cell>
            </Line>
          );
        })}
      </Ruled>
      {refused.length > 0 && (
        <Box marginTop="2">
          <Head>Left out</Head>
          {refused.map((r) => (
            <HStack key={r.id} justify="space-between" borderBottom="thin">
              <Soft>{r.words}</Soft>
              <IconButton
                word={`Consider again: ${r.words}`}
                small
                icon={<Undo2 />}
                onClick={() => onRefuse(r, false, r.words)}
              />
            </HStack>
          ))}
        </Box>
      )}
    </Box>
  );
}
