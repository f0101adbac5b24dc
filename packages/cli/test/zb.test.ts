import { REPORT } from './report';
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { depotImages } from '@zb/core/demo/depot';
import { benchToText } from '@zb/core/model/file';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { SURVEY_SCRIPT } from '@zb/core/machine/script';
import { commandLine, root } from './command';

const zb = commandLine();
/** As whoever types it has it. */
const typed = (args: string[], input = '') =>
  spawnSync(process.execPath, [join(root, 'packages/cli/bin/zb.mjs'), ...args], { input, encoding: 'utf8' });
const json = (args: string[], input = ''): Record<string, never> => {
  const done = zb(args, input);
  // On a slow machine it tells how far it is.
  expect(done.stderr.replace(/^zb: .* of .* read\n/gm, '')).toBe('');
  expect(done.status).toBe(0);
  return JSON.parse(done.stdout) as Record<string, never>;
};
let dir: string;
const file = (name: string, content: string | Uint8Array): string => {
  writeFileSync(join(dir, name), content);
  return join(dir, name);
};
beforeAll(() => {
  dir = mkdtempSync(join(tmpdir(), 'zb-cli-'));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

it('says the same as a process, with its status, from a file, standard input or neither', () => {
  const report = file('typed.txt', REPORT);
  for (const [args, input] of [
    [['survey', report], ''],
    [['survey', '-'], REPORT],
    [['inspect', '/nowhere/x.img'], ''],
    [['fly'], ''],
    [[], ''],
  ] as const) {
    const { status, stdout, stderr } = typed([...args], input);
    expect({ status, stdout, stderr }).toEqual(zb(args, input));
  }
  expect(typed(['survey', report]).status).toBe(0);
  expect(typed([]).status).toBe(2);
});

describe('zb survey', () => {
  it('prints the script', () => expect(zb(['survey', '--script']).stdout).toBe(SURVEY_SCRIPT));
  it('reads a file and standard input alike', () => {
    const one = json(['survey', file('report.txt', REPORT)]);
    expect(one).toEqual(json(['survey', '-'], REPORT));
    expect(one).toMatchObject({
      facts: { 'cpu.arch': 'x86_64', 'memory.bytes': 8_192_000_000 },
      drives: [
        {
          name: 'sda',
          bytes: 240057409536,
          serial: 'S1',
          model: 'M',
          transport: 'sata',
          rotational: false,
          removable: false,
        },
      ],
      networkPorts: [],
    });
    expect(one.missing).toEqual(expect.arrayContaining([expect.stringContaining('CPU level')]));
  });
});

describe('zb inspect', () => {
  it('prints bytes, digest, parts, loaders and a row for each firmware and way of attaching', () => {
    const image = depotImages[0]?.build() ?? new Uint8Array(0);
    const seen = json(['inspect', file('x.img', image)]) as unknown as {
      bytes: number;
      sha256: string;
      parts: unknown[];
      outcomes: Record<string, string>[];
    };
    expect(seen.bytes).toBe(image.length);
    expect(seen.sha256).toBe(createHash('sha256').update(image).digest('hex'));
    expect(seen).toMatchObject({ container: { kind: 'none' }, layout: 'gpt' });
    expect(seen.parts).toHaveLength(3);
    expect(seen.parts[1]).toMatchObject({
      index: 2,
      start: 2097152,
      bytes: 16777216,
      type: 'C12A7328-F81F-11D2-BA4B-00A0C93EC93B',
      filesystem: 'fat16',
      label: 'LANTERN',
    });
    expect(seen).toMatchObject({
      loaders: [{ path: '/EFI/BOOT/BOOTX64.EFI', machine: 'x64', signed: false }],
      inner: null,
    });
    expect(seen.outcomes).toHaveLength(10);
    for (const o of seen.outcomes) {
      expect(['bios', 'uefi-x64', 'uefi-ia32', 'uefi-aa64', 'board']).toContain(o.firmware);
      expect(typeof o.evidence).toBe('string');
      expect(o.secureBoot).toBe(o.firmware === 'uefi-x64' && o.attached === 'disk' ? 'no' : null);
      expect(['disk', 'optical']).toContain(o.attached);
      expect(['yes', 'no', 'unknown']).toContain(o.starts);
      expect(typeof o.because).toBe('string');
    }
  });
  it('an empty file is read, not refused', () =>
    expect(json(['inspect', file('empty.img', '')])).toMatchObject({ bytes: 0, layout: 'none', parts: [] }));
});

describe('zb fit', () => {
  const profiles = JSON.stringify(saltmarshHall().profiles);
  it('judges a report, its JSON and a machine record', () => {
    const p = file('profiles.json', profiles);
    const fromText = json(['fit', '--machine', file('r.txt', REPORT), '--profiles', p]) as unknown as {
      verdicts: { verdict: string; reasons: { because: string }[] }[];
    };
    expect(fromText.verdicts).toHaveLength(10);
    expect(
      fromText.verdicts.every((v) => v.reasons.length > 0 && v.reasons.every((r) => r.because !== '')),
    ).toBe(true);
    const asJson = file('s.json', JSON.stringify(json(['survey', '-'], REPORT)));
    expect(json(['fit', '--machine', asJson, '--profiles', p])).toEqual(fromText);
    const gull = saltmarshHall().items.find((i) => i.id === 'gull');
    expect(
      json(['fit', '--machine', file('gull.json', JSON.stringify(gull)), '--profiles', p]),
    ).toMatchObject({ machine: 'Gull' });
  });
  it('takes profiles in every form they come in', () => {
    const m = file('r2.txt', REPORT);
    const list = JSON.parse(profiles) as unknown[];
    for (const form of [list, { profiles: list }, saltmarshHall()])
      expect(
        (
          json(['fit', '--machine', m, '--profiles', file('p.json', JSON.stringify(form))]) as unknown as {
            verdicts: unknown[];
          }
        ).verdicts,
      ).toHaveLength(10);
    expect(
      (
        json(['fit', '--machine', m, '--profiles', file('one.json', JSON.stringify(list[0]))]) as unknown as {
          verdicts: unknown[];
        }
      ).verdicts,
    ).toHaveLength(1);
  });
});

describe('zb assign', () => {
  interface Assigned {
    value: number;
    optimal: boolean;
    assignments: { wish: string; machine: string; parts: string[] }[];
    unmet: { wish: string; because: string; remedy: string | null }[];
  }
  it('says who becomes what on a bench file, and why a wish is left out', () => {
    const out = json([
      'assign',
      '--bench',
      file('demo.json', benchToText(saltmarshHall())),
    ]) as unknown as Assigned;
    expect(out.optimal).toBe(true);
    expect(out.value).toBeGreaterThan(0);
    expect(out.assignments).toContainEqual(
      expect.objectContaining({ wish: 'w-host', machine: 'clerk', parts: ['mem-16'] }),
    );
    expect(new Set(out.assignments.map((a) => a.machine)).size).toBe(out.assignments.length);
    expect(out.unmet).toEqual([
      {
        wish: 'w-desk',
        why: expect.objectContaining({ code: 'taken' }),
        meets: 'machine',
        because: expect.stringMatching(/needs it more/),
        remedy: expect.stringMatching(/95\.00/),
      },
    ]);
  });
  it('reads a bench of the first version, which has no wishes', () => {
    const old = join(root, 'packages/core/test/fixtures/bench-v1.json');
    expect(json(['assign', '--bench', old])).toEqual({ value: 0, optimal: true, assignments: [], unmet: [] });
  });
});

describe('bad input', () => {
  it.each([
    ['no command', []],
    ['an unknown command', ['burn']],
    ['no file', ['inspect']],
    ['a file that is not there', ['inspect', '/nowhere/x.img']],
    ['a folder', ['inspect', '/']],
    ['an unknown option', ['survey', '--nonsense']],
    ['a report that is none', ['survey', join(root, 'package.json')]],
    ['assign without a bench', ['assign']],
    ['assign with a file that is no bench', ['assign', '--bench', join(root, 'package.json')]],
    ['fit without profiles', ['fit', '--machine', join(root, 'package.json')]],
    [
      'a machine that is none',
      ['fit', '--machine', join(root, 'package.json'), '--profiles', join(root, 'package.json')],
    ],
  ])('%s: words on standard error, nothing on standard output, exit code 2', (_name, args) => {
    const done = zb(args);
    expect(done.status).toBe(2);
    expect(done.stdout).toBe('');
    expect(done.stderr).toMatch(/^zb: ./);
  });
  it('a file that is not there is named in plain words', () =>
    expect(zb(['inspect', '/nowhere/x.img']).stderr).toBe('zb: there is no file /nowhere/x.img\n'));
  it('the bin is named zb', () =>
    expect(JSON.parse(readFileSync(join(root, 'packages/cli/package.json'), 'utf8'))).toMatchObject({
      bin: { zb: 'bin/zb.mjs' },
    }));
});
