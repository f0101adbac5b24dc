/**
 * Configurations of GRUB followed to the kernel that starts when nobody chooses, on file systems in memory. What a script
 * means is the GRUB manual’s (“Shell-like scripting”, “Configuration”, “Commands”); the same is held against GRUB itself in
 * tests/oracle/chain.oracle.ts.
 */
import { bytesSource } from '../src/formats/source';
import type { GrubImage } from '../src/formats/grub/modules';
import { followGrub } from '../src/starting/chain/grub';
import { GrubDevices } from '../src/starting/chain/grubEnvironment';
import type { ChainVolume } from '../src/starting/chain/volumes';
import { brief, DISK, KERNEL, partOf, type Files } from './memoryVolume';

const NOTHING = bytesSource(new Uint8Array(0));
const MODULES = new Set(['normal', 'linux', 'search', 'chain', 'multiboot', 'loopback']);

interface Given {
  image?: Partial<GrubImage>;
  others?: readonly ChainVolume[];
  own?: Partial<ChainVolume>;
}
/** Follows GRUB from a part with these files; its configuration is /boot/grub/grub.cfg. */
async function follow(config: string, files: Files = {}, { image, others = [], own }: Given = {}) {
  const volume = partOf(
    1,
    { '/kernel': KERNEL, '/disk': DISK, '/boot/grub/grub.cfg': config, ...files },
    own,
  );
  const devices = new GrubDevices([volume, ...others], 'disk');
  const built = { prefix: '/boot/grub', config: undefined, memdisk: undefined, modules: MODULES, ...image };
  const machine = { source: NOTHING, platform: 'efi', cpu: 'x86_64', image: built, devices } as const;
  const { rungs, program } = await followGrub({ machine, volume, folder: '/EFI/BOOT' });
  return { rungs: brief(rungs), program: program?.path };
}
const kernelOf = async (...given: Parameters<typeof follow>): Promise<string | undefined> =>
  (await follow(...given)).rungs.find((r) => r.startsWith('kernel'));
const WHOLE = 'kernel whole: there';
const entry = (name: string, kernel: string, id = ''): string =>
  `menuentry '${name}' ${id && `--id ${id}`} { linux ${kernel} }\n`;

it('goes from its configuration to kernel and initial disk', async () => {
  expect(await follow('menuentry one { linux /kernel quiet\n initrd /disk }')).toEqual({
    rungs: [
      'configuration whole: there /boot/grub/grub.cfg',
      'kernel whole: there /kernel',
      'initial disk whole: there /disk',
    ],
    program: undefined,
  });
});

describe('of a menu it takes', () => {
  const menu = entry('a', '/a', 'first') + entry('b', '/b', 'second') + entry('c', '/c');
  const all = { '/a': KERNEL, '/b': KERNEL, '/c': KERNEL };
  it.each([
    ['the first where nothing is said', '', '/a'],
    ['one by its number', 'set default=1', '/b'],
    ['one by its id', 'set default=second', '/b'],
    ['one by its title', 'default=c', '/c'],
    ['the first where the one that is named is not there', 'set default=ghost', '/a'],
    ['what the last word on it says', 'set default=1\nset default=2', '/c'],
    ['what a variable holds', 'set d=1\nset default="${d}"', '/b'],
  ])('%s', async (_, set, path) => {
    expect(await kernelOf(`${set}\n${menu}`, all)).toBe(`${WHOLE} ${path}`);
  });
  it('an entry inside a menu within it, by a path of names', async () => {
    const config = `set default='more>inner'\n${entry('a', '/a')}submenu more { ${entry('x', '/b')} ${entry('inner', '/c')} }`;
    expect(await kernelOf(config, all)).toBe(`${WHOLE} /c`);
  });
  it('the one kept for when the first breaks, and tells of the first where that breaks too', async () => {
    const config = `set default=0\nset fallback=1\n${entry('a', '/gone')}${entry('b', '/b')}`;
    expect(await kernelOf(config, all)).toBe(`${WHOLE} /b`);
    expect(await kernelOf(config.replace('/b', '/gone too'), all)).toBe('kernel missing: not there /gone');
  });
});

