import { cpuLevel, LEVEL_FLAGS } from '@zb/core/machine/cpuLevel';
import { contentFrom, type BlockRow } from '@zb/core/machine/content';
import { readSurvey, SurveyError } from '@zb/core/machine/read';
import { SURVEY_SCRIPT } from '@zb/core/machine/script';
import { splitSections } from '@zb/core/machine/sections';
import { factText, parseFact } from '@zb/core/machine/text';
import { factDefinition, factKeys } from '@zb/core/model/facts';

const section = (name: string, text: string): string => `\n==== ${name} ====\n${text}\n`;
const lscpu = (fields: Record<string, string>): string =>
  JSON.stringify({ lscpu: Object.entries(fields).map(([field, data]) => ({ field: `${field}:`, data })) });
const V3 = [...LEVEL_FLAGS.v1, ...LEVEL_FLAGS.v2, ...LEVEL_FLAGS.v3, 'lm'].join(' ');

const FULL = [
  section('zb-survey', '1'),
  section('machine', 'x86_64'),
  section(
    'lscpu',
    lscpu({
      Architecture: 'x86_64',
      'CPU(s)': '16',
      'Model name': 'Made-up 8',
      'Core(s) per socket': '8',
      'Socket(s)': '1',
      Flags: `${V3} svm`,
    }),
  ),
  section('meminfo', 'MemTotal:       16252928 kB\nSwapTotal: 0 kB'),
  section(
    'lsblk',
    JSON.stringify({
      blockdevices: [
        {
          name: 'nvme0n1',
          kname: 'nvme0n1',
          type: 'disk',
          size: 512110190592,
          serial: 'NV-1',
          'phy-sec': 4096,
          model: 'Fast 512 ',
          tran: 'nvme',
          rota: false,
          rm: false,
          hotplug: false,
          children: [
            { name: 'nvme0n1p1', type: 'part', fstype: 'vfat', label: 'ESP' },
            { type: 'part', fstype: 'ext4', label: null },
          ],
        },
        {
          name: 'sda',
          kname: 'sda',
          type: 'disk',
          size: '16008609792',
          serial: 'ST-2',
          model: null,
          tran: 'usb',
          rota: '1',
          rm: '1',
          hotplug: '1',
        },
        { name: 'loop0', type: 'loop', size: 1000 },
        { name: 'sr0', type: 'rom', size: 1073741312 },
        { name: 'zram0', type: 'disk', size: 4096 },
        { name: 'sdb', type: 'disk', size: 0 },
      ],
    }),
  ),
  section('firmware', 'mode=uefi\nbits=64\nsecureboot=1'),
  section(
    'network',
    '[\n {"name":"eth0","kind":"wired","driver":"r1","state":"up","speed":1000,"most":1000,"bus":"internal"},\n {"name":"wlan0","kind":"wireless","driver":"","state":"down","speed":null}\n]',
  ),
  section('graphics', '[ {"card":"card0","driver":"marshgfx","intree":"Y"} ]'),
  section('power', 'type=Mains\ntype=Battery'),
  section('end', ''),
].join('');

describe('CPU levels', () => {
  // x86-64 psABI supplement 1.0, table 3.1.
  it.each(['v1', 'v2', 'v3', 'v4'] as const)(
    '%s needs every flag of its level and of those below',
    (level) => {
      const order = ['v1', 'v2', 'v3', 'v4'] as const;
      const upTo = order.slice(0, order.indexOf(level) + 1).flatMap((l) => LEVEL_FLAGS[l]);
      expect(cpuLevel(upTo)).toBe(level);
      for (const flag of LEVEL_FLAGS[level]) {
        const below = order[order.indexOf(level) - 1];
        expect(cpuLevel(upTo.filter((f) => f !== flag))).toBe(below);
      }
    },
  );
  it('flags of a high level without those below count for nothing', () =>
    expect(cpuLevel([...LEVEL_FLAGS.v1, ...LEVEL_FLAGS.v3])).toBe('v1'));
});

