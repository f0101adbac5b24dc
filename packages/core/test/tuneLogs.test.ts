/** Logs as tools print them, and as they never should. Layouts of tools are those their manuals describe, written down anew. */
import fc from 'fast-check';
import { LogReadError, type TuneLog } from '@zb/core/tune/logs/log';
import { columnOf } from '@zb/core/tune/logs/heads';
import { readLog } from '@zb/core/tune/logs/read';
import { isRecorded, recorderScript } from '@zb/core/tune/logs/recorder';
import { readRun } from '@zb/core/tune/runValues';
import { logErrorWords, logFaultWords } from '@zb/core/words/tune';
import { randomFrom } from '@zb/core/units/random';
import { runs } from './runs';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const read = (text: string): TuneLog => readLog(bytes(text));
const codes = (log: TuneLog): string[] => log.faults.map((f) => f.code);
const refusal = (input: Uint8Array): string => {
  try {
    readLog(input);
  } catch (error) {
    if (error instanceof LogReadError) return error.code;
    throw error;
  }
  return 'read';
};
const frames = Array.from({ length: 200 }, (_, i) => 16 + (i % 7) * 0.25);

describe('frame times', () => {
  it('one column in ms, with or without a head, with CRLF, a comma for a point, or a blank line at the end', () => {
    for (const text of [
      frames.join('\n'),
      `frametime\n${frames.join('\n')}\n`,
      `Frame time (ms)\r\n${frames.join('\r\n')}\r\n\r\n`,
      frames.map((f) => String(f).replace('.', ',')).join('\n'),
      `\ufeffframe_time_ms\n${frames.join('\n')}`,
    ]) {
      const log = read(text);
      expect(log.kind).toBe('frame times');
      expect([...(log.frames ?? [])]).toEqual(frames);
    }
  });
  it('tables known by their heads, whatever else stands in them, and lines before the head', () => {
    const log = read(
      `os,kernel,driver\nmade up,6.1,none\nfps,frametime,cpu_load,cpu_temp,gpu_power (W)\n${frames.map((f) => `${1000 / f},${f},41,${60 + f / 10},11.5`).join('\n')}\n`,
    );
    expect([...(log.frames ?? [])]).toEqual(frames);
    expect(log.series.map((s) => s.kind).sort()).toEqual(['frames', 'load', 'power', 'temperature']);
    // Rows are frames: their times are sums of them.
    expect(log.series[0]?.t[2]).toBeCloseTo((frames[1] ?? 0) / 1000 + (frames[2] ?? 0) / 1000, 6);
    const other = read(
      `Application,TimeInSeconds,MsBetweenPresents,MsUntilDisplayed\n${frames.map((f, i) => `"a, b",${i * 0.016},${f},30`).join('\n')}`,
    );
    expect([...(other.frames ?? [])]).toEqual(frames);
  });
  it('in µs, ns or s where the head says so, and told where it had to be guessed', () => {
    const us = read(`frametime_us\n${frames.map((f) => f * 1000).join('\n')}`);
    expect(us.frames?.[0]).toBeCloseTo(16, 9);
    expect(codes(us)).toEqual([]);
    for (const [scale, unit] of [
      [1e6, 'ns'],
      [1e3, 'µs'],
      [1e-3, 's'],
      [1, 'ms'],
    ] as const) {
      const log = read(`frametime\n${frames.map((f) => f * scale).join('\n')}`);
      expect(log.frames?.[0]).toBeCloseTo(16, 6);
      expect(log.faults).toContainEqual(expect.objectContaining({ code: 'unit guessed', unit }));
    }
  });
  it('values that are no frames are left out and counted, lines without figures named', () => {
    const log = read(`frametime_ms\n16\n0\n-4\nstutter!\n17\nNaN\n18\n`);
    expect([...(log.frames ?? [])]).toEqual([16, 17, 18]);
    expect(log.faults).toContainEqual({ code: 'not frames', count: 2, first: 2 });
    expect(log.faults).toContainEqual({ code: 'not numbers', lines: 2, first: 5 });
  });
});

