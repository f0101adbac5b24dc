/**
 * Content against real tools: names on file systems that were made and mounted, clashes where case does not count, clusters
 * by mtools, doubles by sha256sum and uniq, lists by sha256sum -c, renames done by a shell and undone to the byte.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import fc from 'fast-check';
import { lookThrough, usuallyTaken } from '@zb/core/content/findings';
import { planCopy, undone } from '@zb/core/content/plan';
import { takes } from '@zb/core/content/takes';
import { caseKey, fatRounding, formKey, mended, refusal } from '@zb/core/content/target';
import { usualRules } from '@zb/core/content/usual';
import { movingSchema } from '@zb/core/model/moving';
import { moveCommand } from '@zb/core/storage/moveCommand';
import { readManifest, writeMoves, writePlan } from '@zb/core/content/written';
import { carryingFolder } from '@zb/core/demo/carrying';
import type { ContentEntry, ContentTarget } from '@zb/core/model/contentRules';
import { seedOfRun } from './damage';
import { blank, run, scratch } from './files';

jest.setTimeout(240_000);
const room = scratch();
afterAll(() => room.clear());
const ALL = process.env.ZB_CONTENT === 'all';

/** A file system of a kind on a file, mounted while it is used. Answers undefined where this kernel does not mount it. */
function on<T>(make: string[], options: string, use: (at: string) => T, megabytes = 64): T | undefined {
  const image = blank(room.path('fs.img'), megabytes * 1024 ** 2);
  run(make[0] ?? '', [...make.slice(1), image]);
  const at = room.path('mnt');
  mkdirSync(at, { recursive: true });
  if (spawnSync('mount', ['-o', options, image, at]).status !== 0) return undefined;
  try {
    return use(at);
  } finally {
    run('umount', [at]);
  }
}
/** NTFS by its driver for programs, with the names its own systems take. */
function onNtfs<T>(use: (at: string) => T): T {
  const image = blank(room.path('ntfs.img'), 64 * 1024 ** 2);
  run('mkfs.ntfs', ['-q', '-F', image]);
  const at = room.path('mnt');
  mkdirSync(at, { recursive: true });
  run('ntfs-3g', ['-o', 'windows_names', image, at]);
  try {
    return use(at);
  } finally {
    run('umount', [at]);
  }
}

const made = (at: string, name: string): boolean => {
  try {
    writeFileSync(join(at, name), 'x');
  } catch {
    return false;
  }
  // A driver may take a name and keep another: what counts is that it is there as it was written.
  const there = run('ls', ['-1', '-A', '-N', at]).split('\n').includes(name);
  try {
    rmSync(join(at, name));
  } catch {
    // It was kept under another name.
  }
  return there;
};

const NAMES = [
  'plain.txt',
  'a b',
  '.hidden',
  'UPPER',
  'ümläut',
  '日本語',
  'Ω≈ç',
  'x'.repeat(254),
  'x'.repeat(255),
  'x'.repeat(256),
  'ü'.repeat(127),
  'ü'.repeat(128),
  'what?',
  'a*b',
  'a:b',
  'a|b',
  'a"b',
  'a<b',
  'a>b',
  'a\\b',
  'tab\there',
  'dot.',
  'two..',
  'blank ',
  'dot. ',
  'a.b.c',
  '-dash',
  "quote's",
  'a;b',
  'a&b',
  '(x)',
  '[x]',
  '{x}',
  '~x',
  '%41',
  '#1',
  '$x',
  '@x',
  '!',
  '`',
  '^',
  '=',
  '+',
  ',',
  'aux',
  'AUX',
  'aux.txt',
  'con',
  'con.tar.gz',
  'prn',
  'nul',
  'nul.x',
  'com1',
  'com1.txt',
  'lpt9',
  'com10',
  'lpt',
  'auxx',
  'console',
  'xaux',
];

