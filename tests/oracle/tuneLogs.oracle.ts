/**
 * Logs of real tools, made here and now and read by our readers: fio, iperf3 over loopback, stress-ng, memtester, sensors, and our
 * recorder under dash and busybox on this machine. What each tool says of itself is read by Python’s json, apart from us.
 */
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import type { LogFact, TuneLog } from '@zb/core/tune/logs/log';
import { readLog } from '@zb/core/tune/logs/read';
import { recorderScript } from '@zb/core/tune/logs/recorder';
import { readRun } from '@zb/core/tune/runValues';
import { run, scratch } from './files';

const { dir, path, clear } = scratch();
afterAll(clear);
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const read = (text: string): TuneLog => readLog(bytes(text));
const fact = (log: TuneLog, what: LogFact['what']): number =>
  log.facts.find((f) => f.what === what)?.value ?? NaN;
const python = <T>(script: string, input: string): T =>
  JSON.parse(run('/usr/bin/python3', ['-c', script], input)) as T;

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

test('fio: a write and a read as JSON, and its log of rates', () => {
  const common = [
    '--filename',
    path('load'),
    '--size=24m',
    '--bs=64k',
    '--ioengine=psync',
    '--output-format=json',
  ];
  const write = run('fio', [
    '--name=write',
    '--rw=write',
    ...common,
    `--write_bw_log=${path('bw')}`,
    '--log_avg_msec=0',
    '--end_fsync=1',
  ]);
  const said = python<{ bw: number; io: number }>(
    'import json,sys; t=sys.stdin.read(); j=json.loads(t[t.index("{"):])["jobs"][0]["write"]; json.dump({"bw": j["bw_bytes"], "io": j["io_bytes"]}, sys.stdout)',
    write,
  );
  const log = read(write);
  expect(log.kind).toBe('fio');
  expect(fact(log, 'write rate')).toBe(said.bw);
  expect(said.io).toBe(24 * 1024 * 1024);
  expect(readRun(log, { measureSeconds: null, panel: null }).values.write).toBe(said.bw);
  const rates = readFileSync(path('bw_bw.1.log'), 'utf8');
  const series = readLog(bytes(rates)).series[0];
  expect(series?.kind).toBe('write');
  expect(series?.v).toHaveLength(rates.trim().split('\n').length);
  expect(series?.v[0]).toBe(Number(rates.split(',')[1]) * 1024);
  const back = read(run('fio', ['--name=read', '--rw=read', ...common]));
  expect(fact(back, 'read rate')).toBeGreaterThan(0);
  expect(back.facts.some((f) => f.what === 'write rate')).toBe(false);
});

