import { readHealth } from '../src/machine/health';
import { readSurvey } from '../src/machine/read';
import type { Survey } from '../src/machine/types';

/* Each: a report as a machine would give it, and what must be read from it. The source stands beside the case. */

const section = (name: string, text: string): string => `==== ${name} ====\n${text}\n`;
const read = (...sections: [string, string][]): Survey =>
  readSurvey(sections.map(([n, t]) => section(n, t)).join('') + section('end', ''));
const lsblk = (...rows: object[]): [string, string] => ['lsblk', JSON.stringify({ blockdevices: rows })];
const missing = (s: Survey): string => s.missing.join('\n');

describe('graphics', () => {
  it('no DRM device is not known, not “no graphics” (common practice, no source)', () => {
    const s = read(['graphics', '[\n]']);
    expect(s.facts['graphics.family']).toBeUndefined();
    expect(missing(s)).toMatch(/Graphics: no graphics driver is in use/);
  });

  it('a start with basic graphics says so (kernel documentation, fb/simplefb)', () => {
    const s = read(['graphics', '[{"card":"card0","driver":"simple-framebuffer","intree":"Y"}]']);
    expect(s.facts['graphics.driver']).toBeUndefined();
    expect(missing(s)).toMatch(/basic graphics/);
  });

  it('the display driver counts, not the bus driver beneath it (kernel documentation, driver model)', () => {
    const s = read([
      'graphics',
      '[{"card":"card0","driver":"virtio-pci","intree":"Y"},{"card":"card1","driver":"virtio_gpu","intree":"Y"}]',
    ]);
    expect(s.facts['graphics.driver']?.value).toBe('virtio_gpu');
  });

  it('the open driver on hardware that wants the closed one decides nothing by itself (common practice, no source)', () => {
    const s = read(
      ['pci', '0000:01:00.0 class=0x030000 id=0x10de:0x1b80 driver=nouveau'],
      ['graphics', '[{"card":"card0","driver":"nouveau","intree":"Y"}]'],
    );
    expect(s.facts['graphics.family']).toBeUndefined();
    expect(s.assumed['graphics.family']?.value).toBe('out-of-tree');
    expect(s.details.pci).toEqual([
      { slot: '0000:01:00.0', class: '030000', id: '10de:1b80', driver: 'nouveau' },
    ]);
  });
});

describe('drives', () => {
  it('an internal SATA drive that is marked removable or for hot plugging stays a drive (lsblk(8), RM and HOTPLUG)', () => {
    const [d] = read(
      lsblk({ name: 'sda', type: 'disk', size: 1000, tran: 'sata', rm: true, hotplug: true, serial: 'A' }),
    ).drives;
    expect(d?.removable).toBe(false);
  });

  it('a USB stick and a card are removable, soldered flash is not, its boot areas are no drives (JESD84-B51 §6.2.1)', () => {
    const { drives } = read(
      [
        'disks',
        'name=mmcblk0 class=0x080501 type=MMC serial=0x1\nname=mmcblk1 class=0x080501 type=SD serial=0x2',
      ],
      lsblk(
        { name: 'sdb', type: 'disk', size: 1000, tran: 'usb', rm: false, hotplug: true, serial: 'B' },
        { name: 'mmcblk0', type: 'disk', size: 32e9, rm: false },
        { name: 'mmcblk0boot0', type: 'disk', size: 4e6 },
        { name: 'mmcblk0boot1', type: 'disk', size: 4e6 },
        { name: 'mmcblk1', type: 'disk', size: 16e9, rm: false },
      ),
    );
    expect(drives.map((d) => [d.name, d.removable])).toEqual([
      ['sdb', true],
      ['mmcblk0', false],
      ['mmcblk1', true],
    ]);
    expect(drives[1]?.serial).toBe('0x1');
  });

  it.each([
    ['0x010601', 'sata'],
    ['0x01018a', 'ide'],
    ['', 'ata'],
  ])(
    '“ata” behind a controller of class %s is %s (PCI Code and ID Assignment, base class 01h)',
    (cls, transport) => {
      const [d] = read(
        ['disks', `name=sda class=${cls} type=0 serial=`],
        lsblk({ name: 'sda', type: 'disk', size: 1000, tran: 'ata', serial: 'A' }),
      ).drives;
      expect(d?.transport).toBe(transport);
    },
  );

  it('a drive that names a SATA version is one, though its controller plays IDE (ACS-4, IDENTIFY DEVICE word 222)', () => {
    const [d] = read(
      ['disks', 'name=sda class=0x01018a type=0 serial='],
      [
        'smart',
        '---- sda\n{"sata_version":{"string":"SATA 3.2"},"smart_status":{"passed":true},"serial_number":"Z9"}',
      ],
      lsblk({ name: 'sda', type: 'disk', size: 1000, tran: 'ata' }),
    ).drives;
    expect([d?.transport, d?.serial]).toEqual(['sata', 'Z9']);
  });

  it('SAS exists, and a serial is taken from /sys where lsblk has none', () => {
    const s = read(
      ['disks', 'name=sda class=0x010700 type=0 serial=5000C500'],
      lsblk({ name: 'sda', type: 'disk', size: 1000, tran: 'sas' }),
    );
    expect([s.drives[0]?.transport, s.drives[0]?.serial]).toEqual(['sas', '5000C500']);
    expect(missing(s)).not.toMatch(/Serial of drive/);
  });
});

