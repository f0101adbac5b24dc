import { claimWords } from '@zb/core/words/claim';
import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { editPool } from '@zb/core/acts/storage';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import type { BoxStorage, PoolCandidate } from '@zb/core/storage/forBox';
import { exponentOf } from '@zb/core/storage/poolDrive';
import { formatSi } from '@zb/core/units/bytes';
import { useAct } from '../../storage/hooks';
import { Word } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { To } from '../../ui/To';
import { Data, Head, Soft, Sub } from '../../ui/Words';
import { TellDrive } from './TellDrive';
import { Wipe } from './Wipe';

/** Every drive that could take part: which do, what is known of each, and what lies on it. */
export function Drives({ box, found }: { bench: Bench; box: Build; found: BoxStorage }) {
  const act = useAct();
  const [open, setOpen] = useState<{ what: 'tell' | 'wipe'; id: string } | null>(null);
  const of = (what: 'tell' | 'wipe'): PoolCandidate | undefined =>
    open?.what === what ? found.candidates.find((c) => c.store.id === open.id) : undefined;
  const taken = found.candidates.filter((c) => c.taken).map((c) => c.store.id);
  const toggle = (c: PoolCandidate, on: boolean): void => {
    const drives = on ? [...taken, c.store.id] : taken.filter((id) => id !== c.store.id);
    void act(editPool(box, { drives }, `“${c.store.name}” ${on ? 'takes part' : 'left out'}`));
  };
  const tell = of('tell');
  const wipe = of('wipe');
  return (
    <Box as="section" aria-label="Drives">
      <Head marginBottom="1">Drives</Head>
      <Ruled
        stacked
        label="Drives that may take part"
        heads={[
          'Takes part',
          { words: 'Size', figure: true },
          { words: 'Sector', figure: true },
          { words: 'Unread bits, at most', figure: true },
          { words: 'Worn', figure: true },
          'On it',
        ]}
      >
        {found.candidates.map((c) => {
          const { exponent, assumed } = exponentOf(c.drive);
          return (
            <Line key={c.store.id} here={c.taken}>
              <LineHead>
                {c.system ? (
                  <>
                    {c.store.name} <Sub>carries the system; its port stays its own</Sub>
                  </>
                ) : (
                  <Checkbox
                    checked={c.taken}
                    disabled={c.held !== null && !c.taken}
                    onChange={(on) => toggle(c, on)}
                  >
                    {c.store.name}
                  </Checkbox>
                )}
                {c.held && <Sub>{claimWords(c.held)}</Sub>}
                <Sub>
                  <Data>{c.store.serial ?? 'no serial'}</Data>
                  {!c.inside && ', lies beside'}
                </Sub>
              </LineHead>
              <Num>{formatSi(c.drive.bytes)}</Num>
              <Num>{c.drive.sectorBytes ?? '?'}</Num>
              <Num>
                1 in 10<sup>{exponent}</sup>
                {assumed && <Soft> assumed</Soft>}
              </Num>
              <Num>{c.drive.wear === null ? '?' : `${c.drive.wear} %`}</Num>
              <Cell>
                {c.store.fate === 'keep' ? (
                  <>must be kept: {c.holds || 'nobody said what'}</>
                ) : (
                  c.holds || 'nothing'
                )}
                <Sub>
                  <Word onClick={() => setOpen({ what: 'tell', id: c.store.id })}>say more</Word>
                  {c.taken && c.holds !== '' && c.store.fate === 'may be lost' && (
                    <>
                      {' · '}
                      <Word onClick={() => setOpen({ what: 'wipe', id: c.store.id })}>it is wiped</Word>
                    </>
                  )}
                  {' · '}
                  <To to={`/shelf/${c.store.id}`}>on the shelf</To>
                </Sub>
              </Cell>
            </Line>
          );
        })}
      </Ruled>
      {tell && <TellDrive store={tell.store} onClose={() => setOpen(null)} />}
      {wipe && <Wipe box={box} candidate={wipe} onClose={() => setOpen(null)} />}
    </Box>
  );
}
