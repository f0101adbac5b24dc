import { Box, chakra, HStack, Stack, Text } from '@chakra-ui/react';
import { useCallback, useState } from 'react';
import { dropPad, keepPad } from '@zb/core/acts/firstStart';
import {
  beginTrial,
  comparePads,
  deadZone,
  padFindings,
  padOf,
  REST_READINGS,
  seen,
  standardButtons,
  type PadMoment,
  type PadTrial,
} from '@zb/core/firststart/pads';
import type { Box as Build } from '@zb/core/model/bench';
import type { FirstRecord } from '@zb/core/model/firstStart';
import { axisWords, buttonWords, padDifferenceWords, padFindingWords, padWords } from '@zb/core/words/pads';
import { colour } from '../../drawing/patterns';
import { stamp, useAct } from '../../storage/hooks';
import { Primary, Quiet, Word } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { VerdictMark } from '../../ui/Marks';
import { Nothing } from '../../ui/Nothing';
import { Said } from '../../ui/Said';
import { Acts, Data, Head, Sub } from '../../ui/Words';
import { usePads } from './usePads';
import { formatPercent } from '@zb/core/units/number';

/** A stick from above: where it is, and how far it went. */
function Stick({
  x,
  y,
  trial,
  at,
  label,
}: {
  x: number;
  y: number;
  trial: PadTrial;
  at: number;
  label: string;
}) {
  const ends = {
    left: trial.least[at] ?? 0,
    right: trial.furthest[at] ?? 0,
    up: trial.least[at + 1] ?? 0,
    down: trial.furthest[at + 1] ?? 0,
  };
  return (
    <chakra.svg
      role="img"
      aria-label={`${label}: ${x.toFixed(2)}, ${y.toFixed(2)}`}
      viewBox="-1.15 -1.15 2.3 2.3"
      css={{ width: '120px' }}
    >
      <circle r="1" fill="none" stroke={colour('rule-strong')} strokeWidth="0.02" />
      <rect
        x={ends.left}
        y={ends.up}
        width={ends.right - ends.left}
        height={ends.down - ends.up}
        fill="none"
        stroke={colour('proven')}
        strokeWidth="0.04"
      />
      <path d="M-1 0H1M0 -1V1" stroke={colour('rule')} strokeWidth="0.01" />
      <circle cx={x} cy={y} r="0.1" fill={colour('work')} />
    </chakra.svg>
  );
}

const handsOffLeft = (trial: PadTrial): number => REST_READINGS - (trial.resting[0]?.length ?? 0);

/** One pad on the bench: every button once, sticks to their ends, rest, and which number each button answers with. */
function Trial({
  box,
  pad,
  trial,
  layout,
  asking,
  handsOff,
  onRest,
  onAsk,
}: {
  box: Build;
  pad: PadMoment;
  trial: PadTrial;
  layout: Readonly<Record<string, number>>;
  asking: string | undefined;
  handsOff: boolean;
  onRest: () => void;
  onAsk: () => void;
}) {
  const act = useAct();
  const made = padOf(trial, layout, stamp().now);
  const rested = pad.axes.length === 0 || handsOffLeft(trial) <= 0;
  const findings = padFindings(made, rested);
  return (
    <Stack gap="3">
      <HStack gap="6" align="flex-start" flexWrap="wrap">
        {pad.axes.length >= 2 && (
          <Stick x={pad.axes[0] ?? 0} y={pad.axes[1] ?? 0} trial={trial} at={0} label="Left stick" />
        )}
        {pad.axes.length >= 4 && (
          <Stick x={pad.axes[2] ?? 0} y={pad.axes[3] ?? 0} trial={trial} at={2} label="Right stick" />
        )}
        <Box flex="1" css={{ minWidth: '240px', columns: 2 }}>
          {pad.buttons.map((value, i) => (
            <Text
              key={i}
              css={{ fontSize: '13px', breakInside: 'avoid' }}
              fontWeight={value > 0.5 ? 'strong' : 'normal'}
            >
              <VerdictMark kind={trial.pressed.has(i) ? 'yes' : 'ask'}>
                {buttonWords(i, pad.standard)}
              </VerdictMark>{' '}
              {trial.between.has(i) && <Data>{formatPercent(trial.most[i] ?? 0)}</Data>}
            </Text>
          ))}
        </Box>
      </HStack>
      <Box>
        {made.axes.map((a, i) => (
          <Sub key={axisWords(i)}>
            {axisWords(i)}: <Data>{a.least.toFixed(2)}</Data> to <Data>{a.most.toFixed(2)}</Data>
            {rested ? `, rests at ${a.rest.toFixed(3)}, strays by ${a.drift.toFixed(3)}` : ''}
          </Sub>
        ))}
      </Box>
      {asking !== undefined ? (
        <Said>
          Press the <b>{asking}</b>, or <Word onClick={onAsk}>it has none</Word>
        </Said>
      ) : findings.length === 0 ? (
        <Said kind="proven">
          All of it works. Programs want a dead zone of {formatPercent(deadZone(made))}.
        </Said>
      ) : (
        <Box role="status">
          {findings.map((f) => (
            <Text
              key={JSON.stringify([f.code, 'axis' in f ? f.axis : 0, 'end' in f ? f.end : ''])}
              css={{ fontSize: '13px' }}
            >
              {padFindingWords(f, made)}
            </Text>
          ))}
        </Box>
      )}
      <Acts>
        <Primary onClick={() => void act(keepPad(box, padOf(trial, layout, stamp().now)))}>
          Keep it with the box
        </Primary>
        <Quiet onClick={onRest} disabled={handsOff}>
          {handsOff ? `Hands off, ${Math.ceil(handsOffLeft(trial) / 60)} s` : 'Hands off: measure its rest'}
        </Quiet>
        <Quiet onClick={onAsk}>Record its layout</Quiet>
      </Acts>
    </Stack>
  );
}