describe('a script', () => {
  it.each([
    ['if [ -f /kernel ]; then set k=/kernel; else set k=/ghost; fi', '/kernel'],
    ['if [ -f /ghost ]; then set k=/ghost; elif [ -d /boot ]; then set k=/kernel; fi', '/kernel'],
    ['if ! test -e /ghost; then set k=/kernel; fi', '/kernel'],
    ['for f in /ghost /kernel; do if [ -s "$f" ]; then set k="$f"; fi; done', '/kernel'],
    ['function pick {\n set k=/kernel\n}\npick', '/kernel'],
    ['set n=0\nwhile [ "$n" != 00 ]; do set n="${n}0"; set k=/kernel; done', '/kernel'],
    ['until [ "$k" = /kernel ]; do set k=/kernel; done', '/kernel'],
    ['set k=/kernel\nunset k\nset k="${k}/kernel"', '/kernel'],
    ['source /more.cfg', '/kernel'],
    ['. /more.cfg', '/kernel'],
    ['if [ "$grub_platform" = efi -a "$grub_cpu" = x86_64 ]; then set k=/kernel; fi', '/kernel'],
  ])('does %s', async (script, path) => {
    const config = `${script}\nmenuentry x { linux $k }`;
    expect(await kernelOf(config, { '/more.cfg': 'set k=/kernel' })).toBe(`${WHOLE} ${path}`);
  });
  it('goes both ways where the machine decides, so that no entry is lost', async () => {
    const config = `if cpuid -l; then set k=/kernel; else set k=/kernel; fi\n${entry('x', '$k')}`;
    expect(await kernelOf(config)).toBe(`${WHOLE} /kernel`);
  });
  it('that never ends, or calls itself, is given up and said to be too deep', async () => {
    for (const script of [
      'function f { f\n }\nf',
      'source /boot/grub/grub.cfg',
      'configfile $prefix/grub.cfg',
    ])
      expect((await follow(script)).rungs).toEqual([expect.stringMatching(/^configuration \w+: too deep$/)]);
  });
  it('whose grammar is broken is said so', async () => {
    expect((await follow('if true; then')).rungs).toEqual([
      'configuration missing: grammar broken /boot/grub/grub.cfg',
    ]);
  });
  it('that names nothing to start ends at the prompt', async () => {
    expect((await follow('set timeout=5')).rungs).toEqual([
      'configuration whole: there /boot/grub/grub.cfg',
      'kernel missing: names nothing /boot/grub/grub.cfg',
    ]);
  });
  it('takes variables from its environment block, all or those that are named', async () => {
    const files = {
      '/boot/grub/grubenv': '# GRUB Environment Block\nsaved_entry=b\nother=a\n####',
      '/b': KERNEL,
    };
    const menu = entry('a', '/ghost') + entry('b', '/b');
    expect(await kernelOf(`load_env\nset default="\${saved_entry}"\n${menu}`, files)).toBe(`${WHOLE} /b`);
    expect(await kernelOf(`load_env other\nset default="\${saved_entry}"\n${menu}`, files)).toBe(
      'kernel missing: not there /ghost',
    );
  });
});

describe('devices', () => {
  const root = partOf(2, { '/vmlinuz': KERNEL, '/etc/mark': 'x' }, { uuid: 'AB12-34CD', label: 'ROOT' });
  const others = [root];
  it.each([
    ['search --fs-uuid --set=root ab12-34cd'],
    ['search -u AB12-34CD -s root'],
    // Without = it takes no variable: what follows is what is looked for (GRUB manual, “search”).
    ['search --label --set ROOT'],
    ['search --file --set=root /etc/mark'],
    ['search.fs_uuid AB12-34CD root'],
    ['search.fs_label ROOT root'],
    ['search.file /etc/mark'],
    ['set root=(hd0,gpt2)'],
    ['set root=hd0,gpt2'],
    ["set root='hd0,2'"],
    ['probe --set=u -u (hd0,gpt2); if [ "$u" = AB12-34CD ]; then set root=hd0,gpt2; fi'],
  ])('%s', async (command) => {
    expect(await kernelOf(`${command}\n${entry('x', '/vmlinuz')}`, {}, { others })).toBe(`${WHOLE} /vmlinuz`);
  });
  it('a path names its own device', async () => {
    expect(await kernelOf(entry('x', '(hd0,gpt2)/vmlinuz'), {}, { others })).toMatch(/^kernel whole: there/);
    expect(await kernelOf(entry('x', '(hd1,gpt1)/vmlinuz'), {}, { others })).toMatch(/another drive/);
    expect(await kernelOf(entry('x', '(hd0,gpt7)/vmlinuz'), {}, { others })).toMatch(/device not there/);
  });
  it('a search that finds nothing stays where it was', async () => {
    expect(await kernelOf(`search --label --set=root GHOST\n${entry('x', '/kernel')}`, {}, { others })).toBe(
      `${WHOLE} /kernel`,
    );
  });
  it('what a volume that cannot be opened may hold is left open, never called missing', async () => {
    const closed = partOf(3, null, { filesystem: 'zfs', label: 'POT' });
    const config = `search --file --set=root /far/kernel\n${entry('x', '/far/kernel')}`;
    expect(await kernelOf(config, {}, { others: [closed] })).toMatch(
      /^kernel unreadable: file system not opened/,
    );
    // A swap area holds none.
    const swap = partOf(3, null, { filesystem: 'swap' });
    expect(await kernelOf(config, {}, { others: [swap] })).toBe('kernel missing: not there /far/kernel');
  });
});