describe('tables of readings', () => {
  it('a meter’s file: semicolons, decimal commas, dates by day first, gaps and a clock that was set back', () => {
    const rows = [
      '27.11.2026 20:00:00;31,5',
      '27.11.2026 20:00:01;31,7',
      '27.11.2026 20:00:02;32,0',
      '27.11.2026 20:01:02;32,1',
      '27.11.2026 19:01:03;32,2',
      '27.11.2026 19:01:04;32,3',
    ];
    const log = read(`Datum;Leistung (W)\n${rows.join('\n')}`.replace('Datum', 'Date'));
    const [power] = log.series;
    expect(power?.where).toBe('wall');
    expect([...(power?.v ?? [])]).toEqual([31.5, 31.7, 32, 32.1, 32.2, 32.3]);
    expect([...(power?.t ?? [])]).toEqual([0, 1, 2, 62, 63, 64]);
    expect(log.faults).toContainEqual({ code: 'clock back', times: 1, first: 6 });
    expect(log.faults).toContainEqual({ code: 'gap', times: 1, longest: 60 });
  });
  it('hours may be left out, and halves of the day named', () => {
    const of = (...times: string[]): number[] => [
      ...(read(`time,power (W)\n${times.map((t) => `${t},10`).join('\n')}`).series[0]?.t ?? []),
    ];
    expect(of('24:00', '24:30', '25:00')).toEqual([0, 30, 60]);
    expect(of('20:00', '20:01')).toEqual([0, 60]);
    expect(of('11:59:59 am', '12:00:00 pm', '12:00:01 pm')).toEqual([0, 1, 2]);
    expect(of('2026-11-27T20:00:00+01:00', '2026-11-27T19:00:01Z')).toEqual([0, 1]);
  });
  it('a time of day goes on past midnight', () => {
    const log = read('time,power (W)\n23:59:58,10\n23:59:59,11\n00:00:00,12\n00:00:01,13');
    expect([...(log.series[0]?.t ?? [])]).toEqual([0, 1, 2, 3]);
    expect(codes(log)).toEqual([]);
  });
  it('seconds since 1970 in s, ms, µs or ns', () => {
    for (const scale of [1, 1e3, 1e6, 1e9]) {
      const log = read(
        `timestamp,temp (°C)\n${[0, 1, 2, 3].map((s) => `${BigInt(1_795_000_000 + s) * BigInt(scale)},${50 + s}`).join('\n')}`,
      );
      expect([...(log.series[0]?.t ?? [])].map((t) => Math.round(t * 1000) / 1000)).toEqual([0, 1, 2, 3]);
    }
  });
  it('units in the head and behind figures, mixed ones brought into one and told', () => {
    const log = read(
      'seconds,CPU temp,fan,power\n0,50 °C,1200 rpm,12 W\n1,122 °F,1250 rpm,12500 mW\n2,52 °C,1300 rpm,13 W',
    );
    const of = (kind: string): number[] =>
      [...(log.series.find((s) => s.kind === kind)?.v ?? [])].map((v) => Math.round(v * 100) / 100);
    expect(of('temperature')).toEqual([50, 50, 52]);
    expect(of('power')).toEqual([12, 12.5, 13]);
    expect(codes(log)).toEqual(['mixed units', 'mixed units']);
    expect(columnOf('GPU temperature [°F]')).toMatchObject({
      is: 'series',
      kind: 'temperature',
      scale: 5 / 9,
    });
    expect(columnOf('temperature cputemp Tctl (m°C)')).toMatchObject({ scale: 1e-3 });
    expect(columnOf('Power limit (W)')).toEqual({ is: 'unknown' });
    expect(columnOf('battery power BAT0 (uW)')).toMatchObject({
      kind: 'power',
      where: 'battery',
      scale: 1e-6,
    });
  });
  it('missing readings stay missing, cut files and unknown columns are told', () => {
    const log = read('seconds,temp (°C),hue\n0,50,red\n1,,red\n2,N/A,blue\n3,53,blue\n4');
    expect([...(log.series[0]?.v ?? [])]).toEqual([50, NaN, NaN, 53]);
    expect(log.faults).toContainEqual({ code: 'cut', line: 6 });
    expect(log.faults).toContainEqual({ code: 'columns passed over', columns: ['hue'] });
    const untimed = read('temp (°C)\tfan (rpm)\n50\t900\n51\t910\n');
    expect(codes(untimed)).toEqual(['no times']);
    expect([...(untimed.series[0]?.t ?? [])]).toEqual([0, 1]);
  });
  it('a counter of energy becomes watts, and a counter that begins again a missing reading', () => {
    const log = read(
      'seconds,energy package-0 (uJ)\n0,1000000\n1,13000000\n2,26000000\n3,500000\n4,12500000',
    );
    expect([...(log.series[0]?.v ?? [])]).toEqual([NaN, 12, 13, NaN, 12]);
  });
  it('text in UTF-16, either way round', () => {
    const text = 'seconds,temp (°C)\n0,50\n1,51\n';
    const units = [...text].map((c) => c.charCodeAt(0));
    const little = Uint8Array.from([0xff, 0xfe, ...units.flatMap((u) => [u & 255, u >> 8])]);
    const big = Uint8Array.from([0xfe, 0xff, ...units.flatMap((u) => [u >> 8, u & 255])]);
    for (const b of [little, big]) expect([...(readLog(b).series[0]?.v ?? [])]).toEqual([50, 51]);
  });
  it('our recorder is known by its first line, and only reads', () => {
    const log = read(
      '# zealous box recorder 1, 2026-11-27T20:00:00Z\nseconds,temperature cputemp Tctl (m°C),power battery BAT0 (uW),clock cpu0 (kHz)\n100.25,61250,14200000,3400000\n101.26,61500,,3400000\n',
    );
    expect(log.kind).toBe('recorder');
    expect(log.series.map((s) => [s.kind, s.where, s.v[0]])).toEqual([
      ['temperature', 'part', 61.25],
      ['power', 'battery', 14.2],
      ['clock', 'part', 3400],
    ]);
    expect(isRecorded('seconds')).toBe(false);
    // Nothing in it writes, moves or sets: every redirection is of standard error.
    expect(
      recorderScript
        .split('\n')
        .filter((l) => !l.startsWith('#') && /[^2<]>\s*[^&\s/]|\b(rm|mv|tee|dd|chmod|sysctl)\b/.test(l)),
    ).toEqual([]);
  });
});

