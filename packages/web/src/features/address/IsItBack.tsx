import { urlPart } from '@zb/core/units/url';
import { Box, Text } from '@chakra-ui/react';
import { addEntry } from '@zb/core/acts/box';
import type { Box as Build, Profile } from '@zb/core/model/bench';
import type { Host } from '@zb/core/model/network';
import { answerSchema } from '@zb/core/model/standInLan';
import { formatDuration } from '@zb/core/units/duration';
import { useEffect, useState } from 'react';
import { getJson } from '../../parts/api';
import { useHealth } from '../../parts/writer';
import { stamp, useAct } from '../../storage/hooks';
import { Quiet, Word } from '../../ui/Button';
import { Segments } from '../../ui/Segments';
import { Acts, Data, Head, Sub } from '../../ui/Words';

/** So often it is asked. */
const EVERY_MS = 2000;
/** The port that is asked where its system has no page: its remote shell. */
const SHELL_PORT = 22;
const WHERE = ['the stand-in network', 'my own network'] as const;

interface Watch {
  from: number;
  seconds: number;
  state: 'asking' | 'there' | 'stopped';
  problem: string;
}

/** While a restart is waited for: one address is asked until it answers, and the time goes into the log. */
export function IsItBack({ box, host, profile }: { box: Build; host: Host; profile: Profile | undefined }) {
  const act = useAct();
  const health = useHealth();
  const [where, setWhere] = useState<(typeof WHERE)[number]>('the stand-in network');
  const [watch, setWatch] = useState<Watch | null>(null);
  const { address } = host;
  const asking = watch?.state === 'asking';
  const from = watch?.from;
  useEffect(() => {
    if (!asking || address === null || from === undefined) return;
    let here = true;
    let timer: ReturnType<typeof setTimeout>;
    const port = profile?.admin?.port ?? SHELL_PORT;
    const path =
      where === 'my own network'
        ? `/api/watch?address=${urlPart(address)}&port=${port}`
        : `/api/lan/answers?address=${urlPart(address)}`;
    const ask = async (): Promise<void> => {
      const seconds = (performance.now() - from) / 1000;
      try {
        const { answers } = await getJson(path, answerSchema);
        if (!here) return;
        setWatch({ from, seconds, state: answers ? 'there' : 'asking', problem: '' });
        if (answers) {
          const text = `${box.name} answers at ${address}, ${formatDuration(seconds)} after the watch began`;
          await act(addEntry(box, 'network', { kind: 'note', text }, stamp()));
          return;
        }
        timer = setTimeout(() => void ask(), EVERY_MS);
      } catch (error) {
        if (here)
          setWatch({
            from,
            seconds,
            state: 'stopped',
            problem: error instanceof Error ? error.message : String(error),
          });
      }
    };
    void ask();
    return () => {
      here = false;
      clearTimeout(timer);
    };
    // The box changes with the line it is given; the watch is of the address.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asking, address, from, where]);
  if (address === null) return null;
  const real = health.data?.lan === true;
  return (
    <Box as="section" aria-label="Is it back?">
      <Head marginBottom="1">Is it back?</Head>
      <Acts>
        {real && <Segments label="Where it is asked" options={WHERE} value={where} onTake={setWhere} />}
        {asking ? (
          <>
            <Data>{formatDuration(watch.seconds)}</Data>
            <Word onClick={() => setWatch({ ...watch, state: 'stopped' })}>stop asking</Word>
          </>
        ) : (
          <Quiet
            onClick={() => setWatch({ from: performance.now(), seconds: 0, state: 'asking', problem: '' })}
          >
            Ask {address} until it answers
          </Quiet>
        )}
      </Acts>
      <Text role="status">
        {watch?.state === 'there' ? `It answers, after ${formatDuration(watch.seconds)}.` : watch?.problem}
      </Text>
      {!real && (
        <Sub>
          Asked in the stand-in network. For your own, start the server with <Data>ZB_LAN=1</Data>: then it
          asks this one address, when you say so.
        </Sub>
      )}
    </Box>
  );
}
