/**
 * Every file that a bench can be written to, read by the tools that will read it: once with harmless texts in every field, once
 * with hostile ones. Whatever a tool tells of structure is the same, no command runs that is not run without, no page fetches
 * or runs anything. The writers come from the one list there is; strict readers of ours hold the rest (exports.test.ts).
 */
import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { judgeOn } from '@zb/core/box/today';
import type { FileFormat } from '@zb/core/exports/file';
import { exportedFiles, type NamedFile } from '@zb/core/exports/writers';
import {
  CANARY,
  fullBench,
  HOSTILE,
  hostileBench,
  hostileFolder,
} from '../../packages/core/test/hostileBench';
import { shellTokens } from '../../packages/core/test/skeletons';
import { chromiumOptions } from '../../tools/chromium.mjs';
import { random, seedOfRun } from './damage';
import { run, scratch } from './files';

jest.setTimeout(600_000);
const room = scratch();
const canary = room.path('ran');
afterAll(() => {
  judgeOn(undefined);
  room.clear();
});

judgeOn('2026-03-05');
const at = '2026-03-05T18:00:00.000Z';
const pair = hostileBench(fullBench(), Math.floor(random(seedOfRun())(HOSTILE.length)));
const files = {
  harmless: exportedFiles({ bench: pair.harmless, at, folder: hostileFolder(false) }),
  hostile: exportedFiles({ bench: pair.hostile, at, folder: hostileFolder(true) }),
};
/** The demo bench as it is: its drives have serials, so that commands over drives are written as well. */
const plain = exportedFiles({ bench: fullBench(), at, folder: hostileFolder(false) });
const of = (format: FileFormat, all: readonly NamedFile[]): NamedFile[] =>
  all.filter((f) => f.format === format);
let n = 0;
const saved = (f: NamedFile, more: string | Buffer = ''): string => {
  n += 1;
  const path = room.path(`file${n}`);
  writeFileSync(path, Buffer.concat([Buffer.from(f.content), Buffer.from(more)]));
  return path;
};

/** Where a command of the canary's name leaves its mark, should anything run it. */
const bin = room.path('bin');
mkdirSync(bin);
writeFileSync(`${bin}/${CANARY}`, `#!/bin/sh\necho ran > '${canary}'\n`);
chmodSync(`${bin}/${CANARY}`, 0o755);
const env = { ...process.env, PATH: `${bin}:${process.env.PATH ?? ''}:/usr/sbin:/sbin` };

/** What a tool says of a file; it must take it. */
function said(command: string, args: string[], input?: string): string {
  const done = spawnSync(command, args, { encoding: 'utf8', env, ...(input === undefined ? {} : { input }) });
  if (done.status !== 0) throw new Error(`${command}: ${done.stdout}${done.stderr}`.slice(0, 2000));
  return done.stdout + done.stderr;
}
const python = (code: string, path: string): unknown =>
  JSON.parse(
    run('/usr/bin/python3', ['-c', `import sys, json\npath = sys.argv[1]\n${code}`, path]),
  ) as unknown;
const mask = (text: string): string => text.replace(/\S+/g, 'w');