describe('what tools print', () => {
  const chip = (t: number, fan: number): string =>
    JSON.stringify(
      {
        'cputemp-pci-00c3': { Adapter: 'PCI adapter', Tctl: { temp1_input: t } },
        'board-isa-0a30': {
          Adapter: 'ISA adapter',
          fan2: { fan2_input: fan, fan2_min: 0 },
          in0: { in0_input: 1.02 },
        },
      },
      null,
      3,
    );
  it('sensors -j once, again and again, with times between, cut, and with a comma too many', () => {
    const once = read(chip(61.5, 1200));
    expect(once.kind).toBe('sensors');
    expect(once.series.map((s) => [s.kind, s.v[0]])).toEqual([
      ['temperature', 61.5],
      ['fan', 1200],
      ['voltage', 1.02],
    ]);
    const often = read(`${chip(60, 1000)}\n${chip(61, 1010)}\n${chip(62, 1020)}`);
    expect([...(often.series[0]?.v ?? [])]).toEqual([60, 61, 62]);
    expect(codes(often)).toEqual(['no times']);
    const timed = read(`1795000000\n${chip(60, 1)}\n1795000010\n${chip(61, 1)}`.replace(/^/, '{}'.slice(2)));
    expect(timed.kind).toBe('sensors');
    expect([...(timed.series[0]?.t ?? [])]).toEqual([0, 10]);
    const cut = read(`${chip(60, 1000)}\n${chip(61, 1010).slice(0, 80)}`);
    expect(codes(cut)).toEqual(['cut']);
    expect(read(chip(60, 1).replace('"fan2_min": 0', '"fan2_min": 0,')).series).toHaveLength(3);
    expect(refusal(bytes(chip(60, 1).slice(0, 90)))).toBe('cut');
    expect(refusal(bytes('{"a": 1}'))).toBe('no log');
  });
  it('turbostat: the line that sums up, with its own times or with those of its manual', () => {
    const head = 'Core\tCPU\tAvg_MHz\tBusy%\tBzy_MHz\tPkgTmp\tPkgWatt';
    const print = (w: number): string =>
      `${head}\n-\t-\t1200\t40.0\t3000\t${50 + w}\t${w}.5\n0\t0\t1100\t38.0\t2990\t${50 + w}\t${w}.5\n1\t1\t1300\t42.0\t3010\n`;
    const log = read([10, 11, 12].map(print).join(''));
    expect(log.kind).toBe('turbostat');
    expect([...(log.series.find((s) => s.kind === 'power')?.v ?? [])]).toEqual([10.5, 11.5, 12.5]);
    expect([...(log.series[0]?.t ?? [])]).toEqual([0, 5, 10]);
    expect(log.faults).toContainEqual({ code: 'no times', seconds: 5 });
    const timed = read('Time_Of_Day_Seconds Busy% Bzy_MHz PkgWatt\n100.0 40 3000 10\n102.0 41 3000 11\n');
    expect([...(timed.series[0]?.t ?? [])]).toEqual([0, 2]);
    expect(codes(timed)).toEqual([]);
  });
  it('fio: JSON behind a line of words, and its log of rates with the end of the fast part', () => {
    const job = (write: number, readRate: number) => ({
      jobname: 'long write',
      error: 0,
      read: { io_bytes: readRate === 0 ? 0 : 1e9, bw_bytes: readRate, runtime: 10_000 },
      write: {
        io_bytes: 4e9,
        bw_bytes: write,
        runtime: 10_000,
        clat_ns: { percentile: { '99.000000': 2_500_000 } },
      },
    });
    const log = read(
      `note: both iodepth >= 1 and synchronous I/O engine are selected\n${JSON.stringify({ 'fio version': 'fio-3.33', jobs: [job(410e6, 0)] }, null, 2)}`,
    );
    expect(log.facts).toEqual([
      { what: 'write rate', part: 'long write', value: 410e6, unit: 'bytes/s' },
      { what: 'write latency, 99 %', part: 'long write', value: 0.0025, unit: 's' },
    ]);
    expect(readRun(log, { measureSeconds: null, panel: null }).values).toEqual({ write: 410e6 });
    const rates = Array.from(
      { length: 60 },
      (_, i) => `${(i + 1) * 1000}, ${i < 20 ? 1_700_000 : 400_000}, 1, 131072, 0, 0`,
    );
    const over = read(rates.join('\n'));
    expect(over.kind).toBe('fio rates');
    const run = readRun(over, { measureSeconds: null, panel: null });
    expect(run.sustained?.drop?.seconds).toBe(20);
    expect(run.values.write).toBe(400_000 * 1024);
  });
  it('iperf3 -J, whole and broken off by the other side', () => {
    const sum = (start: number, bits: number, omitted = false) => ({
      sum: { start, end: start + 1, bits_per_second: bits, omitted },
    });
    const doc = {
      start: { version: 'iperf 3.12' },
      intervals: [sum(0, 1e8, true), sum(1, 9.4e8), sum(2, 9.38e8)],
      end: {
        sum_sent: { bits_per_second: 9.5e8, retransmits: 3 },
        sum_received: { bits_per_second: 9.39e8 },
      },
    };
    const log = read(JSON.stringify(doc));
    expect(log.series[0]?.v).toHaveLength(2);
    expect(readRun(log, { measureSeconds: null, panel: null }).values.network).toBe(9.39e8 / 8);
    const broken = read(
      JSON.stringify({ ...doc, end: {}, error: 'error - control socket has closed unexpectedly' }),
    );
    expect(codes(broken)).toEqual(['told by the tool', 'ended early']);
    expect(
      refusal(
        bytes(JSON.stringify({ start: {}, intervals: [], end: {}, error: 'unable to connect to server' })),
      ),
    ).toBe('no log');
  });
  it('smartctl -j of either kind of drive', () => {
    const nvme = read(
      JSON.stringify({
        smartctl: {},
        device: { name: '/dev/nvme0' },
        temperature: { current: 41 },
        power_on_time: { hours: 4000 },
        nvme_smart_health_information_log: {
          percentage_used: 7,
          media_errors: 0,
          warning_temp_time: 3,
          critical_comp_time: 1,
        },
      }),
    );
    expect(nvme.facts.map((f) => [f.what, f.value])).toEqual([
      ['temperature', 41],
      ['hours on', 4000],
      ['wear', 7],
      ['errors', 0],
      ['seconds too hot', 240],
    ]);
    const ata = read(
      JSON.stringify({
        smartctl: { messages: [{ string: 'a warning', severity: 'warning' }] },
        temperature: { current: 33 },
        ata_smart_attributes: {
          table: [
            { id: 5, name: 'a', raw: { value: 2 } },
            { id: 197, name: 'b', raw: { value: 1 } },
            { id: 9, name: 'c', raw: { value: 99 } },
          ],
        },
      }),
    );
    expect(ata.facts).toContainEqual({ what: 'errors', part: 'drive', value: 3, unit: '' });
    expect(codes(ata)).toEqual(['told by the tool']);
  });
  it('memtester with its backspaces, and stress-ng with what it did a second', () => {
    const mem = read(
      'memtester version 4.6.0 (64-bit)\nwant 100MB (104857600 bytes)\nLoop 1/2:\n  Stuck Address       : setting   1\b\b\btesting   1\b\b\bok\n  Random Value        : FAILURE: 0x00000001 != 0x00000000 at offset 0x1.\nLoop 2/2:\n  Stuck Address       : ok\n\nDone.\n',
    );
    expect(mem.facts.map((f) => f.value)).toEqual([2, 1]);
    expect(codes(mem)).toEqual([]);
    const stress = read(
      'stress-ng: info:  [10] dispatching hogs: 2 cpu\nstress-ng: metrc: [10] stressor       bogo ops real time  usr time  sys time   bogo ops/s     bogo ops/s\nstress-ng: metrc: [10] cpu               10502     10.00     19.95      0.01      1050.10         526.10\nstress-ng: info:  [10] failed: 0\nstress-ng: info:  [10] passed: 2: cpu (2)\nstress-ng: info:  [10] run completed in 10.01 secs\n',
    );
    expect(stress.facts).toEqual([
      { what: 'score', part: 'cpu', value: 1050.1, unit: '/s' },
      { what: 'errors', part: 'stressors', value: 0, unit: '' },
    ]);
    expect(readRun(stress, { measureSeconds: null, panel: null }).values.score).toBe(1050.1);
  });
});

