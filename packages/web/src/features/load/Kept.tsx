import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { checkCopies } from '@zb/core/storage/backup';
import { judgedOn } from '@zb/core/box/today';
import type { Box as Build } from '@zb/core/model/bench';
import type { KeptThing } from '@zb/core/model/storage';
import { formatIec } from '@zb/core/units/bytes';
import { formatDay } from '@zb/core/units/date';
import { copyFaultWords } from '@zb/core/words/poolFault';
import { copiesWords, placeWords } from '@zb/core/words/storage';
import { Primary, Word } from '../../ui/Button';
import { HazardMark } from '../../ui/Marks';
import { Nothing } from '../../ui/Nothing';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Sub } from '../../ui/Words';
import { MovingHere } from './Moving';
import { ThingForm } from './ThingForm';

/** What must not be lost, where its copies are, and what is wanting. */
export function Kept({ box }: { box: Build }) {
  const [open, setOpen] = useState<KeptThing | 'new' | null>(null);
  const today = judgedOn();
  const wanting = (thing: KeptThing) => (today === undefined ? [] : checkCopies([thing], today));
  return (
    <Stack gap="4">
      <Said>
        What a pool keeps twice is one copy. Three copies, on two kinds of thing, one of them in another
        house, and once a year something brought back from them: that is a backup.
      </Said>
      {box.things.length === 0 ? (
        <Nothing
          title="Nobody has said what must not be lost"
          words="Name it with its copies: what is wanting is told here, until it is not."
        >
          <Primary onClick={() => setOpen('new')}>Name the first</Primary>
        </Nothing>
      ) : (
        <>
          <Ruled
            stacked
            label="What must not be lost"
            heads={['What', { words: 'Size', figure: true }, 'Copies', 'Brought back', 'Wanting']}
          >
            {box.things.map((t) => (
              <Line key={t.id}>
                <LineHead>
                  <Word onClick={() => setOpen(t)}>{t.what}</Word>
                </LineHead>
                <Num>{t.bytes === null ? '' : formatIec(t.bytes)}</Num>
                <Cell>
                  {copiesWords(t)}
                  {t.copies.map((c, i) => (
                    <Sub key={i}>
                      {[placeWords(c.where), c.name, c.at && formatDay(c.at)].filter(Boolean).join(', ')}
                    </Sub>
                  ))}
                </Cell>
                <Cell>{t.restored === null ? 'never' : formatDay(t.restored)}</Cell>
                <Cell whole>
                  {wanting(t).map((f) => (
                    <Box key={f.fault.code}>
                      <HazardMark grade={f.grade} /> {copyFaultWords(f.fault)}
                    </Box>
                  ))}
                </Cell>
              </Line>
            ))}
          </Ruled>
          <Box>
            <Primary onClick={() => setOpen('new')}>Name another</Primary>
          </Box>
        </>
      )}
      <MovingHere box={box} />
      {open !== null && (
        <ThingForm box={box} thing={open === 'new' ? null : open} onClose={() => setOpen(null)} />
      )}
    </Stack>
  );
}
