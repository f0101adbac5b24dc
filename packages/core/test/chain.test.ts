import fc from 'fast-check';
import { openExt } from '../src/formats/ext/read';
import { parseGrubScript, type Statement } from '../src/formats/grub/script';
import { plainText, tokensOf } from '../src/formats/grub/words';
import { initialDiskKind } from '../src/formats/initialDisk';
import { readKernel } from '../src/formats/linuxKernel';
import { readLoaderEntry } from '../src/formats/loaderEntry';
import { unpackLzma } from '../src/formats/lzma';
import { bytesSource } from '../src/formats/source';
import { readSyslinuxConfig } from '../src/formats/syslinuxConfig';
import { openTar } from '../src/formats/tar';
import { plainPath } from '../src/formats/volume';
import { environmentBlock, optionsOf } from '../src/starting/chain/grubEnvironment';
import { grubTest, type Truth } from '../src/starting/chain/grubTest';
import { rung } from '../src/starting/chain/files';
import { rungWhyWords } from '../src/words/chain';

const commands = (script: string): (string | undefined)[][] =>
  (parseGrubScript(script) ?? []).map((s) => (s.is === 'command' ? s.words.map(plainText) : [`<${s.is}>`]));

describe('GRUB’s shell (GRUB manual, “Shell-like scripting”)', () => {
  it('splits words at blanks, keeps quotes together, and ends commands at ; and lines', () => {
    expect(commands(`set a='b c'; echo "d e"f g\\ h # not this\nlast`)).toEqual([
      ['set', 'a=b c'],
      ['echo', 'd ef', 'g h'],
      ['last'],
    ]);
  });

  it('joins lines that end in a backslash', () =>
    expect(commands('linux /kernel \\\n  quiet')).toEqual([['linux', '/kernel', 'quiet']]));

  it('keeps variables apart from text, quoted or not', () => {
    const [token] = tokensOf('a${b}"$c"');
    expect(token && 'word' in token && token.word).toEqual([
      { text: 'a' },
      { variable: 'b', quoted: false },
      { variable: 'c', quoted: true },
    ]);
  });

  it('reads entries with their blocks, also on one line', () => {
    const [entry] = parseGrubScript(`menuentry 'One' --id one { linux /k\n initrd /d }`) ?? [];
    expect(entry?.is === 'command' && entry.body?.length).toBe(2);
  });

  it('reads if, elif, else, while, for and functions', () => {
    const of = (s: string): Statement['is'] | undefined => parseGrubScript(s)?.[0]?.is;
    expect(of('if [ a ]; then b; elif c; then d; else e; fi')).toBe('if');
    expect(of('while true; do a; done')).toBe('while');
    expect(of('for i in a b; do c; done')).toBe('loop');
    expect(of('function f {\n a\n}')).toBe('function');
  });

  it.each(['if a; then b', 'menuentry x {', '}', 'for in a; do b; done', 'fi', 'if a; then b; done'])(
    'runs nothing of a script whose grammar is broken: %s',
    (script) => {
      // A lone keyword is a command of that name; everything else is broken.
      if (script === 'fi') expect(commands(script)).toEqual([['fi']]);
      else expect(parseGrubScript(script)).toBeUndefined();
    },
  );

  it('never fails on any text, however deep', () => {
    const piece = fc.constantFrom(
      'if ',
      'then ',
      'fi\n',
      '{',
      '}',
      '"',
      "'",
      '$',
      '${a',
      '\\',
      '\n',
      ';',
      'x ',
      '#',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 400 }), (pieces) => {
        parseGrubScript(pieces.join(''));
      }),
      { numRuns: 500 },
    );
    expect(parseGrubScript('if a; then '.repeat(5000))).toBeUndefined();
  });
});

describe('tests of GRUB’s shell (GRUB manual, “test”)', () => {
  const there = (path: string): Promise<Truth> =>
    Promise.resolve(path === '/unread' ? undefined : path === '/there');
  it.each([
    ['a = a', true],
    ['a != a', false],
    ['-z', true],
    ['-n x', true],
    ['3 -gt 20', false],
    ['-e /there', true],
    ['! -e /there', false],
    ['-f /gone -o a == a', true],
    ['-f /there -a a == b', false],
    ['( a = b -o c = c ) -a -d /there', true],
    // What cannot be read leaves it open, unless the other side decides.
    ['-e /unread', undefined],
    ['! -e /unread', undefined],
    ['-e /unread -o a = a', true],
    ['-e /unread -a a = b', false],
  ] as const)('[ %s ] is %s', async (words, truth) => {
    expect(await grubTest(words.split(' '), there)).toBe(truth);
  });
});