describe('what is no log, or a broken one', () => {
  it('is refused with a reason, and a sentence that says what is unharmed', () => {
    const random = randomFrom(1);
    expect(refusal(new Uint8Array())).toBe('empty');
    expect(refusal(bytes(' \n\n '))).toBe('empty');
    expect(refusal(Uint8Array.from({ length: 4000 }, () => Math.floor(random() * 256)))).toBe('not text');
    expect(refusal(bytes('Dear diary,\nit was warm today.\n'))).toBe('no log');
    expect(refusal(bytes('frametime\nno\nfigures\nhere\n'))).toBe('no log');
    for (const code of ['empty', 'no log', 'cut', 'too large', 'not text'] as const)
      expect(logErrorWords('a.csv', { code, detail: '' })).toMatch(/Nothing was kept of it/);
  });
  it('a line without end is passed over, and odd bytes are told', () => {
    const log = read(`frametime_ms\n16\n${'9'.repeat(200_000)}\n17\n`);
    expect([...(log.frames ?? [])]).toEqual([16, 17]);
    expect(log.faults).toContainEqual({ code: 'long line', lines: 1, first: 3 });
    expect(codes(read('frametime_ms\n16\n\u0001\n17\n'))).toContain('odd bytes');
  });
  it('whatever is done to a log, it is read with finite figures or refused as a log, and its faults have words', () => {
    const texts = [
      `frametime_ms\n${frames.slice(0, 30).join('\n')}\n`,
      `time;power (W);temp (°C)\n${frames
        .slice(0, 20)
        .map((f, i) => `00:00:${String(i).padStart(2, '0')};${f};${50 + i}`)
        .join('\n')}\n`,
      JSON.stringify({ 'cputemp-pci-00c3': { Adapter: 'PCI adapter', Tctl: { temp1_input: 61 } } }),
      'Core CPU Busy% Bzy_MHz PkgWatt\n- - 40 3000 10\n0 0 41 3000 11\n',
      'stress-ng: info:  [10] failed: 0\nstress-ng: info:  [10] run completed in 10.01 secs\n',
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(...texts),
        fc.array(fc.tuple(fc.nat(5000), fc.nat(255)), { maxLength: 12 }),
        fc.option(fc.nat(5000)),
        (text, hits, cut) => {
          const b = bytes(text);
          for (const [at, to] of hits) b[at % b.length] = to;
          const input = cut === null ? b : b.subarray(0, cut % (b.length + 1));
          let log: TuneLog;
          try {
            log = readLog(input);
          } catch (error) {
            expect(error).toBeInstanceOf(LogReadError);
            return;
          }
          for (const f of log.faults) expect(logFaultWords(f)).not.toBe('');
          for (const s of log.series) {
            expect(s.t).toHaveLength(s.v.length);
            for (let i = 1; i < s.t.length; i += 1)
              expect(s.t[i] ?? 0).toBeGreaterThanOrEqual(s.t[i - 1] ?? 0);
          }
          for (const v of Object.values(readRun(log, { measureSeconds: null, panel: null }).values))
            expect(Number.isFinite(v)).toBe(true);
        },
      ),
      { numRuns: runs(1600) },
    );
  });
});

describe('commas within quotes of a table that is parted by commas', () => {
  const power = (...cells: string[]): number[] => [
    ...(read(`seconds,wall power (W)\n${cells.map((c, i) => `${i},"${c}"`).join('\n')}\n`).series[0]?.v ??
      []),
  ];
  it('part thousands', () => expect(power('1,234', '12,345.5', '999,000')).toEqual([1234, 12345.5, 999000]));
  it('are decimal where one cannot part thousands', () =>
    expect(power('1,5', '2,25', '3,125')).toEqual([1.5, 2.25, 3.125]));
});
