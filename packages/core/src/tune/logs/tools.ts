import { z } from 'zod';
import { LogReadError, seriesOf, type LogFact, type LogFault, type Series, type TuneLog } from './log';

const number = z.number().refine(Number.isFinite);
const side = z.object({
  io_bytes: number,
  bw_bytes: number,
  runtime: number.optional(),
  clat_ns: z.object({ percentile: z.record(z.string(), number).optional() }).optional(),
});
const fioSchema = z.object({
  'fio version': z.string(),
  jobs: z
    .array(z.object({ jobname: z.string(), error: number.optional(), read: side, write: side }))
    .max(1000),
});

/** What fio printed with --output-format=json (fio 3, “JSON output”). */
export function readFio(value: unknown): TuneLog | undefined {
  const read = fioSchema.safeParse(value);
  if (!read.success) return undefined;
  const facts: LogFact[] = [];
  const faults: LogFault[] = [];
  for (const job of read.data.jobs) {
    for (const [what, s] of [
      ['write', job.write],
      ['read', job.read],
    ] as const) {
      if (s.io_bytes === 0) continue;
      facts.push({ what: `${what} rate`, part: job.jobname, value: s.bw_bytes, unit: 'bytes/s' });
      const slow = s.clat_ns?.percentile?.['99.000000'];
      if (slow !== undefined)
        facts.push({ what: `${what} latency, 99 %`, part: job.jobname, value: slow / 1e9, unit: 's' });
    }
    if (job.error !== undefined && job.error !== 0)
      faults.push({ code: 'told by the tool', words: `${job.jobname}: error ${job.error}` });
  }
  if (facts.length === 0) faults.push({ code: 'ended early' });
  return { kind: 'fio', lines: 0, series: [], frames: null, facts, faults };
}

/** fio’s log of rates (fio 3, “Log file formats”): ms, KiB/s, direction, block size; one line for each stretch. */
export function readFioRates(text: string): TuneLog | undefined {
  const rows: [number, number, number][] = [];
  let lines = 0;
  let bad = 0;
  let first = 0;
  const all = text.split('\n');
  for (const [i, line] of all.entries()) {
    if (line.trim() === '') continue;
    lines += 1;
    const found = /^\s*(\d+),\s*(\d+),\s*([012]),\s*\d+(?:,\s*(?:0x)?[\da-f]+)*\s*$/i.exec(line);
    if (found) rows.push([Number(found[1]) / 1000, Number(found[2]) * 1024, Number(found[3])]);
    else {
      bad += 1;
      if (bad === 1) first = i + 1;
      if (bad > 3 && bad > rows.length) return undefined;
    }
  }
  if (rows.length < 3) return undefined;
  const faults: LogFault[] = bad === 0 ? [] : [{ code: 'not numbers', lines: bad, first }];
  const of = (direction: number, kind: 'read' | 'write'): Series[] => {
    const mine = rows.filter((r) => r[2] === direction);
    return mine.length === 0
      ? []
      : [
          seriesOf(
            kind,
            kind,
            mine.map((r) => r[0]),
            mine.map((r) => r[1]),
          ),
        ];
  };
  return {
    kind: 'fio rates',
    lines,
    series: [...of(0, 'read'), ...of(1, 'write')],
    frames: null,
    facts: [],
    faults,
  };
}

const stretch = z.object({
  start: number,
  end: number,
  bits_per_second: number,
  omitted: z.boolean().optional(),
});
const total = z.object({ bits_per_second: number, retransmits: number.optional() });
const iperfSchema = z.object({
  start: z.object({ version: z.string().optional() }).loose(),
  intervals: z.array(z.object({ sum: stretch })).max(100_000),
  end: z.object({ sum_sent: total.optional(), sum_received: total.optional(), sum: total.optional() }),
  error: z.string().optional(),
});

/** What iperf3 printed with -J. */
export function readIperf(value: unknown): TuneLog | undefined {
  const read = iperfSchema.safeParse(value);
  if (!read.success) return undefined;
  const { intervals, end, error } = read.data;
  const counted = intervals.map((i) => i.sum).filter((s) => s.omitted !== true);
  const got = end.sum_received ?? end.sum;
  const facts: LogFact[] = [
    ...(got
      ? [{ what: 'network rate', part: 'received', value: got.bits_per_second / 8, unit: 'bytes/s' } as const]
      : []),
    ...(end.sum_sent
      ? [
          {
            what: 'network sent',
            part: 'sent',
            value: end.sum_sent.bits_per_second / 8,
            unit: 'bytes/s',
          } as const,
        ]
      : []),
    ...(end.sum_sent?.retransmits === undefined
      ? []
      : [{ what: 'sent again', part: 'segments', value: end.sum_sent.retransmits, unit: '' } as const]),
  ];
  const faults: LogFault[] = error === undefined ? [] : [{ code: 'told by the tool', words: error }];
  if (!got) faults.push({ code: 'ended early' });
  if (facts.length === 0 && counted.length === 0)
    throw new LogReadError('no log', error ?? 'nothing was sent');
  const series =
    counted.length === 0
      ? []
      : [
          seriesOf(
            'network',
            'wire',
            counted.map((s) => s.end),
            counted.map((s) => s.bits_per_second / 8),
          ),
        ];
  return { kind: 'iperf3', lines: 0, series, frames: null, facts, faults };
}