describe('health of drives (smartctl(8), --json; ACS-4 §9.5, Device Statistics)', () => {
  const attribute = (id: number, name: string, value: number, raw: number): object => ({
    id,
    name,
    value,
    raw: { value: raw },
  });
  it('goes by an attribute’s name, never by its number', () => {
    // 177, 231 and 241 mean other things with other makers.
    const json = {
      ata_smart_attributes: {
        table: [
          attribute(231, 'Temperature_Celsius', 64, 36),
          attribute(241, 'Unknown_Attribute', 100, 5_000_000),
          attribute(202, 'Percent_Lifetime_Remain', 88, 12),
          attribute(246, 'Total_LBAs_Written', 100, 2_000),
          attribute(5, 'Reallocated_Sector_Ct', 100, 3),
        ],
      },
    };
    expect(readHealth('sda', json)).toMatchObject({
      wearPercent: 12,
      writtenBytes: 2_000 * 512,
      badSectors: 3,
    });
  });

  it('reads the Device Statistics before any attribute', () => {
    const json = {
      logical_block_size: 4096,
      ata_smart_attributes: { table: [attribute(177, 'Wear_Leveling_Count', 40, 900)] },
      ata_device_statistics: {
        pages: [
          { number: 1, table: [{ name: 'Logical Sectors Written', value: 1000 }] },
          { number: 7, table: [{ name: 'Percentage Used Endurance Indicator', value: 7 }] },
        ],
      },
    };
    expect(readHealth('sda', json)).toMatchObject({ wearPercent: 7, writtenBytes: 1000 * 4096 });
  });
});

describe('memory (SMBIOS 3.7 §7.17, §7.18)', () => {
  const device = (slot: string, size: string, form: string, type: string): string =>
    `Memory Device\n\tSize: ${size}\n\tForm Factor: ${form}\n\tLocator: ${slot}\n\tType: ${type}\n\tSpeed: 2666 MT/s`;
  const s = read([
    'dmi',
    [
      'Physical Memory Array\n\tMaximum Capacity: 16 GB\n\tNumber Of Devices: 2',
      device('On board', '8 GB', 'Row Of Chips', 'DDR4'),
      device('Slot 1', 'No Module Installed', 'SODIMM', 'Unknown'),
    ].join('\n\n'),
  ]);

  it('soldered memory beside a free slot: what can be added goes into the slot', () =>
    expect([s.facts['memory.form']?.value, s.facts['memory.free']?.value]).toEqual(['SO-DIMM', 1]));

  it('the most that firmware tells is a hint and never decides (common practice, no source)', () => {
    expect(s.facts['memory.max']).toBeUndefined();
    expect(s.assumed['memory.max']?.value).toBe(16 * 1024 ** 3);
  });
});