/** What runs of the bench itself: one trial for each pad, by its name. */
interface Bench {
  trials: Readonly<Record<string, PadTrial>>;
  layouts: Readonly<Record<string, Record<string, number>>>;
  /** The pad whose rest is read. */
  resting: string | null;
  /** The pad whose layout is recorded, the button that is asked for, and whether all were let go since the last. */
  asking: { name: string; button: number; free: boolean } | null;
}

function step(bench: Bench, pads: readonly PadMoment[]): Bench {
  let { resting, asking } = bench;
  const trials = { ...bench.trials };
  const layouts = { ...bench.layouts };
  for (const pad of pads) {
    const before = trials[pad.name] ?? beginTrial(pad);
    const after = seen(before, pad, resting === pad.name);
    trials[pad.name] = after;
    if (resting === pad.name && handsOffLeft(after) <= 0) resting = null;
    if (asking?.name !== pad.name) continue;
    const down = pad.buttons.findIndex((value) => value > 0.5);
    if (down < 0) asking = { ...asking, free: true };
    else if (asking.free) {
      const button = standardButtons[asking.button];
      if (button !== undefined) layouts[pad.name] = { ...layouts[pad.name], [button]: down };
      asking =
        asking.button + 1 < standardButtons.length
          ? { name: pad.name, button: asking.button + 1, free: false }
          : null;
    }
  }
  return { trials, layouts, resting, asking };
}

/** The bench for gamepads: what a program will see of each, kept with the box. */
export function Pads({
  open,
  onClose,
  box,
  record,
}: {
  open: boolean;
  onClose: () => void;
  box: Build;
  record: FirstRecord;
}) {
  const act = useAct();
  const [bench, setBench] = useState<Bench>({ trials: {}, layouts: {}, resting: null, asking: null });
  const frame = useCallback(
    (pads: readonly PadMoment[]) => {
      if (open && pads.length > 0) setBench((b) => step(b, pads));
    },
    [open],
  );
  const pads = usePads(frame);
  const [first, second] = record.pads;
  return (
    <Dialog open={open} onClose={onClose} title="The bench for gamepads" size="lg">
      <Stack gap="4">
        {pads.length === 0 && (
          <Nothing
            title="Press any button of a pad"
            words="The browser tells of a pad when its first button is pressed. Pair it with this machine first; what is measured here is the pad itself, whatever it is plugged into later."
          />
        )}
        {pads.map((pad, i) => {
          const trial = bench.trials[pad.name];
          if (!trial) return null;
          const asking = bench.asking?.name === pad.name ? standardButtons[bench.asking.button] : undefined;
          return (
            <Box as="section" key={`${pad.name} ${i}`} aria-label={pad.name}>
              <Head>{pad.name}</Head>
              <Sub marginBottom="2">{pad.standard ? 'the standard layout' : 'a layout of its own'}</Sub>
              <Trial
                box={box}
                pad={pad}
                trial={trial}
                layout={bench.layouts[pad.name] ?? {}}
                asking={asking}
                handsOff={bench.resting === pad.name}
                onRest={() =>
                  setBench((b) => ({
                    ...b,
                    resting: pad.name,
                    trials: { ...b.trials, [pad.name]: { ...trial, resting: pad.axes.map(() => []) } },
                  }))
                }
                onAsk={() =>
                  setBench((b) => {
                    const now = b.asking?.name === pad.name ? b.asking.button + 1 : 0;
                    return {
                      ...b,
                      asking:
                        now < standardButtons.length ? { name: pad.name, button: now, free: false } : null,
                    };
                  })
                }
              />
            </Box>
          );
        })}
        {record.pads.length > 0 && (
          <Box as="section" aria-label="Kept with this box">
            <Head>Kept with this box</Head>
            {record.pads.map((p) => (
              <Text key={p.name}>
                <b>{p.name}</b> {padWords(p, deadZone(p))}{' '}
                <Word onClick={() => void act(dropPad(box, p.name))}>take it away</Word>
              </Text>
            ))}
            {first &&
              second &&
              comparePads(first, second).map((d) => (
                <Sub key={JSON.stringify(d)}>{padDifferenceWords(d)}</Sub>
              ))}
          </Box>
        )}
      </Stack>
    </Dialog>
  );
}
