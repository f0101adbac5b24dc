/**
 * Loaders of the SYSLINUX family (Syslinux documentation, “syslinux.txt”, “menu.txt”) and of the Boot Loader Specification
 * (UAPI.1; loader.conf(5)) followed to the kernel that starts when nobody chooses, on file systems in memory. The same is
 * held against the loaders themselves in tests/oracle/chain.oracle.ts.
 */
import { bytesSource } from '../src/formats/source';
import { followSpecification } from '../src/starting/chain/specification';
import { followSyslinux, type SyslinuxStart } from '../src/starting/chain/syslinux';
import { brief, DISK, KERNEL, partOf, type Files } from './memoryVolume';

const source = bytesSource(new Uint8Array(0));
const c32 = (...needs: string[]): string => `\u007fELF ${needs.join(' ')} `.padEnd(64);

describe('the SYSLINUX family', () => {
  const follow = async (files: Files, more: Partial<SyslinuxStart> = {}): Promise<string[]> => {
    const all = { '/linux': KERNEL, '/disk': DISK, ...files };
    const start = { source, folder: '/', as: 'syslinux', needsModule: false, ...more } as const;
    return brief(await followSyslinux({ ...start, volume: partOf(1, all) }));
  };
  const LABEL = 'LABEL one\nKERNEL /linux\nAPPEND initrd=/disk quiet\n';

  it('goes from its configuration to kernel and initial disk, by the label that is the default', async () => {
    const config = `DEFAULT one\n${LABEL}LABEL two\nKERNEL /ghost\n`;
    expect(await follow({ '/syslinux.cfg': config })).toEqual([
      'configuration whole: there /syslinux.cfg',
      'kernel whole: there /linux',
      'initial disk whole: there /disk',
    ]);
    expect((await follow({ '/syslinux.cfg': config.replace('DEFAULT one', 'DEFAULT two') })).at(-1)).toBe(
      'kernel missing: not there /ghost',
    );
  });

  it('takes what is no label as a command: a kernel with its arguments', async () => {
    expect((await follow({ '/syslinux.cfg': 'DEFAULT /linux root=/dev/sda1\n' })).at(-1)).toBe(
      'kernel whole: there /linux',
    );
  });

  it.each([
    ['syslinux', '/', ['/syslinux.cfg', '/boot/syslinux/syslinux.cfg', '/syslinux/syslinux.cfg']],
    ['isolinux', '/isolinux', ['/isolinux/isolinux.cfg', '/boot/isolinux/isolinux.cfg', '/isolinux.cfg']],
    ['extlinux', '/boot/extlinux', ['/boot/extlinux/extlinux.conf', '/extlinux/extlinux.conf']],
  ] as const)('%s looks for its own configuration, in its own folder first', async (as, folder, places) => {
    for (const place of places)
      expect(await follow({ [place]: `DEFAULT one\n${LABEL}` }, { as, folder })).toEqual([
        `configuration whole: there ${place}`,
        'kernel whole: there /linux',
        'initial disk whole: there /disk',
      ]);
    const [said] = await follow({}, { as, folder });
    expect(said).toBe('configuration missing: no configuration');
  });

  it('includes other files, and passes over those that are not there', async () => {
    const files = {
      '/syslinux.cfg': 'DEFAULT one\nINCLUDE more.cfg\nINCLUDE ghost.cfg\n',
      '/more.cfg': LABEL,
    };
    expect((await follow(files)).slice(1)).toEqual([
      'kernel whole: there /linux',
      'initial disk whole: there /disk',
    ]);
  });

  it('that includes itself without end is given up', async () => {
    const said = await follow({ '/syslinux.cfg': 'INCLUDE /syslinux.cfg\nDEFAULT ghost\n' });
    expect(said.at(-1)).toMatch(/^kernel missing: /);
  });

  it('goes on to another configuration, in its folder', async () => {
    const files = {
      '/syslinux.cfg': 'DEFAULT go\nLABEL go\nCONFIG /menu/next.cfg\n',
      '/menu/next.cfg': `DEFAULT one\n${LABEL}`,
    };
    expect((await follow(files)).slice(-3)).toEqual([
      'configuration whole: there /menu/next.cfg',
      'kernel whole: there /linux',
      'initial disk whole: there /disk',
    ]);
  });

  describe('a menu', () => {
    const config = `UI vesamenu.c32\n${LABEL}LABEL two\nMENU DEFAULT\nKERNEL /linux\n`;
    it('wants its module with all that it names of the library, wherever they lie', async () => {
      const of = (files: Files): Promise<string[]> => follow({ '/syslinux.cfg': config, ...files });
      expect(await of({})).toEqual(['configuration missing: module missing /vesamenu.c32']);
      const menu = { '/vesamenu.c32': c32('libcom32.c32', 'libutil.c32') };
      expect(await of(menu)).toEqual(['configuration missing: module missing /libcom32.c32']);
      const whole = { ...menu, '/libcom32.c32': c32(), '/boot/syslinux/libutil.c32': c32() };
      // The entry that the menu has marked is started, and it has no initial disk.
      expect((await of(whole)).slice(1)).toEqual(['kernel whole: there /linux']);
      expect(await of({ ...whole, '/vesamenu.c32': 'no module at all' })).toEqual([
        'configuration missing: module missing /vesamenu.c32',
      ]);
    });
  });

  it('of version 5 wants the module of its core before anything else', async () => {
    const files = { '/syslinux.cfg': `DEFAULT one\n${LABEL}` };
    expect(await follow(files, { needsModule: true })).toEqual([
      'loader missing: module missing /ldlinux.c32',
    ]);
    expect(await follow({ ...files, '/ldlinux.c32': c32() }, { needsModule: true })).toHaveLength(3);
  });

  it.each([
    ['LOCALBOOT 0x80', 'localboot'],
    ['KERNEL chain.bin', 'chain.bin'],
    ['COM32 /reboot.c32', '/reboot.c32'],
  ])('does not claim to know where %s leads', async (line, command) => {
    const files = { '/syslinux.cfg': `DEFAULT x\nLABEL x\n${line}\n`, '/reboot.c32': c32() };
    expect((await follow(files)).at(-1)).toBe(`kernel unreadable: command not followed ${command}`);
  });
});