describe('names that are taken and names that are refused', () => {
  const against = (target: ContentTarget, at: string, but: readonly string[] = []): void => {
    const wrong = NAMES.filter((n) => !but.includes(n)).flatMap((name) => {
      const taken = made(at, name);
      const told = refusal(name, target) === undefined;
      return taken === told
        ? []
        : [`${JSON.stringify(name.slice(0, 30))} (${name.length}): ${taken ? 'taken' : 'refused'}`];
    });
    expect(wrong).toEqual([]);
    // What is mended is taken by it, whatever it was.
    for (const name of NAMES) expect([name, made(at, mended(name, target))]).toEqual([name, true]);
  };
  it('ext4', () => {
    expect(on(['mkfs.ext4', '-q', '-F'], 'loop', (at) => (against('ext4', at), true))).toBe(true);
  });
  it('NTFS, by the names its own systems take', () => {
    // The driver counts 255 letters and refuses names of devices with “windows_names” (ntfs-3g(8)).
    onNtfs((at) => against('ntfs', at, ['x'.repeat(256)]));
  });
  it('FAT: what the kernel refuses is told, and what is mended is taken', () => {
    // The kernel lets names of devices pass that other systems refuse; those alone are told more strictly.
    const strict = /^(aux|con|prn|nul|com\d|lpt\d)(\.|$)/i;
    const done = on(['mkfs.vfat', '-F', '32'], 'loop,utf8', (at) => {
      const wrong = NAMES.filter((n) => !strict.test(n)).flatMap((name) => {
        const taken = made(at, name);
        const told = refusal(name, 'fat') === undefined;
        return taken === told
          ? []
          : [`${JSON.stringify(name.slice(0, 30))} (${name.length}): ${taken ? 'taken' : 'refused'}`];
      });
      // 255 letters are its format’s end; the kernel ends one before (fs/fat/namei_vfat.c).
      expect(wrong.filter((w) => !w.includes('(255)'))).toEqual([]);
      return NAMES.filter((n) => n.length !== 255 && mended(n, 'fat').length !== 255).every((n) =>
        made(at, mended(n, 'fat')),
      );
    });
    expect(done ?? byMtools()).toBe(true);
  });
  /** Without a kernel that mounts it, mtools writes the names that are taken. */
  function byMtools(): boolean {
    const image = blank(room.path('fat.img'), 64 * 1024 ** 2);
    run('mkfs.vfat', ['-F', '32', image]);
    const source = room.path('one');
    writeFileSync(source, 'x');
    return NAMES.filter(
      (n) => refusal(n, 'fat') === undefined && /^[\x20-\x7e]+$/.test(n) && n.length < 200,
    ).every((n) => {
      run('mcopy', ['-D', 's', '-i', image, source, `::/${n}`]);
      return run('mdir', ['-b', '-i', image, '::/'])
        .split('\n')
        .some((l) => l.replace('::/', '').toLowerCase() === n.toLowerCase());
    });
  }
});

it('two names that differ by case or form are one file where case does not count, and told so', () => {
  const pairs: [string, string][] = [
    ['Name.txt', 'NAME.TXT'],
    ['Ünder', 'ünder'],
    ['Ωmega', 'ωmega'],
    ['straße', 'STRASSE'],
    ['straße', 'STRAßE'],
    ['a', 'b'],
    ['ÿ', 'Ÿ'],
  ];
  onNtfsIgnoringCase((at) => {
    for (const [a, b] of pairs) {
      writeFileSync(join(at, a), 'one');
      const same = existsSync(join(at, b));
      rmSync(join(at, a));
      expect([a, b, caseKey(formKey(a)) === caseKey(formKey(b))]).toEqual([a, b, same]);
    }
  });
});
/** Its driver can look names up without case (ntfs-3g(8), ignore_case). */
function onNtfsIgnoringCase(use: (at: string) => void): void {
  const image = blank(room.path('ntfs.img'), 64 * 1024 ** 2);
  run('mkfs.ntfs', ['-q', '-F', image]);
  const at = room.path('mnt');
  mkdirSync(at, { recursive: true });
  if (spawnSync('lowntfs-3g', ['-o', 'ignore_case', image, at]).status !== 0) throw new Error('lowntfs-3g');
  try {
    use(at);
  } finally {
    run('umount', [at]);
  }
}

/** A tree on disk. */
function plant(root: string, files: readonly { path: string; text: string }[]): void {
  rmSync(root, { recursive: true, force: true });
  for (const f of files) {
    mkdirSync(dirname(join(root, f.path)), { recursive: true });
    writeFileSync(join(root, f.path), f.text);
  }
}
const entriesOf = (files: readonly { path: string; text: string }[]): ContentEntry[] =>
  files.map((f) => ({
    path: f.path,
    bytes: Buffer.byteLength(f.text),
    modified: 0,
    odd: null,
    sha256: null,
  }));
/** Everything that can be seen of a tree: names and sums. */
const seen = (root: string): string =>
  run('sh', ['-c', 'cd "$1" && find . -type f -print0 | sort -z | xargs -0r sha256sum', 'sh', root]);

