import { Box, List } from '@chakra-ui/react';
import { useMemo } from 'react';
import { takeWriteWay } from '@zb/core/acts/box';
import type { TradeLine } from '@zb/core/box/trade/line';
import { tradeLines } from '@zb/core/box/summary';
import { storesOf, type Bench, type Box as BoxRecord } from '@zb/core/model/bench';
import type { Stop } from '@zb/core/model/stops';
import { schoolWayWords, tradeWords, wayWords } from '@zb/core/words/trade';
import { stamp, useAct } from '../storage/hooks';
import { Cards } from '../ui/Cards';
import { Fold } from '../ui/Fold';
import { Head, Sub } from '../ui/Words';

/** The ways of a school with the one that is taken. */
function School({
  bench,
  box,
  line,
}: {
  bench: Bench;
  box: BoxRecord;
  line: Extract<TradeLine, { ways: unknown }>;
}) {
  const act = useAct();
  return (
    <Cards
      label="Which way?"
      value={line.taken}
      cards={line.ways.map((w) => ({
        value: w.way,
        title: wayWords(w.way).title,
        words: schoolWayWords(w),
      }))}
      onTake={(way) => {
        const taken = line.ways.find((w) => w.way === way);
        const drive = storesOf(bench).find((s) => s.id === line.driveId);
        if (taken) void act(takeWriteWay(box, taken, drive, stamp()));
      }}
    />
  );
}

/** What people who do this often look at here: a head each, why, and what to do. */
export function TradeLines({ bench, box, stop }: { bench: Bench; box: BoxRecord; stop: Stop }) {
  // Some of them judge the machine: once for a state of the bench, not whenever the stop is drawn again.
  const lines = useMemo(() => tradeLines(bench, box, stop), [bench, box, stop]);
  if (lines.length === 0) return null;
  return (
    <Box
      as="section"
      aria-label="From practice"
      marginTop="5"
      borderTop="thin"
      paddingTop="2.5"
      _print={{ display: 'none' }}
    >
      <Head>From practice</Head>
      <List.Root>
        {lines.map((l) => {
          const { title, because, steps } = tradeWords(l);
          return (
            <List.Item key={`${l.code} ${title}`} paddingBlock="1">
              <b>{title}</b>
              <Sub>{because}</Sub>
              {l.code === 'school: stick or adapter' && <School bench={bench} box={box} line={l} />}
              {steps.length > 0 && (
                <Fold title="Checks, and what each mistake looks like">
                  <List.Root marks="square">
                    {steps.map((s) => (
                      <List.Item key={s}>{s}</List.Item>
                    ))}
                  </List.Root>
                </Fold>
              )}
            </List.Item>
          );
        })}
      </List.Root>
    </Box>
  );
}
