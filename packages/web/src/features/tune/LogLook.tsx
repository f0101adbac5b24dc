import { Box, Stack } from '@chakra-ui/react';
import type { QuantityCode } from '@zb/core/model/tune';
import { allowedBy } from '@zb/core/tune/allows';
import type { FrameReport } from '@zb/core/tune/frames';
import { framesForInterval } from '@zb/core/tune/frames';
import type { LogView } from '@zb/core/tune/logView';
import { quantities } from '@zb/core/tune/quantities';
import { formatDuration, formatRate } from '@zb/core/units/duration';
import { formatIec } from '@zb/core/units/bytes';
import { formatNumber } from '@zb/core/units/number';
import { counted, plural } from '@zb/core/words/text';
import { allowedWords, figureWords, logFaultWords, logKindWords, steadinessWords } from '@zb/core/words/tune';
import { throttlesWords } from '@zb/core/words/tuneFault';
import { Plot } from '../../parts/Plot';
import { Fold } from '../../ui/Fold';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Head, Sub } from '../../ui/Words';

const RATES = [
  { code: 'write', kind: 'drive' },
  { code: 'read', kind: 'drive' },
  { code: 'network', kind: 'wire' },
] as const;

/** What a log says: how it was read, its figures with their intervals, its course, and what was mended on the way. */
export function LogLook({ log }: { log: LogView }) {
  const { reading, faults } = log;
  const codes = Object.keys(reading.values) as QuantityCode[];
  const { heat, sustained, throttling } = reading;
  return (
    <Stack gap="4">
      <Said kind={faults.length > 0 ? 'check' : 'note'}>
        Read as {logKindWords(log.kind)},{' '}
        {plural(log.lines, 'line').replace(String(log.lines), counted(log.lines))}
        {reading.frameCount > 0 && `, ${counted(reading.frameCount)} frames`}
        {faults.length === 0 ? '; nothing had to be mended.' : '.'}
      </Said>
      {faults.length > 0 && (
        <Box as="ul" paddingLeft="5" aria-label="What was mended or taken for granted">
          {faults.map((f) => (
            <li key={JSON.stringify(f)}>{logFaultWords(f)}</li>
          ))}
        </Box>
      )}
      {heat && (
        <Said kind={heat.steadiness.code === 'not yet' || heat.steadiness.code === 'open' ? 'check' : 'note'}>
          {heat.part}: {steadinessWords(heat.steadiness)}
        </Said>
      )}
      {throttling && <Said kind="check">{throttlesWords(throttling, 'the time')}</Said>}
      {sustained?.drop && (
        <Said kind="check">
          Its fast part ends after {formatDuration(sustained.drop.seconds)} and{' '}
          {formatIec(sustained.drop.bytes)}: from {formatRate(sustained.fast)} to{' '}
          {formatRate(sustained.steady)}.
        </Said>
      )}
      {RATES.map(({ code, kind }) => {
        const rate = reading.values[code];
        const allowed = rate === undefined ? undefined : allowedBy(kind, rate);
        return (
          rate !== undefined && (
            <Sub key={code}>
              {quantities[code].label}, {formatRate(rate)}:{' '}
              {allowed ? allowedWords(allowed) : 'more than any link carries: it came out of memory.'}
            </Sub>
          )
        );
      })}
      {codes.length > 0 && (
        <Box as="section" aria-label="Figures">
          <Head marginBottom="1">Figures of this run</Head>
          <Ruled
            dense
            label="Figures"
            heads={[
              'What',
              { words: 'Value', figure: true },
              { words: 'Within this run, 95 %', figure: true },
            ]}
          >
            {codes.map((c) => {
              const within = reading.within[c];
              return (
                <Line key={c}>
                  <LineHead>{quantities[c].label}</LineHead>
                  <Num>{figureWords(c, reading.values[c] ?? NaN)}</Num>
                  <Num>{within ? `${formatNumber(within[0], 1)} to ${formatNumber(within[1], 1)}` : '–'}</Num>
                </Line>
              );
            })}
          </Ruled>
          {reading.frames && (
            <Sub>Another run of the same machine differs by more than that: the run is the sample.</Sub>
          )}
        </Box>
      )}
      {reading.frames && <Frames report={reading.frames} spread={log.spread} />}
      {log.facts.length > 0 && (
        <Ruled dense label="What the tool says" heads={['What', 'Of', { words: 'Value', figure: true }]}>
          {log.facts.map((f, i) => (
            <Line key={i}>
              <LineHead>{f.what}</LineHead>
              <Cell>{f.part}</Cell>
              <Num>
                {f.unit === 'bytes/s'
                  ? formatRate(f.value)
                  : f.unit === 's'
                    ? `${formatNumber(f.value * 1000, 2)} ms`
                    : `${formatNumber(f.value, f.value % 1 === 0 ? 0 : 1)} ${f.unit}`}
              </Num>
            </Line>
          ))}
        </Ruled>
      )}
      {log.series.length > 0 && <Courses log={log} />}
    </Stack>
  );
}