test('iperf3 over loopback, and against nobody', async () => {
  const port = String(await freePort());
  const server = spawn('iperf3', ['-s', '-1', '--forceflush', '-p', port], {
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  await new Promise<void>((resolve) => server.stdout.once('data', () => resolve()));
  const text = run('iperf3', ['-c', '127.0.0.1', '-p', port, '-t', '2', '-J']);
  server.kill();
  const said = python<{ got: number; n: number }>(
    'import json,sys; j=json.load(sys.stdin); json.dump({"got": j["end"]["sum_received"]["bits_per_second"], "n": len(j["intervals"])}, sys.stdout)',
    text,
  );
  const log = read(text);
  expect(fact(log, 'network rate')).toBeCloseTo(said.got / 8, 3);
  expect(log.series[0]?.v).toHaveLength(said.n);
  const nobody = spawnSync('iperf3', ['-c', '127.0.0.1', '-p', port, '-t', '1', '-J'], { encoding: 'utf8' });
  expect(() => read(nobody.stdout)).toThrow(/log cannot be read/);
});

test('stress-ng and memtester, as they print', () => {
  const stress = spawnSync(
    'stress-ng',
    ['--cpu', '1', '--cpu-method', 'int8', '--timeout', '2s', '--metrics-brief'],
    { encoding: 'utf8' },
  );
  const text = stress.stdout + stress.stderr;
  const log = read(text);
  expect(log.kind).toBe('stress-ng');
  const row = /\] cpu\s+(\d+)\s+([\d.]+)\s+[\d.]+\s+[\d.]+\s+([\d.]+)/.exec(text);
  expect(fact(log, 'score')).toBe(Number(row?.[3]));
  expect(fact(log, 'score')).toBeGreaterThan(0);
  expect(log.faults).toEqual([]);
  const memory = spawnSync('memtester', ['1M', '1'], { encoding: 'utf8' });
  const tested = read(memory.stdout);
  expect(fact(tested, 'rounds')).toBe(1);
  expect(fact(tested, 'errors')).toBe(0);
  expect(tested.faults).toEqual([]);
}, 60_000);

test('sensors -j on this machine: its own form, with or without a sensor', () => {
  const { stdout } = spawnSync('sensors', ['-j'], { encoding: 'utf8' });
  // A machine without sensors prints nothing or an empty value, which is no log.
  if (stdout.trim().length < 5) expect(() => read(stdout)).toThrow(/log cannot be read/);
  else {
    const count = python<number>(
      'import json,sys; json.dump(sum(1 for c in json.load(sys.stdin).values() for f in c.values() if isinstance(f, dict) for k in f if k.startswith("temp") and k.endswith("_input")), sys.stdout)',
      stdout,
    );
    expect(read(stdout).series.filter((s) => s.kind === 'temperature')).toHaveLength(count);
  }
});

describe('our recorder', () => {
  test.each([
    ['dash', ['dash']],
    ['busybox', ['busybox', 'sh']],
  ])('under %s on this machine: a line a second, read back', (_, [command = 'sh', ...args]) => {
    writeFileSync(path('record.sh'), recorderScript);
    const text = execFileSync(command, [...args, path('record.sh'), '3'], { encoding: 'utf8' });
    expect(text.split('\n')[0]).toMatch(/^# zealous box recorder 1, \d{4}-\d\d-\d\dT/);
    const rows = text
      .trim()
      .split('\n')
      .slice(2)
      .map((l) => l.split(','));
    expect(rows).toHaveLength(3);
    const heads = text.split('\n')[1]?.split(',') ?? [];
    for (const r of rows) expect(r).toHaveLength(heads.length);
    const seconds = rows.map((r) => Number(r[0]));
    expect((seconds[2] ?? 0) - (seconds[0] ?? 0)).toBeGreaterThan(1.9);
    // A machine that shows no sensor gives times alone, which is nothing to read.
    if (heads.length > 1) expect(read(text).kind).toBe('recorder');
    else expect(() => read(text)).toThrow(/log cannot be read/);
  });

  test('on a made-up /sys with every kind of sensor, one of which goes away meanwhile', () => {
    const sys = join(dir, 'sys');
    const put = (name: string, value: string): void => {
      mkdirSync(join(sys, name, '..'), { recursive: true });
      writeFileSync(join(sys, name), value);
    };
    put('class/hwmon/hwmon0/name', 'chip, "odd"\n');
    put('class/hwmon/hwmon0/temp1_input', '61500\n');
    put('class/hwmon/hwmon0/temp1_label', 'Tctl\n');
    put('class/hwmon/hwmon0/fan1_input', '1830\n');
    put('class/hwmon/hwmon0/power1_average', '12345678\n');
    put('class/thermal/thermal_zone0/type', 'x86_pkg_temp\n');
    put('class/thermal/thermal_zone0/temp', '60000\n');
    put('class/powercap/rapl:0/name', 'package-0\n');
    put('class/powercap/rapl:0/energy_uj', '5000000\n');
    put('devices/system/cpu/cpu0/cpufreq/scaling_cur_freq', '3400000\n');
    put('class/power_supply/BAT0/power_now', '14200000\n');
    put('class/power_supply/BAT0/capacity', '87\n');
    symlinkSync(join(sys, 'class/hwmon/hwmon0'), join(sys, 'class/hwmon/hwmon1'));
    writeFileSync(
      path('made.sh'),
      recorderScript
        .replaceAll('/sys/', `${sys}/`)
        .replace('sleep 1', `rm -f ${sys}/class/thermal/thermal_zone0/temp; sleep 0.2`),
    );
    const log = read(execFileSync('dash', [path('made.sh'), '3'], { encoding: 'utf8' }));
    const first = (kind: string, where = 'part'): number | undefined =>
      log.series.find((s) => s.kind === kind && s.where === where)?.v[0];
    expect(first('temperature')).toBe(61.5);
    expect(first('fan')).toBe(1830);
    expect(first('clock')).toBe(3400);
    expect(first('power', 'battery')).toBe(14.2);
    expect(first('charge')).toBe(87);
    const gone = log.series.find((s) => /x86_pkg/.test(s.part));
    expect([...(gone?.v ?? [])]).toEqual([60, NaN, NaN]);
    expect(log.faults).toEqual([]);
  });
});