describe('processors', () => {
  it('a 64-bit core under a 32-bit kernel is told by its part number (Cortex-A53 TRM, MIDR)', () => {
    const s = read(
      ['machine', 'armv7l'],
      ['cpuinfo', 'CPU implementer\t: 0x41\nCPU architecture: 7\nCPU part\t: 0xd03'],
    );
    expect([s.facts['cpu.arch']?.value, s.facts['cpu.bits']?.value]).toEqual(['aarch64', '64']);
  });
  it('one of 32 bits stays one (Cortex-A7 TRM, MIDR)', () => {
    const s = read(['machine', 'armv7l'], ['cpuinfo', 'CPU implementer\t: 0x41\nCPU part\t: 0xc07']);
    expect([s.facts['cpu.arch']?.value, s.facts['cpu.bits']?.value]).toEqual(['armv7l', '32']);
  });

  it('clusters of several models are added up (lscpu(1), JSON of util-linux 2.38)', () => {
    const kind = (model: string, clusters: string, cores: string): object => ({
      field: 'Model name:',
      data: model,
      children: [
        { field: 'Thread(s) per core:', data: '1' },
        { field: 'Core(s) per cluster:', data: cores },
        { field: 'Cluster(s):', data: clusters },
      ],
    });
    const s = read([
      'lscpu',
      JSON.stringify({
        lscpu: [
          { field: 'Architecture:', data: 'aarch64' },
          { field: 'CPU(s):', data: '6' },
          {
            field: 'Vendor ID:',
            data: 'ARM',
            children: [kind('Cortex-A55', '1', '4'), kind('Cortex-A76', '1', '2')],
          },
        ],
      }),
    ]);
    expect([s.facts['cpu.cores']?.value, s.facts['cpu.model']?.value]).toEqual([
      6,
      'Cortex-A55 + Cortex-A76',
    ]);
  });

  it('the level of a 64-bit CPU is told under a 32-bit system too (x86-64 psABI 1.0, table 3.1)', () => {
    const flags =
      'fpu cx8 cmov mmx fxsr sse sse2 lm pni ssse3 cx16 sse4_1 sse4_2 popcnt lahf_lm constant_tsc';
    const s = read(['machine', 'i686'], ['cpuinfo', `model name\t: x\nflags\t\t: ${flags}`]);
    expect([s.facts['cpu.arch']?.value, s.facts['cpu.level']?.value]).toEqual(['x86_64', 'v2']);
  });

  it('virtualisation that does not show may be off in setup: it is asked, not denied', () => {
    const s = read(['machine', 'x86_64'], ['cpuinfo', 'flags\t\t: lm sse2']);
    expect(s.facts['cpu.virtualisation']).toBeUndefined();
    expect(s.assumed['cpu.virtualisation']?.value).toBe(false);
  });
});

describe('network', () => {
  const port = (more: object): string =>
    JSON.stringify([{ name: 'eth0', kind: 'wired', driver: 'r', state: 'up', ...more }]);
  it('the speed two ends agreed on is not the port’s (IEEE 802.3 clause 28)', () => {
    const s = read(['network', port({ speed: 100 })]);
    expect(s.facts['network.speed']).toBeUndefined();
    expect(s.assumed['network.speed']?.value).toBe(100);
  });
  it('what the port offers is (ethtool(8), Supported link modes)', () =>
    expect(
      read(['network', port({ speed: 100, most: 2500, bus: 'internal' })]).facts['network.speed']?.value,
    ).toBe(2500));
  it('adapters and phones on USB are not the machine’s ports', () => {
    const s = read([
      'network',
      '[{"name":"eth0","kind":"wired","driver":"r","bus":"internal"},{"name":"usb0","kind":"wired","driver":"rndis_host","bus":"usb"},{"name":"enx001122334455","kind":"wired","driver":"x"}]',
    ]);
    expect(s.facts['network.wired']?.value).toBe(1);
    expect(s.networkPorts.map((p) => p.name)).toEqual(['eth0']);
  });
});

it('a mouse’s battery is not the machine’s (kernel documentation, power_supply class, scope)', () => {
  const s = read(['power', 'type=Mains name=AC scope=\ntype=Battery name=hidpp_battery_0 scope=Device']);
  expect(s.facts['power.battery']?.value).toBe(false);
  const laptop = read([
    'power',
    'type=Battery name=BAT0 scope=System\n energy_full_design=50000000\n energy_full=40000000',
  ]);
  expect(laptop.facts['power.battery']?.value).toBe(true);
});

