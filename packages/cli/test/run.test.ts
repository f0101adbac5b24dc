/** Run sheet and diagnosis on the command line: what is printed, what is refused, and with which status. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { benchToText } from '@zb/core/model/file';
import { stops } from '@zb/core/model/stops';
import { commandLine } from './command';

const run = commandLine();
const zb = (...args: string[]) => run(args);
const json = <T>(of: { stdout: string }): T => JSON.parse(of.stdout) as T;
const dir = mkdtempSync(join(tmpdir(), 'zb-run-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const put = (name: string, text: string): string => {
  const path = join(dir, name);
  writeFileSync(path, text);
  return path;
};
const bench = put('bench.json', benchToText(saltmarshHall()));

describe('zb plan --export', () => {
  it('prints the state and the operations, and nothing of what they lead to', () => {
    const out = json<{
      build: { id: string };
      media: { id: string; in: string | null }[];
      operations: { key: string; does: { code: string; item?: string; medium?: string }[] }[];
    }>(zb('plan', bench, 'film-night', '--export'));
    expect(Object.keys(out)).toEqual(['build', 'machine', 'system', 'image', 'media', 'operations']);
    expect(out.build.id).toBe('film-night');
    const known = new Set(out.media.map((m) => m.id));
    const named = out.operations.flatMap((o) => o.does).flatMap((d) => d.medium ?? d.item ?? []);
    expect(named.length).toBeGreaterThan(1);
    for (const id of named) expect(known).toContain(id);
  });
});

describe('zb runsheet', () => {
  it('prints the steps in order, with their seconds and words', () => {
    const { steps, next } = json<{
      steps: {
        key: string;
        after: string[];
        seconds: { low: number; high: number };
        words: { title: string };
      }[];
      next: string;
    }>(zb('runsheet', bench, 'film-night'));
    expect(next).toBe('verify:fetch');
    const seen = new Set<string>();
    for (const s of steps) {
      for (const a of s.after) expect(seen).toContain(a);
      seen.add(s.key);
      expect(s.seconds.low).toBeLessThanOrEqual(s.seconds.high);
      expect(s.words.title).not.toBe('');
    }
  });

  it('is written as Markdown and as a file that travels, and reads that back all or nothing', () => {
    expect(zb('runsheet', bench, 'film-night', '--as', 'md').stdout).toMatch(/^# Run sheet: Film night/);
    const { stdout } = zb('runsheet', bench, 'film-night', '--as', 'html');
    const tick =
      '"done":{"verify:fetch":{"at":"2026-03-05T19:00:00.000Z","seconds":90,"as":"","said":"x","noted":""},';
    const sheet = put('sheet.html', stdout.replace('"done":{', tick));
    const out = json<{ fresh: number; bench: unknown }>(zb('runsheet', bench, 'film-night', '--read', sheet));
    expect(out.fresh).toBe(1);
    const after = put('after.json', JSON.stringify(out.bench));
    const again = json<{ steps: { key: string; state: string }[] }>(zb('runsheet', after, 'film-night'));
    expect(again.steps.find((s) => s.key === 'verify:fetch')?.state).toBe('done');
    const other = zb('runsheet', bench, 'archive', '--read', sheet);
    expect(other.status).not.toBe(0);
    expect(other.stdout).toBe('');
    expect(other.stderr).toContain('Film night');
    const cut = put('cut.html', stdout.slice(0, stdout.indexOf('"steps"') + 400));
    expect(zb('runsheet', bench, 'film-night', '--read', cut).status).not.toBe(0);
    // A finished box takes no ticks until it is opened again.
    const hall = saltmarshHall();
    const signoffs = stops.map((stop) => ({ stop, at: '2026-03-05T19:00:00.000Z' }));
    const closed = put(
      'closed.json',
      benchToText({
        ...hall,
        boxes: hall.boxes.map((b) => (b.id === 'film-night' ? { ...b, signoffs } : b)),
      }),
    );
    const refused = zb('runsheet', closed, 'film-night', '--read', sheet);
    expect([refused.status === 0, refused.stdout]).toEqual([false, '']);
  });
});

describe('zb diagnose', () => {
  it('ranks causes, and offers the next look until one is left', () => {
    const first = json<{ causes: { share: number }[]; next: { look: string; answers: string[] } }>(
      zb('diagnose', bench, 'film-night', '--seen', 'old system', '--at', 'starting the stick'),
    );
    expect(first.causes.reduce((n, c) => n + c.share, 0)).toBeCloseTo(1, 9);
    expect(first.next.answers).toContain('no menu came');
    const last = json<{ causes: { cause: string }[]; next: unknown }>(
      zb(
        'diagnose',
        bench,
        'film-night',
        '--seen',
        'old system',
        '--at',
        'starting the stick',
        '--answer',
        'menu=no menu came',
        'tap again=the menu comes',
      ),
    );
    expect(last.causes[0]?.cause).toBe('key missed');
    expect(last.next).toBeNull();
  });

  it.each([
    [['--seen', 'ghosts'], 'old system'],
    [['--seen', 'old system', '--at', 'yesterday'], 'in use'],
    [['--seen', 'no sound', '--at', 'installing'], 'no drive in the list'],
    [['--seen', 'old system', '--answer', 'menu=blue'], 'no menu came'],
    [[], '--seen'],
  ])('refuses %j and says what there is', (args, says) => {
    const done = zb('diagnose', bench, 'film-night', ...args);
    expect(done.status).not.toBe(0);
    expect(done.stdout).toBe('');
    expect(done.stderr).toContain(says);
  });
});

describe('zb schedule', () => {
  it('plans the boxes in work that have a machine; others only where they are named', () => {
    const hall = saltmarshHall();
    const [, over, waiting] = hall.boxes.map((b) => b.id);
    const boxes = hall.boxes.map((b) => ({
      ...b,
      machineId: b.id === waiting ? null : b.machineId,
      signoffs: b.id === over ? stops.map((stop) => ({ stop, at: '2026-03-05T19:00:00.000Z' })) : b.signoffs,
    }));
    const file = put('some.json', benchToText({ ...hall, boxes }));
    const planned = (...more: string[]): string[] =>
      json<{ boxes: { id: string }[] }>(
        zb('schedule', file, '--from', '2026-03-05T19:00:00Z', ...more),
      ).boxes.map((b) => b.id);
    const rest = boxes.filter((b) => b.machineId !== null && b.id !== over).map((b) => b.id);
    expect(planned()).toEqual(rest);
    expect(planned('--box', waiting ?? '')).toEqual([waiting]);
  });

  it('begins a pinned step when it was told to, and refuses a pin on nothing', () => {
    const asked = ['schedule', bench, '--box', 'film-night', '--from', '2026-03-05T19:00:00Z'];
    const first = json<{ late: number; boxes: { stretches: { key: string; from: number }[] }[] }>(
      zb(...asked),
    );
    const step = first.boxes[0]?.stretches.at(-1)?.key ?? '';
    const pin = `film-night ${step}=2026-03-06T19:00:00Z`;
    const second = json<typeof first>(zb(...asked, '--pin', pin));
    expect(second.late).toBe(0);
    expect(second.boxes[0]?.stretches.find((s) => s.key === step)?.from).toBe(86_400);
    for (const odd of ['film-night', 'film-night no-such=20:00']) {
      const done = zb(...asked, '--pin', odd);
      expect([done.status === 0, done.stdout]).toEqual([false, '']);
    }
  });
});

describe('zb times', () => {
  it('prints what steps took beside what was foretold, and what is foretold of a box', () => {
    const { calibration, timed, foretold } = json<{
      calibration: { runs: number; inside: number; share: number };
      timed: { seconds: number; range: { low: number; high: number } }[];
      foretold: { median: number; range: { low: number; high: number }; ground: string }[];
    }>(zb('times', bench, 'film-night'));
    const inside = timed.filter((t) => t.seconds >= t.range.low && t.seconds <= t.range.high).length;
    expect([calibration.runs, calibration.inside]).toEqual([timed.length, inside]);
    expect(foretold.length).toBeGreaterThan(20);
    for (const f of foretold) expect(f.range.low).toBeLessThan(f.median);
    expect(new Set(foretold.map((f) => f.ground))).toEqual(new Set(['your pace', 'runs like it']));
  });
});

describe('zb practice', () => {
  it('lists the exercises, and plays one act by act', () => {
    const all = json<{ id: string; goal: string }[]>(zb('practice'));
    expect(all.length).toBeGreaterThanOrEqual(14);
    const wrong = put('acts.json', JSON.stringify([{ do: 'set out' }]));
    const { end, score, happened } = json<{
      end: string;
      score: number;
      happened: { why: string; lost: { says: string } | null }[];
    }>(zb('practice', 'the-tray', '--seed', '3', '--acts', wrong));
    expect([end, score < 100]).toEqual(['lost', true]);
    expect(happened.at(-1)?.lost?.says).toBeTruthy();
    expect(happened.at(-1)?.why).toBeTruthy();
  });
  it('makes one from a box, and refuses what is none', () => {
    const { offers } = json<{ offers: { do: string; says: string }[] }>(
      zb('practice', '--bench', bench, '--box', 'film-night'),
    );
    expect(offers.map((o) => o.do)).toContain('power');
    for (const args of [
      ['practice', 'no-such'],
      ['practice', 'the-tray', '--seed', '-1'],
      ['practice', 'the-tray', '--acts', put('odd.json', '[{"do":"fly"}]')],
      ['practice', 'the-tray', '--acts', put('none.json', '{}')],
    ]) {
      const done = zb(...args);
      expect(done.status).not.toBe(0);
      expect(done.stdout).toBe('');
      expect(done.stderr).not.toContain('    at ');
    }
  });
});

describe('zb second', () => {
  it('prints what is taken over, and a bench with the box on it', () => {
    const { box, carries, asks } = json<{
      box: { id: string; name: string; profileId: string };
      carries: { code: string }[];
      asks: { code: string }[];
    }>(zb('second', bench, 'archive', '--name', 'Archive of the school'));
    expect([box.name, box.profileId]).toEqual(['Archive of the school', 'coldstore']);
    expect(carries.map((c) => c.code)).toContain('shares and users');
    expect(asks.map((c) => c.code)).toContain('password');
    const again = put('second.json', zb('second', bench, 'archive', '--as', 'bench').stdout);
    expect(zb('runsheet', again, box.id).status).toBe(0);
    const none = zb('second', bench, 'archive', '--machine', 'nobody');
    expect([none.status, none.stdout]).toEqual([2, '']);
  });
});

describe('zb sheet, keep and retire', () => {
  it('print the build sheet, what comes round, and how drives are erased by their kind', () => {
    expect(zb('sheet', bench, 'archive', '--today', '2026-06-01').stdout).toMatch(
      /^# Archive\n[\s\S]*## What comes round/,
    );
    expect(zb('sheet', bench, 'archive', '--as', 'html').stdout).toMatch(
      /^<!doctype html>[\s\S]*<td>10\.44\.8\.20<\/td>/,
    );
    const { boxes } = json<{ boxes: { id: string; chores: { code: string; due: string | null }[] }[] }>(
      zb('keep', bench, 'archive', '--today', '2026-06-01'),
    );
    expect(boxes[0]?.chores.map((c) => c.code)).toEqual(
      expect.arrayContaining(['update day', 'read through', 'bring back']),
    );
    expect(zb('keep', bench, '--as', 'ics').stdout).toMatch(/^BEGIN:VCALENDAR/);
    const lines = json<{ code: string; level?: string; kind?: string; ways?: unknown[] }[]>(
      zb('retire', bench, 'archive', '--to', 'given away'),
    );
    const erased = lines.filter((l) => l.code === 'erase');
    expect(erased.map((l) => [l.level, l.kind])).toEqual([
      ['purge', 'SATA flash'],
      ['purge', 'magnetic disk'],
      ['purge', 'magnetic disk'],
    ]);
    for (const wrong of [
      ['sheet', bench, 'archive', '--as', 'pdf'],
      ['keep', bench, 'archive', '--today', 'tomorrow'],
      ['retire', bench, 'archive', '--to', 'the sea'],
    ]) {
      const said = zb(...wrong);
      expect([said.status, said.stdout]).toEqual([2, '']);
    }
  });
});