describe('the Boot Loader Specification', () => {
  const PROGRAM = { '/linux': KERNEL, '/new': KERNEL, '/disk': DISK };
  const follow = async (files: Files, more: Files | null = null, arch = 'x64') => {
    const own = partOf(1, files);
    const other = partOf(2, more ?? {}, { type: 'bc13c2ff-59e6-4262-a352-b275fd6f7172' });
    const { rungs, program } = await followSpecification(source, own, more ? [own, other] : [own], arch);
    return { rungs: brief(rungs), program: program?.path };
  };
  const entry = (...lines: string[]): string => `${lines.join('\n')}\n`;

  it('says where it looked when there is nothing', async () => {
    expect((await follow({})).rungs).toEqual(['configuration missing: no configuration']);
  });
  it('takes the newest entry, else the one that is the default by a pattern', async () => {
    const files = {
      ...PROGRAM,
      '/loader/entries/old.conf': entry('title Old', 'version 1', 'efi /old.efi'),
      '/loader/entries/new.conf': entry('title New', 'version 2', 'efi /new.efi'),
    };
    expect((await follow(files)).program).toBe('/new.efi');
    for (const [pattern, path] of [
      ['old', '/old.efi'],
      ['OLD.conf', '/old.efi'],
      ['o*', '/old.efi'],
      ['n?w', '/new.efi'],
      ['ghost', '/new.efi'],
    ] as const)
      expect((await follow({ ...files, '/loader/loader.conf': `default ${pattern}\n` })).program).toBe(path);
    // The last word on it counts.
    expect((await follow({ ...files, '/loader/loader.conf': 'default new\ndefault old\n' })).program).toBe(
      '/old.efi',
    );
  });
  it('passes over entries for another architecture', async () => {
    const files = { '/loader/entries/a.conf': entry('title A', 'architecture aa64', 'efi /a.efi') };
    expect((await follow(files)).rungs).toEqual(['configuration missing: no configuration']);
    expect((await follow(files, null, 'aa64')).program).toBe('/a.efi');
  });
  it('finds unified kernels, the one of the highest number first, behind entries', async () => {
    const files = { '/EFI/Linux/box-9.efi': 'x', '/EFI/Linux/box-10.efi': 'x', '/EFI/Linux/readme.txt': 'x' };
    expect((await follow(files)).program).toBe('/EFI/Linux/box-10.efi');
    const both = { ...files, '/loader/entries/a.conf': entry('title A', 'efi /a.efi') };
    expect((await follow(both)).program).toBe('/a.efi');
    expect((await follow({ ...both, '/loader/loader.conf': 'default box-9*\n' })).program).toBe(
      '/EFI/Linux/box-9.efi',
    );
  });
  it('looks on an extended loader part too', async () => {
    const more = { '/loader/entries/far.conf': entry('title Far', 'efi /far.efi') };
    expect((await follow({}, more)).program).toBe('/far.efi');
  });
  it('wants what an entry names', async () => {
    const named = { '/loader/entries/a.conf': entry('title A', 'linux /linux', 'initrd /disk') };
    // A kernel without the program header of EFI cannot be started by it.
    expect((await follow({ ...PROGRAM, ...named })).rungs.slice(1)).toEqual([
      'kernel missing: no kernel /linux',
      'initial disk whole: there /disk',
    ]);
    expect((await follow(named)).rungs.slice(1)).toEqual([
      'kernel missing: not there /linux',
      'initial disk missing: not there /disk',
    ]);
  });
});
