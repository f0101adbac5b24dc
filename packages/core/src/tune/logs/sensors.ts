import { z } from 'zod';
import { clockOf, epochScale } from './cells';
import type { Document } from './documents';
import { seriesOf, type LogFault, type SeriesKind, type TuneLog } from './log';

const KINDS: readonly (readonly [RegExp, SeriesKind, number])[] = [
  [/^temp\d+_input$/, 'temperature', 1],
  [/^fan\d+_input$/, 'fan', 1],
  [/^power\d+_(input|average)$/, 'power', 1],
  [/^in\d+_input$/, 'voltage', 1],
  [/^curr\d+_input$/, 'current', 1],
  [/^freq\d+_input$/, 'clock', 1e-6],
];

const chips = z.record(
  z.string(),
  z.record(z.string(), z.union([z.string(), z.record(z.string(), z.union([z.number(), z.string()]))])),
);

/**
 * What `sensors -j` printed (lm-sensors 3), once or again and again; a line with a time before a print gives its time, else one a
 * second is taken for granted. Undefined where it is none.
 */
export function readSensors(documents: readonly Document[], cut: boolean): TuneLog | undefined {
  const read = documents.map((d) => chips.safeParse(d.value));
  const prints = read.flatMap((r) => (r.success ? [r.data] : []));
  if (prints.length !== documents.length) return undefined;
  if (!prints.some((p) => Object.values(p).some((c) => 'Adapter' in c))) return undefined;
  const told = documents.map((d) => clockOf(d.before.trim().split('\n').at(-1) ?? ''));
  const timed = told.length > 1 && told.every(Boolean);
  const first = told[0];
  const scale = first?.kind === 'number' ? epochScale(first.seconds) : 1;
  const t = told.map((c, i) => (timed && c && first ? (c.seconds - first.seconds) * scale : i));
  const names = new Map<string, { kind: SeriesKind; part: string; v: number[] }>();
  prints.forEach((print, at) => {
    for (const [chip, features] of Object.entries(print))
      for (const [feature, readings] of Object.entries(features)) {
        if (typeof readings === 'string') continue;
        for (const [name, value] of Object.entries(readings)) {
          const kind = KINDS.find(([r]) => r.test(name));
          if (!kind || typeof value !== 'number') continue;
          const part = `${chip}, ${feature}`;
          const key = `${kind[1]} ${part} ${name}`;
          const there = names.get(key) ?? { kind: kind[1], part, v: [] };
          while (there.v.length < at) there.v.push(NaN);
          there.v.push(value * kind[2]);
          names.set(key, there);
        }
      }
  });
  const faults: LogFault[] = [];
  if (cut) faults.push({ code: 'cut', line: documents.length + 1 });
  if (prints.length > 1 && !timed) faults.push({ code: 'no times', seconds: 1 });
  return {
    kind: 'sensors',
    lines: prints.length,
    series: [...names.values()].map((n) => {
      while (n.v.length < prints.length) n.v.push(NaN);
      return seriesOf(n.kind, n.part, t, n.v, 'part');
    }),
    frames: null,
    facts: [],
    faults,
  };
}
