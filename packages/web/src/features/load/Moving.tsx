import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { tickMove } from '@zb/core/acts/storage';
import { judgedOn } from '@zb/core/box/today';
import type { Box as Build } from '@zb/core/model/bench';
import { moveSteps, type Moving } from '@zb/core/model/moving';
import { moveCommand } from '@zb/core/storage/moveCommand';
import { moveState } from '@zb/core/storage/moving';
import { formatMoment } from '@zb/core/units/date';
import { backWords, moveFaultWords, moveStepWords } from '@zb/core/words/moving';
import { stamp, useAct } from '../../storage/hooks';
import { Quiet, Word } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Data, Head, Sub } from '../../ui/Words';
import { MovingForm } from './MovingForm';

/** Databases that move here from an old server: step by step, counted on both sides, with a way back. */
export function MovingHere({ box }: { box: Build }) {
  const act = useAct();
  const [open, setOpen] = useState<Moving | 'new' | null>(null);
  const today = judgedOn() ?? '';
  return (
    <Box as="section" aria-label="Databases that move here">
      <Head marginBottom="1">Databases that move here</Head>
      <Stack gap="4">
        {box.moving.map((m) => {
          const state = moveState(m, today);
          return (
            <Stack key={m.id} gap="2">
              <Box>
                <Word onClick={() => setOpen(m)}>{m.what}</Word>, {m.kind}
                {m.from !== '' && `, from ${m.from}`}
                <Sub>{backWords(state)}</Sub>
              </Box>
              {state.findings.map((f) => (
                <Said key={f.fault.code} kind={f.grade} loud={false}>
                  {moveFaultWords(f.fault)}
                </Said>
              ))}
              <Ruled
                stacked
                label={`Steps for ${m.what}`}
                heads={['Step', 'What is done, and typed', 'Done']}
              >
                {moveSteps.map((s) => {
                  const { title, what } = moveStepWords(s);
                  const command = moveCommand(m, s);
                  const at = m.done[s];
                  return (
                    <Line key={s} here={s === state.next}>
                      <LineHead>
                        <Checkbox
                          checked={at !== undefined}
                          onChange={(on) => void act(tickMove(box, m, s, on, title, stamp()))}
                        >
                          {title}
                        </Checkbox>
                      </LineHead>
                      <Cell whole>
                        {what}
                        {command !== null && (
                          <Sub>
                            <Data whiteSpace="pre-wrap" overflowWrap="anywhere">
                              {command}
                            </Data>
                          </Sub>
                        )}
                      </Cell>
                      <Cell>{at !== undefined && formatMoment(at)}</Cell>
                    </Line>
                  );
                })}
              </Ruled>
            </Stack>
          );
        })}
        <Box>
          <Quiet onClick={() => setOpen('new')}>
            {box.moving.length === 0 ? 'Something moves here from an old server' : 'Another one'}
          </Quiet>
        </Box>
      </Stack>
      {open !== null && (
        <MovingForm box={box} moved={open === 'new' ? null : open} onClose={() => setOpen(null)} />
      )}
    </Box>
  );
}
