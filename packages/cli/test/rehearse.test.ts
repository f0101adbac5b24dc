import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { benchToText } from '@zb/core/model/file';
import { commandLine } from './command';

const zb = commandLine();
const PLAN = {
  kind: 'install',
  machine: {
    name: 'm',
    mode: 'uefi',
    secureBoot: 'off',
    order: [['stick'], ['new', 'kept']],
    power: 'secured',
  },
  drives: [
    {
      id: 'stick',
      name: 'stick',
      bytes: 8e9,
      bus: 'usb',
      role: 'installer',
      matters: false,
      starts: { uefi: 'it' },
    },
    { id: 'new', name: 'new', bytes: 120e9, bus: 'sata', role: 'target', matters: false },
    {
      id: 'kept',
      name: 'kept',
      bytes: 240e9,
      bus: 'sata',
      role: 'other',
      matters: true,
      unplug: { minutes: 4, screws: 1 },
    },
  ],
  installer: { choice: 'takes the first drive unasked' },
};
interface Out {
  worlds: number;
  lost: number;
  right: number;
  taken: string[];
  wrong: { ending: string; frames: { words: { title: string } }[] } | null;
  precautions: { id: string; switched: { lost: number } }[];
  safe: Record<string, { sets: { ids: string[] }[]; cheapest: { minutes: number } | null }>;
}
const rehearsed = (args: string[], input?: string): Out => {
  const done = zb(['rehearse', ...args], input);
  expect([done.status, done.stderr]).toEqual([0, '']);
  return JSON.parse(done.stdout) as Out;
};

describe('zb rehearse', () => {
  it('prints worlds, endings, the shortest wrong one, precautions and smallest sets', () => {
    const out = rehearsed(['-'], JSON.stringify(PLAN));
    expect(out.lost).toBe(out.worlds / 2);
    expect(out.wrong?.ending).toBe('kept drive erased');
    expect(out.wrong?.frames.at(-1)?.words.title).not.toBe('');
    expect(out.precautions.find((p) => p.id === 'unplug:kept')?.switched.lost).toBe(0);
    expect(out.safe['nothing lost']).toMatchObject({
      sets: [{ ids: ['unplug:kept'] }],
      cheapest: { minutes: 4 },
    });
  });
  it('goes on with precautions that are taken', () => {
    const out = rehearsed(['--with', 'unplug:kept,stick out', '-'], JSON.stringify(PLAN));
    expect([out.lost, out.taken]).toEqual([0, ['unplug:kept', 'stick out']]);
  });
  it('takes a box of a bench in place of a plan', () => {
    const dir = mkdtempSync(join(tmpdir(), 'zb-rehearse-'));
    try {
      const file = join(dir, 'bench.json');
      writeFileSync(file, benchToText(saltmarshHall()));
      const out = rehearsed(['--bench', file, '--box', 'film-night']);
      expect(out.lost).toBeGreaterThan(0);
      const gate = zb(['rehearse', '--bench', file, '--box', 'guest-gate']);
      expect([gate.status, gate.stdout]).toEqual([2, '']);
      expect(gate.stderr).toMatch(/no system/);
    } finally {
      rmSync(dir, { recursive: true });
    }
  });
  it('tells the starts that come and what is done inside, of a box of a bench', () => {
    const dir = mkdtempSync(join(tmpdir(), 'zb-inside-'));
    try {
      const file = join(dir, 'bench.json');
      const hall = saltmarshHall();
      const boxes = hall.boxes.map((b) =>
        b.id === 'film-night' ? { ...b, precautions: ['unplug:tern-ssd'] } : b,
      );
      writeFileSync(file, benchToText({ ...hall, boxes }));
      const json = (args: string[]): unknown => {
        const done = zb([...args, '--bench', file]);
        expect([done.status, done.stderr]).toEqual([0, '']);
        return JSON.parse(done.stdout);
      };
      const starts = json(['starts', '--box', 'archive']) as { moment: string; result: string }[];
      expect(starts.map((s) => s.moment)).toEqual(['now', 'first restart', 'every later start']);
      expect(starts[1]?.result).toBe('the new system starts');
      expect(json(['opening', '--box', 'film-night'])).toMatchObject({
        opened: true,
        goesOut: ['Scans drive'],
        minutes: 16,
      });
      expect(json(['opening', '--box', 'archive'])).toMatchObject({ opened: false });
      const stick = zb(['rehearse', '--bench', file, '--box', 'film-night', '--part', 'writing the stick']);
      expect(stick.stderr).toMatch(/which drive/);
      expect(zb(['starts', '--bench', file, '--box', 'tea-room-music']).stderr).toMatch(/no machine/);
    } finally {
      rmSync(dir, { recursive: true });
    }
  });
  it('says what is wrong with what it is given', () => {
    const wrong = (input: string, args: string[] = ['-']): string => {
      const done = zb(['rehearse', ...args], input);
      expect([done.status, done.stdout]).toEqual([2, '']);
      return done.stderr;
    };
    expect(wrong('{')).toMatch(/no JSON/);
    expect(wrong(JSON.stringify({ ...PLAN, drives: PLAN.drives.slice(1) }))).toMatch(/installer’s/);
    expect(wrong(JSON.stringify({ ...PLAN, drives: [...PLAN.drives, PLAN.drives[1]] }))).toMatch(/target/);
    expect(wrong(JSON.stringify(PLAN), ['--with', 'luck', '-'])).toMatch(
      /no precaution luck; it offers unplug:kept/,
    );
    expect(wrong('', [])).toMatch(/needs a PLAN/);
  });
});
