import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { editGate } from '@zb/core/acts/rules';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import { noGate } from '@zb/core/model/gate';
import { carrierOf } from '@zb/core/rules/forBox';
import { expectedPace, readIperf } from '@zb/core/rules/pace';
import { withoutItem } from '@zb/core/units/list';
import { bitsWords, boundWords, paceLineWords } from '@zb/core/words/rules';
import { stamp, useAct } from '../../../storage/hooks';
import { Primary, Word } from '../../../ui/Button';
import { Input, Lines } from '../../../ui/Input';
import { Cell, Line, LineHead, Num, Ruled } from '../../../ui/Ruled';
import { Said } from '../../../ui/Said';
import { Head, Sub } from '../../../ui/Words';

/** How much goes through, as it is expected and as it was measured. */
export function Pace({ bench, box }: { bench: Bench; box: Build }) {
  const act = useAct();
  const carrier = carrierOf(bench, box);
  const paces = box.gate?.paces ?? noGate().paces;
  const [text, setText] = useState('');
  const [what, setWhat] = useState('');
  const [fault, setFault] = useState('');
  const take = (): void => {
    const typed = Number(text.trim().replace(',', '.'));
    const read = readIperf(text);
    const bits =
      read?.bitsPerSecond ?? (text.trim() !== '' && Number.isFinite(typed) && typed > 0 ? typed * 1e6 : null);
    if (bits === null) {
      setFault('That is neither a number of Mb/s nor what “iperf3 -J” prints. Nothing was changed.');
      return;
    }
    const { now, id } = stamp();
    const pace = {
      id: id(),
      what: what.trim() || (read ? `iperf3, ${read.protocol}` : 'typed'),
      bitsPerSecond: bits,
      packetBytes: null,
      encrypted: false,
      at: read?.at ?? now,
    };
    setFault('');
    setText('');
    void act(editGate(box, { paces: [...paces, pace] }, `${bitsWords(bits)} noted`));
  };
  return (
    <Stack gap="5">
      <Box as="section" aria-label="Expected">
        <Head marginBottom="1">What may be expected</Head>
        <Ruled
          stacked
          label="Expected"
          heads={[
            'Packets',
            { words: 'Through', figure: true },
            { words: 'Wire takes, a second', figure: true },
            'Because',
          ]}
        >
          {expectedPace(carrier).map((l) => (
            <Line key={`${l.packetBytes} ${l.encrypted}`}>
              <LineHead>{paceLineWords(l)}</LineHead>
              <Num>
                {l.bits
                  ? l.bits.low === l.bits.high
                    ? bitsWords(l.bits.low)
                    : `${bitsWords(l.bits.low)} – ${bitsWords(l.bits.high)}`
                  : 'not known'}
              </Num>
              <Num>{l.wirePackets?.toLocaleString('en') ?? 'not known'}</Num>
              <Cell>{boundWords(l.bound)}</Cell>
            </Line>
          ))}
        </Ruled>
        <Sub>
          The wire by IEEE 802.3; what a processor takes for a packet is common practice, no source. Small
          packets tell more than large ones: names and calls are made of them.
        </Sub>
      </Box>
      <Box as="section" aria-label="Measured">
        <Head marginBottom="1">Wire to wire, measured</Head>
        {paces.length > 0 && (
          <Ruled
            dense
            label="Measured"
            heads={['What', { words: 'Through', figure: true }, { words: 'Take away', silent: true }]}
          >
            {paces.map((p) => (
              <Line key={p.id}>
                <LineHead>
                  {p.what}
                  <Sub>{p.at.slice(0, 10)}</Sub>
                </LineHead>
                <Num>{bitsWords(p.bitsPerSecond)}</Num>
                <Cell>
                  <Word
                    aria-label={`take away ${p.what}`}
                    onClick={() =>
                      void act(editGate(box, { paces: withoutItem(paces, p.id) }, 'A figure taken away'))
                    }
                  >
                    take away
                  </Word>
                </Cell>
              </Line>
            ))}
          </Ruled>
        )}
        <Stack gap="3" marginTop="2">
          <Input
            label="Between what"
            placeholder="hall to outside"
            value={what}
            onChange={(e) => setWhat(e.target.value)}
          />
          <Lines
            label="Mb/s, or what “iperf3 -J” printed"
            data
            rows={3}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          {fault !== '' && <Said kind="check">{fault}</Said>}
          <Primary alignSelf="flex-start" onClick={take}>
            Note it
          </Primary>
        </Stack>
      </Box>
    </Stack>
  );
}