describe('reading a report', () => {
  const survey = readSurvey(FULL);

  it('fills the facts, each with its line', () => {
    const values = Object.fromEntries(Object.entries(survey.facts).map(([k, f]) => [k, f.value]));
    expect(values).toEqual({
      'cpu.arch': 'x86_64',
      'cpu.bits': '64',
      'cpu.level': 'v3',
      'cpu.model': 'Made-up 8',
      'cpu.cores': 8,
      'cpu.threads': 16,
      'cpu.virtualisation': true,
      'cpu.aes': false,
      'memory.bytes': 16252928 * 1024,
      'firmware.mode': 'uefi',
      'firmware.bits': '64',
      'firmware.secureBoot': 'on',
      'network.speed': 1000,
      'network.wired': 1,
      'network.wireless': 1,
      'graphics.driver': 'marshgfx',
      'graphics.family': 'in-kernel',
      'power.battery': true,
    });
    for (const f of Object.values(survey.facts)) expect(f.source.length).toBeGreaterThan(3);
    expect(survey.missing).toEqual([]);
  });

  it('lists real drives only, from new and old lsblk alike', () => {
    expect(survey.drives).toEqual([
      {
        name: 'nvme0n1',
        bytes: 512110190592,
        serial: 'NV-1',
        model: 'Fast 512',
        transport: 'nvme',
        rotational: false,
        sectorBytes: 4096,
        shingled: null,
        removable: false,
        removableMedium: false,
        attachment: 'internal',
        content: expect.objectContaining({
          parts: [
            expect.objectContaining({ filesystem: 'vfat', label: 'ESP' }),
            expect.objectContaining({ filesystem: 'ext4' }),
          ],
        }),
      },
      {
        name: 'sda',
        bytes: 16008609792,
        serial: 'ST-2',
        model: null,
        transport: 'usb',
        rotational: true,
        sectorBytes: null,
        shingled: null,
        removable: true,
        removableMedium: true,
        attachment: 'external',
        content: expect.objectContaining({ parts: [], starts: [] }),
      },
    ]);
  });

  it('knows a 32-bit CPU, and a 64-bit CPU under a 32-bit system', () => {
    const old = readSurvey(
      section('machine', 'i686') +
        section('cpuinfo', 'flags : fpu mmx sse\ncpu cores : 1\nsiblings : 1') +
        section('end', ''),
    );
    expect(old.facts['cpu.bits']?.value).toBe('32');
    expect(old.facts['cpu.arch']?.value).toBe('i686');
    expect(old.facts['cpu.level']).toBeUndefined();
    const wide = readSurvey(
      section('machine', 'i686') + section('cpuinfo', `flags : ${V3}`) + section('end', ''),
    );
    expect(wide.facts['cpu.arch']?.value).toBe('x86_64');
    expect(wide.facts['cpu.level']?.value).toBe('v3');
  });

  it.each([
    ['aarch64', '64'],
    ['armv7l', '32'],
  ])('%s boards are %s-bit', (arch, bits) => {
    const s = readSurvey(section('machine', arch));
    expect(s.facts['cpu.arch']?.value).toBe(arch);
    expect(s.facts['cpu.bits']?.value).toBe(bits);
  });

  it.each(['bios', 'board'])(
    'a machine that starts by %s has no Secure Boot (UEFI 2.10 §32 alone has)',
    (mode) => {
      const s = readSurvey(section('firmware', `mode=${mode}`));
      expect(s.facts['firmware.mode']?.value).toBe(mode);
      expect(s.facts['firmware.secureBoot']?.value).toBe('absent');
    },
  );

  it('takes CRLF, an indent and shell noise in front', () => {
    const noisy = ('$ sh survey.sh\n' + FULL)
      .replace(/\n/g, '\r\n')
      .replace('==== meminfo', '  ==== meminfo');
    expect(readSurvey(noisy).facts['memory.bytes']?.value).toBe(16252928 * 1024);
  });

  it('says what a cut report does not tell, and keeps what it does', () => {
    const cut = readSurvey(FULL.slice(0, FULL.indexOf('"children"')));
    expect(cut.facts['cpu.level']?.value).toBe('v3');
    expect(cut.drives).toEqual([]);
    expect(cut.missing.join('\n')).toMatch(/Drives: no readable lsblk/);
    expect(cut.missing.join('\n')).toMatch(/cut off/);
  });

  it('every cut of a good report is read without a fault', () => {
    for (let at = 40; at < FULL.length; at += 37) expect(() => readSurvey(FULL.slice(0, at))).not.toThrow();
  });

  it('names a missing serial and an unknown driver family', () => {
    const s = readSurvey(
      section('lsblk', '{"blockdevices":[{"name":"sda","type":"disk","size":1000}]}') +
        section('graphics', '[{"card":"card0","driver":"x","intree":"unknown"}]'),
    );
    expect(s.missing.join('\n')).toMatch(/Serial of drive sda/);
    expect(s.missing.join('\n')).toMatch(/Graphics driver family/);
    expect(s.facts['graphics.family']).toBeUndefined();
  });

  it.each(['', 'hello', '{"facts":{}}', '====='])('refuses %p with words for the user', (text) => {
    expect(() => readSurvey(text)).toThrow(SurveyError);
    expect(() => readSurvey(text)).toThrow(/Nothing was changed/);
  });

  it('the first of two sections with one name counts', () => {
    const s = splitSections(section('machine', 'one') + section('machine', 'two'));
    expect(s.get('machine')?.text).toBe('one');
  });
});

describe('the script', () => {
  it('writes nothing: no redirection into a file, no removing, no sudo', () => {
    const code = SURVEY_SCRIPT.split('\n').filter((l) => !l.startsWith('#'));
    for (const line of code) {
      expect(line.replace(/2>\/dev\/null|>\/dev\/null 2>&1/g, '')).not.toMatch(/(^|[^<0-9])>/);
      expect(line).not.toMatch(/\b(rm|mv|cp|dd|tee|sudo|mkfs|wget|curl)\b/);
    }
  });
  it('is short', () => expect(SURVEY_SCRIPT.split('\n').length).toBeLessThan(220));
});