it('reads an environment block (GRUB manual, “The GRUB environment block”)', () =>
  expect([...environmentBlock('# GRUB Environment Block\nsaved_entry=two\nx=\n####')]).toEqual([
    ['saved_entry', 'two'],
    ['x', ''],
  ]));

it('tells options with and without values from words', () => {
  const { options, rest } = optionsOf(['--set=root', '-f', '--hint', 'hd0', '/file'], ['hint']);
  expect([...options]).toEqual([
    ['set', 'root'],
    ['f', ''],
    ['hint', 'hd0'],
  ]);
  expect(rest).toEqual(['/file']);
});

describe('configurations of the SYSLINUX family (Syslinux documentation, “syslinux.txt”)', () => {
  const config = readSyslinuxConfig(
    'UI menu.c32\nAPPEND initrd=all\nLABEL one\n KERNEL k1\nLABEL two\n menu default\n LINUX k2\n APPEND a initrd=x,y\nLABEL three\n KERNEL k3\n INITRD z\nMENU INCLUDE more.cfg Title\n',
  );
  it('reads its menu, its entries and what they name', () => {
    expect(config.ui).toBe('menu.c32');
    expect(config.includes).toEqual(['more.cfg']);
    expect(config.entries.map((e) => [e.label, e.kernel, e.initrd, e.chosen])).toEqual([
      ['one', 'k1', ['all'], false],
      ['two', 'k2', ['x', 'y'], true],
      ['three', 'k3', ['z'], false],
    ]);
  });
});

it('reads an entry of the Boot Loader Specification (UAPI.1, its own example shortened)', () => {
  const entry = readLoaderEntry(
    'title      Some System 19\nsort-key   some\nversion    3.8.0-2\n# a comment\narchitecture x64\nlinux      /6a98/3.8.0-2/linux\ninitrd     /6a98/3.8.0-2/initrd\ninitrd     /more\n',
  );
  expect(entry).toMatchObject({
    linux: '/6a98/3.8.0-2/linux',
    initrd: ['/6a98/3.8.0-2/initrd', '/more'],
    architecture: 'x64',
    version: '3.8.0-2',
  });
});

it.each([
  ['30 37 30 37 30 31', 'cpio'],
  ['1f 8b 08', 'gzip'],
  ['fd 37 7a 58 5a 00', 'xz'],
  ['28 b5 2f fd', 'zstd'],
  ['02 21 4c 18', 'lz4'],
  ['5d 00 00 80 00', 'lzma'],
  ['00 00 00 00', undefined],
  ['68 65 6c 6c 6f', undefined],
] as const)('first bytes %s of an initial disk: %s', (hex, kind) =>
  expect(initialDiskKind(Uint8Array.from(hex.split(' '), (h) => parseInt(h, 16)))).toBe(kind),
);

it('a path never leads above its root', () => {
  expect(plainPath('/a/./b//../c/')).toBe('/a/c');
  fc.assert(
    fc.property(fc.array(fc.constantFrom('..', '.', 'a', ''), { maxLength: 20 }), (names) => {
      const path = plainPath(names.join('/'));
      return path.startsWith('/') && !path.includes('..');
    }),
  );
});

it('readers of arbitrary bytes answer that there is nothing, and do not fail', async () => {
  await fc.assert(
    fc.asyncProperty(fc.uint8Array({ maxLength: 3000 }), async (bytes) => {
      const source = bytesSource(bytes);
      await openTar(source);
      await readKernel(source);
      unpackLzma(bytes, 500, { lc: 3, lp: 0, pb: 2 });
      expect(await openExt(source)).toBeUndefined();
    }),
    { numRuns: 200 },
  );
});

it('a rung is missing unless its reason says that it is whole or cannot be read', () => {
  const place = { of: 'whole image' } as const;
  expect(rung('kernel', { code: 'there', path: '/k', place }).state).toBe('whole');
  expect(rung('kernel', { code: 'not there', path: '/k', place }).state).toBe('missing');
  expect(rung('kernel', { code: 'file system not opened', filesystem: 'xfs', place }).state).toBe(
    'unreadable',
  );
  expect(rungWhyWords({ code: 'file system not opened', filesystem: 'xfs', place })).toContain('not opened');
});