const smartSchema = z.object({
  smartctl: z.object({
    messages: z.array(z.object({ string: z.string(), severity: z.string() })).optional(),
  }),
  model_name: z.string().optional(),
  device: z.object({ name: z.string() }).optional(),
  temperature: z.object({ current: number.optional() }).optional(),
  power_on_time: z.object({ hours: number.optional() }).optional(),
  nvme_smart_health_information_log: z
    .object({
      percentage_used: number.optional(),
      media_errors: number.optional(),
      warning_temp_time: number.optional(),
      critical_comp_time: number.optional(),
      temperature: number.optional(),
    })
    .optional(),
  ata_smart_attributes: z
    .object({
      table: z.array(z.object({ id: number, name: z.string(), raw: z.object({ value: number }) })),
    })
    .optional(),
});

/** What smartctl printed with -j (smartmontools 7). ATA attributes by their usual numbers: 5, 197 and 198 count errors. */
export function readSmart(value: unknown): TuneLog | undefined {
  const read = smartSchema.safeParse(value);
  if (!read.success) return undefined;
  const s = read.data;
  const part = s.device?.name ?? 'drive';
  const facts: LogFact[] = [];
  const add = (what: LogFact['what'], v: number | undefined, unit: LogFact['unit']): void => {
    if (v !== undefined) facts.push({ what, part, value: v, unit });
  };
  const nvme = s.nvme_smart_health_information_log;
  add('temperature', s.temperature?.current ?? nvme?.temperature, '°C');
  add('hours on', s.power_on_time?.hours, 'h');
  add('wear', nvme?.percentage_used, '%');
  const ata = s.ata_smart_attributes?.table.filter((a) => [5, 197, 198].includes(a.id));
  add('errors', nvme?.media_errors ?? ata?.reduce((n, a) => n + a.raw.value, 0), '');
  if (nvme)
    add('seconds too hot', ((nvme.warning_temp_time ?? 0) + (nvme.critical_comp_time ?? 0)) * 60, 's');
  const faults = (s.smartctl.messages ?? []).map((m): LogFault => ({
    code: 'told by the tool',
    words: m.string,
  }));
  return { kind: 'smartctl', lines: 0, series: [], frames: null, facts, faults };
}

/** What memtester printed: rounds, and lines that say FAILURE. Its progress writes over itself with backspaces. */
export function readMemtester(text: string): TuneLog {
  const plain = text.replaceAll(/[^\n][\b]|[\b]/g, '');
  const rounds = [...plain.matchAll(/^Loop (\d+)/gm)].length;
  const failures = [...plain.matchAll(/FAILURE/g)].length;
  const faults: LogFault[] = /^Done\.?\s*$/m.test(plain) ? [] : [{ code: 'ended early' }];
  return {
    kind: 'memtester',
    lines: plain.split('\n').length,
    series: [],
    frames: null,
    facts: [
      { what: 'rounds', part: 'memory', value: rounds, unit: '' },
      { what: 'errors', part: 'memory', value: failures, unit: '' },
    ],
    faults,
  };
}

/** What stress-ng printed: failed stressors, and with --metrics the work each did a second of real time. */
export function readStress(text: string): TuneLog {
  const lines = text.split('\n');
  const facts: LogFact[] = [];
  const faults: LogFault[] = [];
  for (const line of lines) {
    const work =
      /^stress-ng: (?:info|metrc):\s+\[\d+\]\s+([a-z][\w-]*)\s+(\d+)\s+([\d.]+)\s+([\d.]+)\s+([\d.]+)\s+([\d.]+)/.exec(
        line,
      );
    if (work) facts.push({ what: 'score', part: work[1] ?? '', value: Number(work[6]), unit: '/s' });
    const failed = /^stress-ng: info:\s+\[\d+\]\s+failed: (\d+)/.exec(line);
    if (failed) facts.push({ what: 'errors', part: 'stressors', value: Number(failed[1]), unit: '' });
    const fail = /^stress-ng: (?:fail|error):\s+\[\d+\]\s+(.*)$/.exec(line);
    if (fail) faults.push({ code: 'told by the tool', words: (fail[1] ?? '').slice(0, 200) });
  }
  if (!lines.some((l) => /run completed in/.test(l))) faults.push({ code: 'ended early' });
  return { kind: 'stress-ng', lines: lines.length, series: [], frames: null, facts, faults };
}