it('clusters that files take on FAT are what mtools counts free before and after', () => {
  const word = fc.stringMatching(/^[a-z]{1,14}$/);
  fc.assert(
    fc.property(
      fc.uniqueArray(
        fc.record({
          folder: fc.constantFrom('', 'a', 'a/b', 'c'),
          name: word,
          bytes: fc.integer({ min: 0, max: 40_000 }),
        }),
        { minLength: 1, maxLength: 40, selector: (f) => `${f.folder}/${f.name}` },
      ),
      fc.constantFrom(1, 4, 8, 16),
      (files, sectors) => {
        const plan = files
          .filter((f) => !['a', 'b', 'c'].includes(f.name))
          .map((f) => ({
            path: f.folder === '' ? `r/${f.name}` : `r/${f.folder}/${f.name}`,
            text: 'x'.repeat(f.bytes),
          }));
        fc.pre(plan.length > 0);
        const root = room.path('planted');
        plant(root, plan);
        const image = blank(room.path('clusters.img'), 64 * 1024 ** 2);
        run('mkfs.vfat', ['-F', sectors > 1 ? '16' : '32', '-s', String(sectors), image]);
        const free = (): number =>
          Number(
            run('mdir', ['-i', image, '::/'])
              .match(/([\d ]+) bytes free/)?.[1]
              ?.replaceAll(' ', ''),
          );
        const before = free();
        run('mcopy', ['-s', '-i', image, join(root, 'r'), '::/']);
        const told = takes(
          plan.map((f) => ({ path: f.path, bytes: f.text.length })),
          fatRounding(sectors * 512),
        ).rounded;
        expect(before - free()).toBe(told);
      },
    ),
    { numRuns: ALL ? 150 : 12, seed: seedOfRun() },
  );
});

