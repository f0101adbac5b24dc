import { Box, Stack, Text } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { takeWay } from '@zb/core/acts/storage';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import { poolManners, type PoolManner } from '@zb/core/model/storage';
import type { BoxStorage } from '@zb/core/storage/forBox';
import { offers, sameWay, type PoolOffer } from '@zb/core/storage/ways';
import { formatIec } from '@zb/core/units/bytes';
import { formatSpan } from '@zb/core/units/duration';
import {
  failuresWords,
  lettersOf,
  luckWords,
  faultBecause,
  faultWords,
  mannerCase,
  rowsWords,
  survivesWords,
  takenBecause,
  wayTitle,
} from '@zb/core/words/storage';
import { PoolColumns } from '../../drawing/PoolColumns';
import { stamp, useAct } from '../../storage/hooks';
import { Word } from '../../ui/Button';
import { Nothing } from '../../ui/Nothing';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Segments } from '../../ui/Segments';
import { Head, Sub } from '../../ui/Words';
import { Checkbox } from '../../ui/Checkbox';
import { Why } from '../../ui/Why';
import { Drives } from './Drives';
import { Keeping } from './Keeping';
import { OfPool } from './OfPool';

/** One way as a line of the table: taken by its name. */
function WayLine({
  offer: o,
  letters,
  taken,
  onTake,
}: {
  offer: PoolOffer;
  letters: ReadonlyMap<string, string>;
  taken: boolean;
  onTake: () => void;
}) {
  const rows = rowsWords(o.pool, letters);
  const luck = luckWords(o.survival);
  return (
    <Line here={taken}>
      <LineHead>
        <Word onClick={onTake} aria-pressed={taken}>
          {wayTitle(o.pool.way)}
        </Word>
        <Sub>{[taken ? 'taken' : '', rows].filter(Boolean).join('; ')}</Sub>
      </LineHead>
      <Num>{formatIec(o.room.usable)}</Num>
      <Cell>
        <Why of={survivesWords(o.survival)}>
          <Stack gap="1">
            {o.survival.by.map((f) => (
              <span key={f.failed}>{failuresWords(f)}</span>
            ))}
          </Stack>
        </Why>
        {luck !== '' && <Sub>{luck}</Sub>}
      </Cell>
      <Num>
        {o.rebuild ? (
          <Why of={formatSpan(o.rebuild.seconds)}>
            While nobody else uses the pool. While it is in use: {formatSpan(o.rebuild.busy)}, since a rebuild
            yields to it (common practice).
          </Why>
        ) : (
          '–'
        )}
      </Num>
      <Num>
        {o.rebuild ? <Why of={faultWords(o.rebuild.fault)}>{faultBecause(o.rebuild.fault)}</Why> : '–'}
      </Num>
    </Line>
  );
}

/** Drives as columns, every way they make, and what is told of the one that was taken. */
export function Pool({ bench, box, found }: { bench: Bench; box: Build; found: BoxStorage }) {
  const act = useAct();
  const { chosen, drives, pool } = found;
  const [manner, setManner] = useState<PoolManner>(pool.way?.manner ?? 'groups');
  const [spares, setSpares] = useState(pool.way?.spare ?? false);
  const all = useMemo(
    () => offers({ drives, filled: pool.filled }, { manner, spares }),
    [drives, pool.filled, manner, spares],
  );
  const letters = lettersOf(drives);
  const shown = chosen ?? all[0];
  const take = (o: PoolOffer): void =>
    void act(takeWay(box, o.pool.way, { way: wayTitle(o.pool.way), because: takenBecause(o) }, stamp()));
  if (drives.length === 0)
    return (
      <Stack gap="4">
        <Nothing
          title="No drive takes part yet"
          words="Tick the drives that may. The one that carries the system keeps its port, and what must be kept is not proposed."
        />
        <Drives bench={bench} box={box} found={found} />
      </Stack>
    );
  return (
    <Stack gap="5">
      <Stack direction={{ base: 'column', lg: 'row' }} gap="6" align="flex-start">
        {shown && (
          <Box css={{ flex: '0 0 264px', maxWidth: '100%' }}>
            <Head marginBottom="1">
              {chosen ? wayTitle(chosen.pool.way) : `As it would be: ${wayTitle(shown.pool.way)}`}
            </Head>
            <PoolColumns drives={drives} letters={letters} shares={shown.room.shares} />
          </Box>
        )}
        <Stack gap="2" flex="1" minWidth="0" width="full">
          <Segments
            label="How bytes are spread"
            options={poolManners.map((m) => ({ value: m, words: mannerCase(m).title }))}
            value={manner}
            onTake={setManner}
          />
          <Sub>{mannerCase(manner).because}</Sub>
          <Ruled
            stacked
            label="Ways these drives make"
            heads={[
              'Way',
              { words: 'Yours', figure: true },
              'Survives',
              { words: 'Rebuild', figure: true },
              { words: 'Rated read fault', figure: true },
            ]}
          >
            {all.map((o) => (
              <WayLine
                key={wayTitle(o.pool.way)}
                offer={o}
                letters={letters}
                taken={pool.way !== null && sameWay(o.pool.way, pool.way)}
                onTake={() => take(o)}
              />
            ))}
          </Ruled>
          {manner !== 'groups' && drives.length > 2 && (
            <Checkbox checked={spares} onChange={setSpares}>
              also with one drive that waits for a failure
            </Checkbox>
          )}
          {pool.way !== null && !chosen && (
            <Said kind="check">
              {`“${wayTitle(pool.way)}” was taken, and these drives no longer make it. Take another way, or put the drives back.`}
            </Said>
          )}
          <Text>
            <b>A pool that survives a drive is not a backup.</b> A slip, a bad supply or a fire takes all of
            it at once.
          </Text>
        </Stack>
      </Stack>
      {chosen && <OfPool offer={chosen} />}
      <Drives bench={bench} box={box} found={found} />
      {chosen && <Keeping box={box} pool={pool} usable={chosen.room.usable} />}
    </Stack>
  );
}
