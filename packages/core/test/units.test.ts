import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { buildSync } from 'esbuild';
import { formatMoment } from '@zb/core/units/date';
import fc from 'fast-check';
import { formatBoth, formatExact, formatIec, formatSi, parseBytes } from '@zb/core/units/bytes';
import { progress } from '@zb/core/units/progress';
import { addSpans, formatDuration, formatRate, formatSpan, span } from '@zb/core/units/duration';

describe('bytes', () => {
  // IEC 80000-13:2008, clause 4: kibi 2^10, mebi 2^20, gibi 2^30; SI prefixes are powers of ten.
  it.each([
    [0, '0 B', '0 B'],
    [999, '999 B', '999 B'],
    [1000, '1000 B', '1.00 kB'],
    [1024, '1.00 KiB', '1.02 kB'],
    [1024 ** 2, '1.00 MiB', '1.05 MB'],
    [1024 ** 3, '1.00 GiB', '1.07 GB'],
    // A maker's 16 GB stick: the pair that puzzles people.
    [16e9, '14.9 GiB', '16.0 GB'],
    [512_110_190_592, '477 GiB', '512 GB'],
    [4_000_787_030_016, '3.64 TiB', '4.00 TB'],
  ])('%d bytes are %s and %s', (bytes, iec, si) => {
    expect(formatIec(bytes)).toBe(iec);
    expect(formatSi(bytes)).toBe(si);
    expect(formatBoth(bytes)).toBe(`${iec} (${si})`);
  });

  it('carries into the next unit when rounding reaches it', () => {
    expect(formatIec(1024 ** 2 - 1)).toBe('1.00 MiB');
    expect(formatSi(999_999_999)).toBe('1.00 GB');
  });

  it('groups exact counts by three', () => {
    expect(formatExact(16_008_609_792).replace(/\u202f/g, ' ')).toBe('16 008 609 792 bytes');
    expect(formatExact(999)).toBe('999 bytes');
  });

  it.each([
    ['16 GB', 16e9],
    ['14.9GiB', Math.round(14.9 * 1024 ** 3)],
    ['512', 512],
    ['1,5 TB', 1.5e12],
    ['16 008 609 792 bytes', 16_008_609_792],
    ['8gib', 8 * 1024 ** 3],
    ['1,000 GB', 1000e9],
    ['1,000,000 kB', 1e9],
    ['1.000.000 kB', 1e9],
    ['1,000.5 GB', 1000.5e9],
    ['1.000,5 GB', 1000.5e9],
    ['1.000 GB', 1e9],
    ['0,500 GB', 0.5e9],
    ['0.5 GB', 0.5e9],
  ])('reads %s', (text, bytes) => expect(parseBytes(text)).toBe(bytes));

  it.each([
    '',
    'GB',
    '16 G',
    '12 potatoes',
    '1.2.3 GB',
    '1,2,3 GB',
    '1,00.5 GB',
    '10.00,5 GB',
    '1,0000,000 GB',
    '-5 GB',
  ])('refuses %p', (text) => expect(parseBytes(text)).toBeUndefined());

  it('reads back what it wrote, to three figures', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2 ** 50 }), (bytes) => {
        for (const format of [formatIec, formatSi]) {
          const back = parseBytes(format(bytes)) ?? 0;
          expect(Math.abs(back - bytes) / bytes).toBeLessThan(0.0051);
        }
        expect(parseBytes(formatExact(bytes))).toBe(bytes);
      }),
    );
  });
});

describe('progress', () => {
  it.each([
    [0, 100, 0, { share: 0, rate: 0, left: undefined }],
    [50, 100, 10, { share: 0.5, rate: 5, left: 10 }],
    [100, 100, 10, { share: 1, rate: 10, left: 0 }],
    [0, 0, 0, { share: 1, rate: 0, left: undefined }],
  ])('%d of %d bytes after %d s', (done, total, seconds, is) =>
    expect(progress(done, total, seconds)).toEqual(is),
  );
});

describe('durations', () => {
  it.each([
    [0.4, 'under 1 s'],
    [8, '8 s'],
    [59.6, '1 min'],
    [95, '2 min'],
    [5400, '1 h 30 min'],
  ])('%d seconds are %s', (seconds, text) => expect(formatDuration(seconds)).toBe(text));

  it.each([
    [span(300, 480), '5–8 min'],
    [span(60), '1 min'],
    [span(2, 4), '2–4 s'],
    [span(7200, 10800), '2.0–3.0 h'],
    [span(1500, 7260), '25–121 min'],
    [span(1500, 18000), '25 min–5.0 h'],
    [span(0), '0 min'],
  ])('%o is shown as %s', (range, text) => expect(formatSpan(range)).toBe(text));

  it('adds ranges end by end', () =>
    expect(addSpans([span(1, 2), span(10, 20)])).toEqual({ low: 11, high: 22 }));
  it('names rates in SI', () => {
    expect(formatRate(18e6)).toBe('18.0 MB/s');
    expect(formatRate(188.4e6)).toBe('188 MB/s');
  });
});

describe('moments', () => {
  const now = '2026-06-15T12:00:00Z';
  /** What a machine in another place says: the zone of a process is settled when it starts. */
  const said = (zone: string, iso: string): string[] => {
    const { outputFiles } = buildSync({
      entryPoints: [join(__dirname, '../src/units/date.ts')],
      bundle: true,
      format: 'cjs',
      platform: 'node',
      write: false,
    });
    const code = `const module = { exports: {} };${outputFiles[0]?.text ?? ''};const date = module.exports;
      const now = new Date('${now}');console.log(JSON.stringify([date.formatMoment('${iso}', now), date.formatDay('${iso}', now)]));`;
    const env = { ...process.env, TZ: zone, LANG: 'de_DE.UTF-8', LC_ALL: 'de_DE.UTF-8' };
    return JSON.parse(execFileSync(process.execPath, ['-e', code], { env, encoding: 'utf8' })) as string[];
  };

  // Offsets of the zones from the IANA time zone database.
  it.each([
    ['UTC', '2026-12-31T23:30:00.000Z', '31 Dec 23:30', '31 Dec'],
    ['Asia/Tokyo', '2026-12-31T23:30:00.000Z', '1 Jan 2027 08:30', '1 Jan 2027'],
    ['America/St_Johns', '2026-12-31T23:30:00.000Z', '31 Dec 20:00', '31 Dec'],
    ['Europe/Berlin', '2025-06-15T22:30:00.000Z', '16 Jun 2025 00:30', '16 Jun 2025'],
  ])(
    'are told by the clock of the place, %s, with the year where it is not this one',
    (zone, iso, moment, day) => expect(said(zone, iso)).toEqual([moment, day]),
  );

  it('what is no moment stays as it is', () => expect(formatMoment('soon')).toBe('soon'));
});
