import { Box, chakra, HStack, Stack } from '@chakra-ui/react';
import { Minus, Plus, X } from 'lucide-react';
import { useState } from 'react';
import { keepTray } from '@zb/core/acts/install';
import type { Box as Build } from '@zb/core/model/bench';
import { onTray, type Screws } from '@zb/core/model/opening';
import { colour } from '../../drawing/patterns';
import { useAct } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Input } from '../../ui/Input';
import { Data, Head, Soft, Sub } from '../../ui/Words';

const PITCH = 16;

/** Screws of one hole as they lie on the tray: those that are back are drawn empty. */
const Heads = ({ out, back }: Pick<Screws, 'out' | 'back'>) => (
  <chakra.svg
    role="img"
    aria-label={`${out} out, ${back} back`}
    viewBox={`0 0 ${Math.max(1, out) * PITCH} 16`}
    css={{ height: '16px', maxWidth: '100%' }}
  >
    {Array.from({ length: out }, (_, i) => (
      <g key={i} transform={`translate(${i * PITCH + 8} 8)`} opacity={i < back ? 0.35 : 1}>
        <circle r="6" fill="none" stroke={colour('fg')} strokeDasharray={i < back ? '2 2' : undefined} />
        {i >= back && <path d="M-3.5 0H3.5M0 -3.5V3.5" stroke={colour('fg')} strokeWidth="1.6" />}
      </g>
    ))}
  </chakra.svg>
);

/** The tray: screws by the hole they came out of, counted out and back. */
export function ScrewTray({
  box,
  tray,
  expected,
}: {
  box: Build;
  tray: readonly Screws[];
  /** How many such a machine has as a rule. */
  expected: number;
}) {
  const act = useAct();
  const [hole, setHole] = useState('');
  const change = (at: number, to: Partial<Screws>): void =>
    void act(
      keepTray(
        box,
        tray.map((s, i) => {
          if (i !== at) return s;
          const out = Math.min(99, Math.max(0, to.out ?? s.out));
          return { ...s, out, back: Math.min(out, Math.max(0, to.back ?? s.back)) };
        }),
      ),
    );
  const name = hole.trim();
  const taken = tray.some((s) => s.hole === name);
  const { out, back } = onTray(tray);
  return (
    <Box role="group" aria-label="Tray of screws" border="firm" padding="3">
      <HStack justify="space-between">
        <Head>Screws by hole</Head>
        <Data>{out === 0 ? `about ${expected} as a rule` : `${back} of ${out} back`}</Data>
      </HStack>
      <Stack gap="1.5" marginBlock="2">
        {tray.length === 0 && <Soft>Name a hole when the first screw comes out of it.</Soft>}
        {tray.map((s, i) => (
          <Box key={s.hole} borderBottom="thin" paddingBottom="1">
            <HStack justify="space-between" gap="2" flexWrap="wrap">
              <b>{s.hole}</b>
              <HStack gap="1">
                <Sub>out</Sub>
                <IconButton
                  small
                  word={`${s.hole}: one less out`}
                  icon={<Minus />}
                  onClick={() => change(i, { out: s.out - 1 })}
                />
                <Data>{s.out}</Data>
                <IconButton
                  small
                  word={`${s.hole}: one more out`}
                  icon={<Plus />}
                  onClick={() => change(i, { out: s.out + 1 })}
                />
                <Sub>back</Sub>
                <IconButton
                  small
                  word={`${s.hole}: one less back`}
                  icon={<Minus />}
                  onClick={() => change(i, { back: s.back - 1 })}
                />
                <Data>{s.back}</Data>
                <IconButton
                  small
                  word={`${s.hole}: one more back`}
                  icon={<Plus />}
                  onClick={() => change(i, { back: s.back + 1 })}
                />
                <IconButton
                  small
                  word={`Take ${s.hole} off the tray`}
                  icon={<X />}
                  onClick={() =>
                    void act(
                      keepTray(
                        box,
                        tray.filter((_, j) => j !== i),
                      ),
                    )
                  }
                />
              </HStack>
            </HStack>
            <Heads out={s.out} back={s.back} />
          </Box>
        ))}
      </Stack>
      <HStack asChild gap="2" align="flex-end">
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (name === '' || taken) return;
            void act(keepTray(box, [...tray, { hole: name.slice(0, 60), out: 1, back: 0 }]));
            setHole('');
          }}
        >
          <Input
            label="Hole"
            value={hole}
            maxLength={60}
            error={taken ? 'This hole is on the tray already.' : undefined}
            onChange={(e) => setHole(e.target.value)}
          />
          <Quiet type="submit">Onto the tray</Quiet>
        </form>
      </HStack>
    </Box>
  );
}