/** What the tool of a format tells of the structure of a file. */
const TOOLS: Partial<Record<FileFormat, (f: NamedFile) => unknown>> = {
  dnsmasq: (f) => said('dnsmasq', ['--test', '-C', saved(f)]),
  'dhcpd.conf': (f) => said('dhcpd', ['-t', '-cf', saved(f)]).length > 0,
  json: (f) => python('d=json.load(open(path)); print(json.dumps(type(d).__name__))', saved(f)),
  unit: (f) =>
    python(
      'import configparser\nc=configparser.ConfigParser(strict=False,interpolation=None,delimiters=("=",)); c.read(path); print(json.dumps({s: list(c[s]) for s in c.sections()}))',
      saved(f),
    ),
  keyfile: (f) =>
    python(
      'import configparser\nc=configparser.ConfigParser(strict=True,interpolation=None,delimiters=("=",)); c.read(path); print(json.dumps({s: list(c[s]) for s in c.sections()}))',
      saved(f),
    ),
  yaml: (f) =>
    python(
      'import yaml\ndef s(v):\n  return {k: s(x) for k, x in v.items()} if isinstance(v, dict) else [s(x) for x in v] if isinstance(v, list) else type(v).__name__\nprint(json.dumps(s(yaml.safe_load(open(path, encoding="utf-8", newline="")))))',
      saved(f),
    ),
  interfaces: (f) => mask(said('ifquery', ['-i', saved(f), '--list', '-a'])),
  known_hosts: (f) => said('ssh-keygen', ['-l', '-f', saved(f)]).split('\n').length,
  nftables: (f) => said('nft', ['-c', '-f', saved(f)]),
  'smb.conf': (f) =>
    said('testparm', ['-s', saved(f)])
      .split('\n')
      .filter((l) => /^\[|^\t/.test(l))
      .map((l) => (l.startsWith('[') ? l === '[global]' : l.split('=')[0])),
  nginx: (f) => {
    const block = saved({
      ...f,
      content: String(f.content)
        .replace('listen 80;', 'listen 127.0.0.1:18081;')
        .replace('  listen [::]:80;\n', ''),
    });
    const conf = room.path('nginx.conf');
    writeFileSync(
      conf,
      `pid ${room.path('pid')};\nerror_log stderr;\nevents {}\nhttp { include ${block}; access_log off; }\n`,
    );
    return said('nginx', ['-t', '-c', conf, '-p', room.dir]).includes('syntax is ok');
  },
  xml: (f) =>
    mask(
      said('xmllint', ['--nonet', '--format', saved(f)])
        .replace(/>[^<]+</g, '>t<')
        .replace(/="[^"]*"/g, '=""'),
    ),
  fstab: (f) =>
    said('findmnt', ['--tab-file', saved(f), '--raw', '-n', '-o', 'SOURCE,TARGET,FSTYPE,OPTIONS'])
      .trim()
      .split('\n')
      .map((l) => l.split(' ').length),
  sfdisk: (f) => {
    const drive = room.path('drive');
    writeFileSync(drive, '');
    run('truncate', ['-s', '4T', drive]);
    return said('sfdisk', ['--no-act', '--quiet', drive], String(f.content)).length >= 0;
  },
  grub: (f) => said('grub-script-check', [saved(f)]),
  icalendar: (f) =>
    python(
      'import icalendar\nc=icalendar.Calendar.from_ical(open(path, "rb").read()); print(json.dumps([[s.name, sorted(s.keys())] for s in c.walk()]))',
      saved(f),
    ),
  csv: (f) =>
    python(
      'import csv, re\nr=list(csv.reader(open(path, encoding="utf-8-sig", newline="")))\nbad=[c for l in r for c in l if re.match(r"[=+\\-@\\t\\r]", c) and not re.fullmatch(r"-?[0-9.]+", c)]\nassert not bad, bad\nprint(json.dumps([len(l) for l in r]))',
      saved(f),
    ),
  iso9660: (f) => said('isoinfo', ['-R', '-f', '-i', saved(f)]),
  checksums: (f) => {
    const done = spawnSync('sha256sum', ['-c', '--ignore-missing', saved(f)], {
      encoding: 'utf8',
      env,
      cwd: room.dir,
    });
    return /improperly formatted/.test(done.stderr);
  },
};

/** What is told of files of a format, in an order of its own: files are named by ids, which are hostile too. */
const told = (format: FileFormat, all: readonly NamedFile[], tool: (f: NamedFile) => unknown): string[] =>
  of(format, all)
    .map((f) => {
      try {
        return JSON.stringify(tool(f));
      } catch (error) {
        throw new Error(`${f.writer} ${f.box}: ${String(error)}\n${String(f.content).slice(0, 1500)}`, {
          cause: error,
        });
      }
    })
    .sort();

it.each(Object.entries(TOOLS) as [FileFormat, (f: NamedFile) => unknown][])(
  '%s: its own tool takes every file, and sees in it what it sees in harmless ones',
  (format, tool) => {
    expect(of(format, files.hostile).length).toBeGreaterThan(0);
    expect(told(format, files.hostile, tool)).toEqual(told(format, files.harmless, tool));
    expect(existsSync(canary)).toBe(false);
  },
);

/** Commands that a script may call, played: each notes its name and its arguments, and says what lets the script go on. */
function stubs(names: ReadonlySet<string>): string {
  const dir = room.path(`stubs${(n += 1)}`);
  mkdirSync(dir);
  const answers: Record<string, string> = {
    awk: 'echo /dev/zb-drive',
    grep: 'echo 1',
    ls: 'echo "- 1 0 0 7 x"',
    mktemp: 'echo /nowhere/at',
    lsblk: 'echo /dev/zb-drive1',
  };
  for (const name of names) {
    writeFileSync(
      `${dir}/${name}`,
      // In one write: the two ends of a pipe note theirs at once.
      `#!/bin/sh\nline='${name}'\nfor a in "$@"; do case $a in -*) line="$line option" ;; *) line="$line word" ;; esac; done\nprintf '%s\\n' "$line" >> "$LOG"\n${answers[name] ?? ':'}\n`,
    );
    chmodSync(`${dir}/${name}`, 0o755);
  }
  return dir;
}
const BUILTIN = new Set(
  'set test echo printf read exit return cd trap shift : true false [ export eval exec umask wait kill command case esac if then else elif fi for do done while until in { } ! sh'.split(
    ' ',
  ),
);
/** Names that stand where a script calls a command. */
function called(text: string): string[] {
  const { tokens } = shellTokens(text);
  return tokens.flatMap((t, i) => {
    const before = tokens[i - 1];
    const first = typeof before === 'string' || before === undefined || BUILTIN.has(before.text);
    return typeof t !== 'string' && first && /^[a-z][\w.-]*$/.test(t.text) && t.bare === t.text
      ? [t.text]
      : [];
  });
}
const scripts = (all: readonly NamedFile[]): NamedFile[] => of('shell', all);
const names = new Set(
  [...scripts(files.harmless), ...scripts(plain)]
    .flatMap((f) => called(String(f.content)))
    .filter((c) => !BUILTIN.has(c)),
).add('sh');

/** What a script called, each kind of call once. */
function calls(f: NamedFile, dir: string, shell: string[]): string[] {
  const log = room.path('log');
  rmSync(log, { force: true });
  writeFileSync(log, '');
  const path = saved(f);
  const done = spawnSync(shell[0] ?? '', [...shell.slice(1), path, '/nowhere/from', '/nowhere/to'], {
    encoding: 'utf8',
    cwd: room.dir,
    input: 'yes\n'.repeat(50),
    timeout: 30_000,
    env: { PATH: dir, LOG: log, KEEP: room.path('keep'), LIVE: room.path('live'), WAIT: '0' },
  });
  expect(`${f.writer}: ${done.stderr}`).not.toMatch(/not found|unexpected|bad substitution|Syntax/i);
  return [...new Set(readFileSync(log, 'utf8').split('\n'))].sort();
}

it.each([
  ['dash', ['/bin/dash']],
  ['busybox', ['/bin/busybox', 'sh']],
] as const)(
  'scripts: %s takes every one, and calls what it calls without, with as many words',
  (_, shell) => {
    const dir = stubs(names);
    mkdirSync(room.path('keep'), { recursive: true });
    for (const f of scripts(files.hostile)) said(shell[0], [...shell.slice(1), '-n', saved(f)]);
    const by = (all: readonly NamedFile[]): Map<string, string[]> => {
      const out = new Map<string, string[]>();
      for (const f of scripts(all))
        out.set(f.writer, [...(out.get(f.writer) ?? []), calls(f, dir, [...shell]).join('\n')].sort());
      return out;
    };
    const [hostile, harmless] = [by(files.hostile), by(files.harmless)];
    expect(hostile.size).toBeGreaterThan(8);
    for (const [writer, list] of hostile)
      expect({ writer, list }).toEqual({ writer, list: harmless.get(writer) });
    expect(existsSync(canary)).toBe(false);
    // The stubs are no empty exercise: drives were found, and what follows was called.
    expect([...by(plain).values()].flat().join('\n')).toMatch(/wipefs|mkfs|mkdir/);
  },
);

it('pages: a browser that opens them fetches nothing, runs nothing of theirs, and shows the same elements', async () => {
  const browser = await chromium.launch(chromiumOptions);
  try {
    const page = await browser.newPage();
    const asked: string[] = [];
    const faults: string[] = [];
    let ran = 0;
    await page.exposeFunction(CANARY, () => (ran += 1));
    page.on('request', (r) => asked.push(r.url()));
    page.on('pageerror', (e) => faults.push(e.message));
    page.on('dialog', (d) => void d.dismiss());
    const seen = async (f: NamedFile): Promise<number> => {
      const path = `${saved(f)}.html`;
      writeFileSync(path, f.content);
      await page.goto(`file://${path}`);
      return page.evaluate(() => document.querySelectorAll('*').length);
    };
    const counts = async (all: readonly NamedFile[]): Promise<number[]> => {
      const out: number[] = [];
      for (const f of of('html', all)) out.push(await seen(f));
      return out.sort((a, b) => a - b);
    };
    expect(await counts(files.hostile)).toEqual(await counts(files.harmless));
    expect(asked.filter((url) => !url.startsWith('file://'))).toEqual([]);
    expect(new Set(asked).size).toBe(asked.length);
    expect({ ran, faults }).toEqual({ ran: 0, faults: [] });
  } finally {
    await browser.close();
  }
});