describe('modules', () => {
  const image = { modules: new Set(['normal']) };
  it('are built in, or lie where they are looked for, or the command is none', async () => {
    expect(await kernelOf(entry('x', '/kernel'), {}, { image })).toBe(
      'kernel missing: module missing /boot/grub/x86_64-efi/linux.mod',
    );
    const files = { '/boot/grub/x86_64-efi/linux.mod': 'x' };
    expect(await kernelOf(entry('x', '/kernel'), files, { image })).toBe(`${WHOLE} /kernel`);
  });
  it('without the menu itself nothing goes on', async () => {
    expect((await follow(entry('x', '/kernel'), {}, { image: { modules: new Set() } })).rungs).toEqual([
      'configuration missing: module missing /boot/grub/x86_64-efi/normal.mod',
    ]);
  });
});

describe('what is started', () => {
  it('may be another program, which is followed by itself', async () => {
    const { rungs, program } = await follow('menuentry x { chainloader /EFI/other.efi }', {
      '/EFI/other.efi': 'MZ',
    });
    expect(rungs).toEqual(['configuration whole: there /boot/grub/grub.cfg']);
    expect(program).toBe('/EFI/other.efi');
  });
  it('may be sectors, which are not followed', async () => {
    expect(await follow('menuentry x { chainloader +1 }')).toEqual({
      rungs: [
        'configuration whole: there /boot/grub/grub.cfg',
        'loader unreadable: command not followed chainloader +1',
      ],
      program: undefined,
    });
  });
  it('without a menu, where it says so itself', async () => {
    expect(await kernelOf('linux /kernel\nboot')).toBe(`${WHOLE} /kernel`);
    // Loaded and not started, it waits at its prompt.
    expect(await kernelOf('linux /kernel')).toMatch(/^kernel missing: names nothing/);
  });
  it.each([
    ['a kernel that is wiped', { '/k': new Uint8Array(4096) }, 'kernel missing: empty /k'],
    ['a text', { '/k': 'no kernel '.repeat(99) }, 'kernel missing: no kernel /k'],
    ['a folder', { '/k/f': '' }, 'kernel missing: not there /k'],
    ['nothing', {}, 'kernel missing: not there /k'],
  ])('is none where it is %s', async (_, files, said) => {
    expect(await kernelOf(entry('x', '/k'), files)).toBe(said);
  });
  it('wants a whole initial disk', async () => {
    const of = async (files: Files): Promise<string | undefined> =>
      (await follow('menuentry x { linux /kernel\n initrd /d }', files)).rungs.at(-1);
    expect(await of({ '/d': DISK })).toBe('initial disk whole: there /d');
    expect(await of({ '/d': new Uint8Array(600) })).toBe('initial disk missing: empty /d');
    expect(await of({ '/d': 'x'.repeat(600) })).toBe('initial disk missing: no initial disk /d');
    expect(await of({})).toBe('initial disk missing: not there /d');
  });
  it('may be named by entries of the Boot Loader Specification', async () => {
    const files = {
      '/loader/entries/one.conf': 'title One\nversion 1\nlinux /kernel\ninitrd /disk\n',
      '/loader/entries/two.conf': 'title Two\nversion 2\nlinux /new\n',
      '/new': KERNEL,
    };
    // The newest comes first (UAPI.1, “Sorting”).
    expect(await kernelOf('blscfg', files)).toMatch(/^kernel whole: there .*\/new$/);
  });
  it('is told from a script that is built in, before any file is', async () => {
    const image = { config: 'linux /kernel\nboot' };
    expect((await follow('', {}, { image })).rungs).toEqual([
      'configuration whole: built in',
      'kernel whole: there /kernel',
    ]);
  });
});
