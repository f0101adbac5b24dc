import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { carryingFolder } from '@zb/core/demo/carrying';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { benchToText } from '@zb/core/model/file';
import { movingSchema } from '@zb/core/model/moving';
import { commandLine } from './command';

const zb = commandLine();
const json = (args: string[], input = ''): Record<string, unknown> => {
  const done = zb(args, input);
  // How far it is stands there too where the machine is busy; only a refusal is a fault.
  if (done.status === 2 || done.stdout === '') throw new Error(done.stderr);
  return JSON.parse(done.stdout) as Record<string, unknown>;
};
const dir = mkdtempSync(join(tmpdir(), 'zb-keep-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const file = (name: string, text: string): string => {
  const path = join(dir, name);
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(path, text);
  return path;
};
const BENCH = file('hall.json', benchToText(saltmarshHall()));
const drives = (...bytes: number[]): string =>
  JSON.stringify({
    drives: bytes.map((b, i) => ({
      id: `d${i}`,
      name: `drive ${i}`,
      bytes: b,
      serial: `SN-000${i}`,
      rotational: true,
    })),
  });
const FOUR = file(
  'four.json',
  drives(4_000_787_030_016, 4_000_787_030_016, 2_000_398_934_016, 1_000_204_886_016),
);

interface Way {
  way: string;
  usable: number;
  raw: number;
  takes: { bytes: number }[];
  survives: { any: number };
  findings: { fault: { code: string }; says: string }[];
}

describe('zb pool', () => {
  it('says every way drives make, with all bytes accounted for', () => {
    const { ways } = json(['pool', FOUR]) as { ways: Way[] };
    expect(ways.length).toBeGreaterThan(12);
    for (const w of ways) expect(w.usable + w.takes.reduce((n, t) => n + t.bytes, 0)).toBe(w.raw);
    const two = ways.find((w) => w.way === 'groups copies 2');
    expect(two?.survives.any).toBe(1);
    expect((two?.usable ?? 0) / 2 ** 40).toBeCloseTo(5, 1);
    const one = json(['pool', FOUR, '--manner', 'plain', '--spares', '--way', 'plain parity 1 spare']) as {
      ways: Way[];
    };
    expect(one.ways.map((w) => w.way)).toEqual(['plain parity 1 spare']);
  });
  it('writes one way as commands that name drives by their serials, and none where a serial is not known', () => {
    const text = zb(['pool', FOUR, '--way', 'plain parity 1', '--as', 'commands', '--name', 'store']).stdout;
    expect(text).toContain('d1=$(drive SN-0000)');
    expect(text).toMatch(/mdadm --create \/dev\/md\/store .*--level=5/);
    expect(spawnSync('sh', ['-n'], { input: text }).status).toBe(0);
    const unnamed = file('unnamed.json', JSON.stringify({ drives: [{ id: 'a', name: 'a', bytes: 1e12 }] }));
    const done = zb(['pool', unnamed, '--way', 'plain single 1', '--as', 'commands']);
    expect([done.status, done.stdout]).toEqual([2, '']);
    expect(done.stderr).toMatch(/serial/);
  });
  it('says of a box what was taken, and what is wanting in its copies', () => {
    const out = json(['pool', BENCH, '--box', 'archive']) as {
      taken: Way;
      copies: { fault: { code: string } }[];
    };
    expect(out.taken.way).toBe('groups copies 2');
    expect(out.copies.map((c) => c.fault.code)).toContain('all in one house');
  });
  it.each([
    ['no plan', ['pool', '-'], 'no drives'],
    ['a way that is none', ['pool', FOUR, '--way', 'sideways'], ''],
    ['a way these drives do not make', ['pool', FOUR, '--way', 'padded parity 3 spare'], ''],
    ['a box that is not there', ['pool', BENCH, '--box', 'nobody'], ''],
    ['a bench that shares nothing', ['shares', BENCH, 'games-corner'], ''],
    ['a form that is none', ['shares', BENCH, 'archive', '--as', 'poem'], ''],
    ['a folder that is none', ['content', join(dir, 'nowhere')], ''],
    ['a purpose that is none', ['content', dir, '--purpose', 'gardening'], ''],
    ['a finding that is none', ['content', 'plan', dir, '--take', 'ghosts'], ''],
    ['a list that is none', ['content', 'verify', FOUR, dir], ''],
  ])('refuses %s in words, and prints nothing', (_what, args, input) => {
    const done = zb(args, input);
    expect(done.status).toBe(2);
    expect(done.stdout).toBe('');
    expect(done.stderr).toMatch(/^zb: .{10,}/);
    expect(done.stderr).not.toMatch(/\n\s+at /);
  });
});

it('zb moving: steps with what is typed, and whether one can go back', () => {
  const bench = saltmarshHall();
  const boxes = bench.boxes.map((b) =>
    b.id === 'archive'
      ? {
          ...b,
          moving: [
            movingSchema.parse({
              id: 'm',
              what: 'catalogue',
              kind: 'MariaDB',
              done: { freeze: '2026-05-04T10:00:00.000Z' },
            }),
          ],
        }
      : b,
  );
  const path = file('moving.json', benchToText({ ...bench, boxes }));
  const out = json(['moving', '--bench', path, '--box', 'archive']) as {
    moving: { next: string; back: string; steps: { step: string; command: string | null }[] }[];
  };
  expect(out.moving[0]).toMatchObject({ next: 'back up', back: 'free' });
  expect(out.moving[0]?.steps.find((s) => s.step === 'back up')?.command).toContain(
    'mariadb-dump --single-transaction',
  );
});

describe('zb shares', () => {
  it('says what is wrong, and ends with 1 where there is a Stop', () => {
    const out = json(['shares', BENCH, 'archive']) as {
      name: string;
      stops: number;
      findings: { says: string }[];
    };
    expect(out).toMatchObject({ name: 'archive', stops: 0 });
    const wrong = file('wrong.json', JSON.stringify({ folders: [{ id: 'a', name: 'homes', path: '/etc' }] }));
    const done = zb(['shares', wrong]);
    expect(done.status).toBe(1);
    expect(
      (JSON.parse(done.stdout) as { findings: { fault: { code: string } }[] }).findings.map(
        (f) => f.fault.code,
      ),
    ).toEqual(
      expect.arrayContaining([
        'share name set aside',
        'path of the system',
        'no networks',
        'nobody reaches it',
      ]),
    );
  });
  it('opens nothing to guests unasked', () => {
    const bare = file(
      'bare.json',
      JSON.stringify({ from: ['10.0.0.0/8'], folders: [{ id: 'a', name: 'a', path: '/srv/a' }] }),
    );
    const conf = zb(['shares', bare, '--as', 'smb']).stdout;
    expect(conf).toContain('map to guest = Never');
    expect(conf).toContain('valid users = nobody');
    expect(zb(['shares', bare, '--as', 'exports']).stdout).not.toContain('/srv');
  });
});

describe('zb content', () => {
  const top = join(dir, 'carry');
  beforeAll(() => {
    for (const f of carryingFolder()) file(`carry/${f.path}`, f.text);
  });
  interface Looked {
    files: number;
    bytes: number;
    findings: { fault: { code: string; files: string[] }; count: number }[];
  }
  it('finds what stands in the way, by the rules of a purpose and of a system', () => {
    const out = json([
      'content',
      top,
      '--purpose',
      'games',
      '--target',
      'fat',
      '--hash',
    ]) as unknown as Looked;
    expect(out.files).toBe(carryingFolder().length);
    const codes = out.findings.map((f) => f.fault.code);
    expect(codes).toEqual(
      expect.arrayContaining(['differ by case', 'name refused', 'part missing', 'same bytes', 'packed']),
    );
    const rules = file(
      'rules.json',
      JSON.stringify({ kinds: [{ id: 'tif', title: 'scans', endings: ['tif'], folder: 'Archive' }] }),
    );
    const own = json(['content', top, '--profile', rules]) as unknown as Looked;
    expect(own.findings.find((f) => f.fault.code === 'wrong folder')?.count).toBe(330);
  });
  it('plans what goes where, and writes it in every form', () => {
    const plan = json(['content', 'plan', top, '--target', 'fat', '--room', '2000000000']) as {
      files: number;
      left: number;
      stick: { trips: string[][] };
    };
    expect(plan.files + plan.left).toBe(carryingFolder().length);
    expect(plan.stick.trips).toHaveLength(1);
    for (const as of ['moves', 'undo', 'copy']) {
      const text = zb(['content', 'plan', top, '--target', 'fat', '--as', as]).stdout;
      expect(spawnSync('sh', ['-n'], { input: text }).status).toBe(0);
    }
    const list = zb(['content', 'plan', top, '--target', 'fat', '--as', 'list']).stdout.split('\0');
    expect(list).toContain('Films/Harbour/Harbour (1958).mkv');
    expect(list).not.toContain('Letters/Who pays?.txt');
  });
  it('reads what music says of itself', () => {
    /** ID3v2.3 (its informal standard, §3 and §4.2) before four frames of MPEG audio (ISO/IEC 11172-3 §2.4.1.3). */
    const mp3 = (tags: Record<string, string>): Buffer => {
      const frames = Object.entries(tags).map(([id, value]) => {
        const text = Buffer.concat([Buffer.from([0]), Buffer.from(value, 'latin1')]);
        const head = Buffer.alloc(10);
        head.write(id, 'latin1');
        head.writeUInt32BE(text.length, 4);
        return Buffer.concat([head, text]);
      });
      const body = Buffer.concat(frames);
      const size = [21, 14, 7, 0].map((shift) => (body.length >> shift) & 0x7f);
      const frame = Buffer.concat([Buffer.from([0xff, 0xfb, 0x90, 0x64]), Buffer.alloc(413)]);
      return Buffer.concat([
        Buffer.from('ID3\x03\0\0', 'latin1'),
        Buffer.from(size),
        body,
        frame,
        frame,
        frame,
        frame,
      ]);
    };
    const whole = { TIT2: 'Lamp', TPE1: 'Tide Band', TALB: 'Tide Songs', TRCK: '4/8' };
    const songs = join(dir, 'songs');
    mkdirSync(songs);
    writeFileSync(join(songs, '04 Lamp.mp3'), mp3(whole));
    writeFileSync(join(songs, '05 Herring.mp3'), mp3({ ...whole, TRCK: '9' }));
    writeFileSync(join(songs, '06 Slack.mp3'), mp3({ TIT2: 'Slack' }));
    writeFileSync(join(songs, '07 Home.flac'), 'no music at all');
    const found = (json(['content', songs, '--purpose', 'music', '--tags']) as unknown as Looked).findings;
    const by = (code: string): string[] | undefined => found.find((f) => f.fault.code === code)?.fault.files;
    expect(by('tags missing')).toEqual(['06 Slack.mp3']);
    expect(by('tags otherwise')).toEqual(['05 Herring.mp3']);
    expect(by('tags not read')).toEqual(['07 Home.flac']);
    // Unasked, no file is opened for it.
    const unasked = (json(['content', songs, '--purpose', 'music']) as unknown as Looked).findings;
    expect(unasked.some((f) => f.fault.code.startsWith('tags'))).toBe(false);
  });
  it('reads links in circles, folders four hundred deep and names that are no text, and follows nothing', () => {
    const odd = join(dir, 'odd');
    mkdirSync(odd);
    symlinkSync('.', join(odd, 'self'));
    symlinkSync('nowhere', join(odd, 'gone'));
    mkdirSync(join(odd, Array.from({ length: 400 }, () => 'd').join('/')), { recursive: true });
    writeFileSync(join(odd, Array.from({ length: 400 }, () => 'd').join('/'), 'deep'), 'x');
    writeFileSync(Buffer.concat([Buffer.from(`${odd}/`), Buffer.from([0x66, 0xff, 0xfe])]), 'no text');
    const out = json(['content', odd, '--hash', '--target', 'fat']) as unknown as Looked;
    expect(out.files).toBe(2);
    const by = (code: string): string[] =>
      out.findings.filter((f) => f.fault.code === code).flatMap((f) => f.fault.files);
    expect(by('not read').sort()).toEqual(['gone', 'self']);
    expect(by('path too long')).toHaveLength(1);
    expect(by('name refused')).toHaveLength(1);
    const sums = file(
      'odd.sums',
      zb(['content', 'plan', odd, '--as', 'manifest', '--take', 'none', '--target', 'ext4']).stdout,
    );
    // A name that is no text cannot stand in a text: that file is left out, and told.
    const plan = json(['content', 'plan', odd, '--take', 'none', '--target', 'ext4']) as unknown as {
      unnamed: string[];
    };
    expect(plan.unnamed).toEqual(['f\ufffd\ufffd']);
    const verified = JSON.parse(zb(['content', 'verify', sums, odd]).stdout) as { same: number };
    expect(verified.same).toBe(1);
  });
});