it('what is there twice is what sha256sum and uniq find', () => {
  const root = room.path('twice');
  plant(root, carryingFolder());
  const out = run('node', ['packages/cli/dist/zb.mjs', 'content', root, '--hash']);
  const found = (JSON.parse(out) as { findings: { fault: { code: string; files: string[] } }[] }).findings
    .filter((f) => f.fault.code === 'same bytes')
    .flatMap((f) => f.fault.files)
    .sort();
  const truth = run('sh', [
    '-c',
    'cd "$1" && find . -type f -size +0 -print0 | xargs -0 sha256sum | sort | uniq -w 64 -D',
    'sh',
    root,
  ])
    .split('\n')
    .filter(Boolean)
    .map((l) => l.replace(/^\\?[\da-f]{64} {2}\.\//, ''))
    .sort();
  expect(found).toEqual(truth);
});

it('a list of sums is taken by sha256sum -c, and its own lists are read, odd names included', () => {
  const root = room.path('listed');
  const odd = ['line\nend', 'back\\slash', ' blank ', '*star', 'é', 'cr\rhere', "q'uote"].map((n) => ({
    path: `odd/${n}`,
    text: n,
  }));
  plant(root, [...carryingFolder().slice(0, 40), ...odd]);
  const list = run('node', [
    'packages/cli/dist/zb.mjs',
    'content',
    'plan',
    root,
    '--as',
    'manifest',
    '--target',
    'ext4',
    '--take',
    'none',
  ]);
  const at = room.path('SHA256SUMS');
  writeFileSync(at, list);
  expect(
    run('sh', ['-c', 'cd "$1" && sha256sum -c --quiet --strict "$2" && echo whole', 'sh', root, at]).trim(),
  ).toBe('whole');
  const theirs = run('sh', ['-c', 'cd "$1" && find . -type f -print0 | xargs -0 sha256sum', 'sh', root]);
  const read = readManifest(theirs);
  expect(read.unread).toBe(0);
  expect(new Map(read.lines.map((l) => [l.path.replace('./', ''), l.sha256]))).toEqual(
    new Map(readManifest(list).lines.map((l) => [l.path, l.sha256])),
  );
  writeFileSync(join(root, 'odd/é'), 'changed');
  const verified = spawnSync('node', ['packages/cli/dist/zb.mjs', 'content', 'verify', at, root], {
    encoding: 'utf8',
  });
  expect([verified.status, (JSON.parse(verified.stdout) as { differs: string[] }).differs]).toEqual([
    1,
    ['odd/é'],
  ]);
});

it('renames done by the script and undone by the other leave the tree as it was, to the byte', () => {
  const segment = fc.constantFrom(
    'a',
    'A',
    'b?',
    'é',
    'e\u0301',
    'aux',
    'x.mp3',
    'X.mp3',
    '01 one.mp3',
    "it's",
    'n.',
    '-n',
    '$HOME',
    'two  blanks',
    'z*',
  );
  const tree = fc
    .uniqueArray(
      fc.array(segment, { minLength: 1, maxLength: 3 }).map((p) => p.join('/')),
      { minLength: 1, maxLength: 12 },
    )
    .map((paths) =>
      paths
        .filter((p) => !paths.some((q) => q !== p && q.startsWith(`${p}/`)))
        .map((path, i) => ({ path, text: `file ${i}` })),
    );
  fc.assert(
    fc.property(tree, fc.constantFrom<ContentTarget>('fat', 'smb', 'ntfs'), (files, target) => {
      const root = room.path('renamed');
      plant(root, files);
      const before = seen(root);
      const entries = entriesOf(files);
      const found = lookThrough({ entries, rules: usualRules('music'), target });
      const plan = planCopy(entries, found, new Set(usuallyTaken), target);
      const script = (moves: { from: string; to: string }[]): void => {
        run('sh', ['-c', 'cd "$1" && sh -s', 'sh', root], writeMoves(moves, 'test'));
      };
      script(plan.moves);
      const planned = plan.files.flatMap((f) => [f.to ?? f.from]).sort();
      const now = run('sh', ['-c', 'cd "$1" && find . -type f -printf "%P\\0"', 'sh', root])
        .split('\0')
        .filter(Boolean)
        .sort();
      expect(now).toEqual(planned);
      script(undone(plan.moves));
      expect(seen(root)).toBe(before);
      expect(readFileSync(join(root, files[0]?.path ?? ''), 'utf8')).toBe('file 0');
    }),
    { numRuns: ALL ? 400 : 40, seed: seedOfRun() },
  );
});

it('a database and a folder moved by what we tell people to type arrive whole, and are counted the same', () => {
  const there = room.path('there');
  const here = room.path('here');
  for (const d of [there, here]) mkdirSync(d, { recursive: true });
  const table = movingSchema.parse({
    id: 'm',
    what: 'records.db',
    kind: 'SQLite',
    counts: [{ of: 'books' }],
  });
  const files = movingSchema.parse({ id: 'f', what: 'papers', kind: 'files' });
  run('sqlite3', [
    `${there}/records.db`,
    'create table books(n); with recursive c(n) as (select 1 union all select n+1 from c where n<500) insert into books select n from c;',
  ]);
  plant(`${there}/papers`, carryingFolder().slice(0, 30));
  for (const m of [table, files]) {
    const typed = (dir: string, step: 'back up' | 'copy' | 'restore' | 'count'): string =>
      run('sh', ['-c', `cd "$1" && ${moveCommand(m, step) ?? 'false'}`, 'sh', dir]);
    const made = typed(there, 'back up').split(' ')[0];
    run('sh', ['-c', 'cp "$1"/*.backup "$2"', 'sh', there, here]);
    expect(typed(here, 'copy').split(' ')[0]).toBe(made);
    typed(here, 'restore');
    expect(typed(here, 'count').trim()).toBe(typed(there, 'count').trim());
    run('sh', ['-c', 'rm "$1"/*.backup "$2"/*.backup', 'sh', there, here]);
  }
  expect(seen(`${here}/papers`)).toBe(seen(`${there}/papers`));
});

it('the copy as it is written: what is the same is one file in two places, archives are unpacked, nothing is run over', () => {
  const from = room.path('from');
  const to = room.path('to');
  const same = 'the same letter\n'.repeat(9);
  const files = [
    { path: "a/first's.txt", text: same },
    { path: 'b/second one.txt', text: same },
    { path: 'c/other.txt', text: 'other\n' },
    { path: 'in/one.txt', text: 'packed\n' },
  ];
  plant(from, files);
  run('sh', ['-c', 'cd "$1" && zip -q box.zip in/one.txt && rm -r in', 'sh', from]);
  mkdirSync(to, { recursive: true });
  const entries: ContentEntry[] = [...files.slice(0, 3), { path: 'box.zip', text: '' }].map((f) => ({
    path: f.path,
    bytes: Math.max(1, f.text.length),
    modified: 0,
    odd: null,
    sha256: f.text === same ? 'a'.repeat(64) : null,
  }));
  const found = lookThrough({ entries, rules: usualRules('file store'), target: 'ext4' });
  const plan = planCopy(entries, found, new Set(['same bytes', 'packed']), 'ext4');
  const script = writePlan('copy', plan);
  run('sh', ['-s', from, to], script);
  writeFileSync(join(to, 'c/other.txt'), 'changed there');
  run('sh', ['-s', from, to], script);
  expect(readFileSync(join(to, 'c/other.txt'), 'utf8')).toBe('changed there');
  expect(readFileSync(join(to, 'box/in/one.txt'), 'utf8')).toBe('packed\n');
  const inode = (path: string): string => run('stat', ['-c', '%i %h', join(to, path)]).trim();
  expect(inode('b/second one.txt')).toBe(inode("a/first's.txt"));
  expect(inode('b/second one.txt')).toMatch(/ 2$/);
  expect(existsSync(join(to, 'box.zip'))).toBe(false);
});