describe('a report that is not whole', () => {
  const FLAGS =
    'fpu vme de pse tsc msr pae mce cx8 apic sep mtrr pge mca cmov pat pse36 clflush mmx fxsr sse sse2 ss syscall nx lm constant_tsc rep_good nopl pni ssse3 cx16 sse4_1 sse4_2 movbe popcnt aes xsave avx lahf_lm svm';
  const cpuinfo = (flags: string): string =>
    `processor : 0\nmodel name : a processor with a long name of its own, made for this check\nflags : ${flags}\nbugs : none`;
  const plain = (flags: string): string =>
    [section('machine', 'i686'), section('cpuinfo', cpuinfo(flags)), section('end', '')].join('');
  /** As a terminal wraps it: after so many columns, wherever that is. */
  const wrap = (report: string, columns: number): string =>
    report
      .split('\n')
      .flatMap((l) => l.match(new RegExp(`.{1,${columns}}`, 'g')) ?? [''])
      .join('\n');
  /** As a viewer shows it that cuts long lines off. */
  const clip = (report: string, columns: number): string =>
    report
      .split('\n')
      .map((l) => l.slice(0, columns))
      .join('\n');
  const cpu = (s: Survey) => [
    s.facts['cpu.arch']?.value,
    s.facts['cpu.bits']?.value,
    s.facts['cpu.aes']?.value,
  ];

  it('wrapped at any width, what is there is found, and what is not is not told', () => {
    const whole = readSurvey(plain(FLAGS));
    expect(cpu(whole)).toEqual(['x86_64', '64', true]);
    for (let columns = 50; columns <= 132; columns += 1) {
      const s = readSurvey(wrap(plain(FLAGS), columns));
      expect([columns, ...cpu(s)]).toEqual([columns, 'x86_64', '64', true]);
      const none = readSurvey(wrap(plain(FLAGS.replace(/ (lm|aes)(?= )/g, '')), columns));
      expect([columns, ...cpu(none)]).toEqual([columns, 'i686', undefined, undefined]);
      expect(missing(none)).toMatch(/CPU flags: the list is cut or wrapped/);
    }
  });
  it('cut off at a column, no 32-bit processor without AES comes of it', () => {
    for (const columns of [72, 80, 120]) {
      const s = readSurvey(
        clip(plain(FLAGS).replace('made for', 'which was made as nothing more than a line for'), columns),
      );
      expect([columns, ...cpu(s)]).toEqual([columns, 'i686', undefined, undefined]);
      expect(s.assumed['cpu.virtualisation']).toBeUndefined();
    }
    const ended = readSurvey(
      section('machine', 'x86_64') + `==== cpuinfo ====\nflags : ${FLAGS.slice(0, 90)}`,
    );
    expect(cpu(ended)).toEqual(['x86_64', '64', undefined]);
  });
  it('an indented report is the same report', () => {
    const report =
      section('machine', 'x86_64') +
      section('cpuinfo', cpuinfo(FLAGS)) +
      section('firmware', 'mode=uefi\nbits=64\nsecureboot=0\ndate=2021-03-01') +
      section('power', 'type=Mains\nname=AC') +
      section('end', '');
    for (const by of ['  ', '\t', '        '])
      expect(readSurvey(report.replace(/^/gm, by))).toEqual(readSurvey(report));
    expect(readSurvey(report).facts['firmware.mode']?.value).toBe('uefi');
  });
  it('a list that was cut tells of nothing that it is not there', () => {
    const cut = readSurvey('==== power ====\ntype=Mains\nname=AC\n');
    expect(cut.facts['power.battery']).toBeUndefined();
    expect(read(['power', 'type=Mains\nname=AC']).facts['power.battery']?.value).toBe(false);
  });
  // Linux documentation, ABI/stable/sysfs-devices-system-cpu: core_id is unique within its physical_package_id alone.
  it('two sockets without lscpu: the kernel’s own table counts both; without it one is assumed', () => {
    const one = 'flags : fpu lm\ncpu cores : 4\nsiblings : 8\nbugs : none';
    const rows = [0, 1].flatMap((p) => [0, 1, 2, 3, 0, 1, 2, 3].map((c) => `package=${p} core=${c}`));
    const s = read(
      ['machine', 'x86_64'],
      ['cpuinfo', one],
      ['topology', rows.map((r, i) => `cpu${i} ${r}`).join('\n')],
    );
    expect([s.facts['cpu.cores']?.value, s.facts['cpu.threads']?.value]).toEqual([8, 16]);
    const older = read(['machine', 'x86_64'], ['cpuinfo', one]);
    expect(older.facts['cpu.cores']).toBeUndefined();
    expect([older.assumed['cpu.cores']?.value, older.assumed['cpu.threads']?.value]).toEqual([4, 8]);
  });
});