function Frames({ report: r, spread }: { report: FrameReport; spread: LogView['spread'] }) {
  const least = framesForInterval(0.99);
  return (
    <Stack gap="3">
      <Ruled
        dense
        label="Frame times"
        heads={[
          'Frame times',
          { words: 'ms', figure: true },
          { words: 'Within this run, 95 %', figure: true },
        ]}
      >
        {r.times.map((t) => (
          <Line key={t.p}>
            <LineHead>
              {t.p === 0.5 ? 'Median' : `${formatNumber(t.p * 100, t.p === 0.999 ? 1 : 0)} % are below`}
            </LineHead>
            <Num>{formatNumber(t.ms.value, 2)}</Num>
            <Num>
              {formatNumber(t.ms.low, 2)} to {formatNumber(t.ms.high, 2)}
            </Num>
          </Line>
        ))}
        <Line>
          <LineHead>Frame to frame, middle and worst twentieth</LineHead>
          <Num>
            {formatNumber(r.pace.median, 2)}, {formatNumber(r.pace.p95, 2)}
          </Num>
          <Num>–</Num>
        </Line>
      </Ruled>
      <Sub>
        {counted(r.frames)} frames in {formatDuration(r.seconds)};{' '}
        {r.block > 1
          ? `they hang together over ${r.block} frames, so`
          : 'they are as good as independent, and'}{' '}
        {formatNumber(r.inefficiency, 1)} of them are worth one. A 99th percentile has an interval at all from{' '}
        {counted(Math.ceil(least * r.inefficiency))} frames on.
        {r.wanted !== undefined && ` To know it within 2 % takes ${counted(r.wanted)}.`}
        {r.pauses > 0 && ` ${plural(r.pauses, 'frame')} took more than two seconds: loading, or a pause.`}
      </Sub>
      {spread && (
        <Plot
          title="How often a frame took so long"
          height={170}
          data={{
            lines: [
              {
                name: 'share',
                points: spread.shares.flatMap((s, i) => [
                  [i * spread.step, 100 * s] as const,
                  [(i + 1) * spread.step, 100 * s] as const,
                ]),
                ink: 'work',
                as: 'line',
              },
            ],
            x: { of: (v) => `${formatNumber(v)} ms`, min: 0 },
            y: { of: (v) => `${formatNumber(v)} %`, min: 0 },
          }}
          table={{
            heads: ['From, ms', 'To, ms', '% of frames'],
            rows: spread.shares.map((s, i) => [
              formatNumber(i * spread.step, 1),
              formatNumber((i + 1) * spread.step, 1),
              formatNumber(100 * s, 2),
            ]),
          }}
        />
      )}
    </Stack>
  );
}

function Courses({ log }: { log: LogView }) {
  const first = log.series[0];
  return (
    <Stack gap="3">
      {first && (
        <Plot
          title={`${first.part}, ${first.unit}`}
          height={170}
          data={{
            lines: [
              {
                name: first.part,
                points: first.trace.t.map((t, i) => [t, first.trace.v[i] ?? 0]),
                ink: 'work',
                as: 'line',
              },
            ],
            x: { of: (v) => `${formatNumber(v)} s`, min: 0 },
            y: { of: (v) => formatNumber(v, first.most < 10 ? 1 : 0) },
          }}
          table={{
            heads: ['Second', first.unit],
            rows: first.trace.t.map((t, i) => [formatNumber(t, 1), formatNumber(first.trace.v[i] ?? NaN, 2)]),
          }}
        />
      )}
      <Fold title={plural(log.series.length, 'course')} open={log.series.length < 8}>
        <Ruled
          dense
          stacked
          label="Courses"
          heads={[
            'Of',
            { words: 'Readings', figure: true },
            { words: 'Least', figure: true },
            { words: 'Middle', figure: true },
            { words: 'Most', figure: true },
          ]}
        >
          {log.series.map((s, i) => (
            <Line key={i}>
              <LineHead>
                {s.part}
                {s.missing > 0 && <Sub>{plural(s.missing, 'reading')} missing</Sub>}
              </LineHead>
              <Num>{counted(s.readings)}</Num>
              {[s.least, s.middle, s.most].map((v, k) => (
                <Num key={k}>
                  {s.unit === 'bytes/s'
                    ? formatRate(v)
                    : `${formatNumber(v, Math.abs(v) < 100 ? 1 : 0)} ${s.unit}`}
                </Num>
              ))}
            </Line>
          ))}
        </Ruled>
      </Fold>
    </Stack>
  );
}