describe('facts as text', () => {
  it.each([
    ['memory.bytes', '16 GiB', 16 * 1024 ** 3],
    ['cpu.cores', ' 8 ', 8],
    ['display.portrait', 'Yes', true],
    ['firmware.mode', 'UEFI', 'uefi'],
    ['memory.type', 'DDR4', 'DDR4'],
    ['memory.type', 'ddr4', 'DDR4'],
    ['memory.form', 'dimm', 'DIMM'],
    ['memory.form', 'SODIMM', 'SO-DIMM'],
    ['firmware.order', 'USB > Internal', ['usb', 'internal']],
    ['firmware.order', 'usb, internal', ['usb', 'internal']],
    ['firmware.setupKey', 'F2', 'F2'],
  ] as const)('%s takes %p', (key, text, value) => expect(parseFact(key, text)).toEqual(value));

  it.each([
    ['memory.bytes', 'lots'],
    ['cpu.cores', '8.5'],
    ['display.portrait', 'maybe'],
    ['firmware.mode', 'openish'],
    ['firmware.order', 'usb, toaster'],
    ['cpu.model', '  '],
  ] as const)('%s refuses %p', (key, text) => expect(() => parseFact(key, text)).toThrow(RangeError));

  it('every fact has a label and a question', () => {
    for (const key of factKeys) {
      expect(factDefinition(key).label).not.toBe('');
      expect(factDefinition(key).ask).toMatch(/\?$/);
    }
  });
  it('shows values with their units and words', () => {
    expect(factText('memory.bytes', 16 * 1024 ** 3)).toBe('16.0 GiB');
    expect(factText('display.portrait', false)).toBe('no');
    expect(factText('firmware.order', ['internal', 'usb'])).toBe('internal drive, then USB');
    expect(factText('cpu.bits', '64')).toBe('64-bit');
  });
});

describe('what lies on a drive, by lsblk and boot entries', () => {
  // Columns as `lsblk -J -b -O` of util-linux names them (its manual); the values are made up.
  const GUID = '1b4e28ba-2fa1-11d2-883f-0016d3cca427';
  const esp = {
    type: 'part',
    start: 2048,
    size: 104857600,
    parttype: 'c12a7328-f81f-11d2-ba4b-00a0c93ec93b',
    partuuid: GUID,
    fstype: 'vfat',
    label: 'ESP',
  };
  const data = { type: 'part', start: '206848', size: '1000000', fstype: 'ext4', label: 'DATA' };
  const entry = (path: string, active = true) => ({
    id: '0001',
    label: 'System',
    active,
    first: true,
    inOrder: true,
    next: false,
    path,
  });
  // UEFI 2.10 §10.6.1.6, table 10.66: text form of a hard-drive node; efibootmgr prints it as below.
  const named = entry(`HD(1,GPT,${GUID.toUpperCase()},0x800,0x32000)/File(\\EFI\\sys\\grubx64.efi)`);
  const disk = (...children: object[]): BlockRow => ({
    type: 'disk',
    pttype: 'gpt',
    children: children as BlockRow[],
  });

  it('reads parts with their places in bytes', () => {
    expect(contentFrom(disk(esp, data), [], 'uefi-x64')).toMatchObject({
      table: 'gpt',
      parts: [
        { start: 1048576, bytes: 104857600, filesystem: 'vfat', label: 'ESP' },
        { start: 206848 * 512, bytes: 1000000, filesystem: 'ext4' },
      ],
    });
  });

  it('says what starts only where it is known', () => {
    expect(contentFrom(disk(esp, data), [named], 'uefi-x64').starts).toEqual([
      { by: 'boot entry', firmware: 'uefi-x64', path: '/EFI/sys/grubx64.efi', title: 'System' },
    ]);
    // An entry that is switched off, or names another part, says nothing; the system part may hold a loader all the same.
    expect(contentFrom(disk(esp, data), [{ ...named, active: false }], 'uefi-x64').starts).toBeNull();
    expect(contentFrom(disk(data), [named], 'uefi-x64').starts).toEqual([]);
    expect(contentFrom(disk(data), [], 'bios').starts).toBeNull();
    expect(contentFrom(disk({ ...data, mountpoints: ['/'] }), [], 'bios').starts).toMatchObject([
      { by: 'boot code', firmware: 'bios' },
    ]);
    expect(
      contentFrom(
        disk({ ...data, fstype: 'LVM2_member', children: [{ type: 'lvm', mountpoint: '/' }] }),
        [],
        'bios',
      ).starts,
    ).toHaveLength(1);
    expect(contentFrom({ type: 'disk' }, [named], 'uefi-x64')).toMatchObject({ table: 'none', starts: [] });
  });
});
