import type { Survey } from '@zb/core/machine/types';
import type { FactKey, FactValue } from '@zb/core/model/facts';
import type { Shape } from './machines';

/** What a machine's command line says of it. */
export interface ShapeTruth extends Shape {
  file: string;
  facts: Partial<Record<FactKey, FactValue | undefined>>;
  /** By serial: how each drive is connected, and whether it is plugged in from outside. */
  stores: readonly { serial: string; transport: string; removable: boolean; mib: number }[];
  wired: number;
  /** Labels of boot entries that must be among those found. */
  entries?: readonly string[];
}

/** A slot for memory: SMBIOS 3.6 §7.18 “Memory Device (Type 17)”, of the length of version 2.8; 0 MiB is an empty one. */
function memorySlot(handle: number, mib: number): Uint8Array {
  const out = new Uint8Array(40);
  const view = new DataView(out.buffer);
  out.set([17, 40]);
  view.setUint16(2, handle, true);
  view.setUint16(4, 0x1000, true);
  view.setUint16(6, 0xfffe, true);
  view.setUint16(8, 64, true);
  view.setUint16(10, 64, true);
  view.setUint16(12, mib, true);
  // Form factor 09h is a DIMM, type 1Ah is DDR4 (§7.18.1, §7.18.2); string 1 is the slot's name.
  out.set([0x09, 0, 1, 0, 0x1a], 14);
  return Uint8Array.from([...out, ...new TextEncoder().encode(`DIMM ${handle & 0xff}`), 0, 0]);
}

const machine = (kind: string, cpu: string, smp: string, mib: number): string[] => [
  '-M',
  kind,
  '-cpu',
  cpu,
  '-smp',
  smp,
  '-m',
  String(mib),
];
const devices = (...all: string[]): string[] => all.flatMap((d) => ['-device', d]);
/** A network port on a wire of its own that leads nowhere. */
const port = (model: string, n: number): string[] => [
  ...devices(`${model},netdev=n${n}`),
  '-netdev',
  `user,id=n${n},restrict=on`,
];

/** Machines of the trade, made up: what is asked of the emulator, and so what a survey must find. */
export const shapes: readonly ShapeTruth[] = [
  {
    file: 'office',
    name: 'office desktop: UEFI, SATA solid state, a USB stick, one port',
    firmware: 'uefi',
    args: [
      ...machine('q35', 'Haswell', '4,sockets=1,cores=2,threads=2', 1024),
      ...devices(
        'ide-hd,drive=a,bus=ide.0,serial=OFFICE-SSD-1,rotation_rate=1',
        'qemu-xhci',
        'usb-storage,drive=b,serial=STICK-77,removable=on',
      ),
      ...port('e1000e', 0),
      ...devices('virtio-vga'),
    ],
    drives: { a: 64, b: 32 },
    facts: {
      'cpu.arch': 'x86_64',
      'cpu.bits': '64',
      'cpu.level': 'v3',
      'cpu.cores': 2,
      'cpu.threads': 4,
      'cpu.aes': true,
      'firmware.mode': 'uefi',
      'firmware.bits': '64',
      'firmware.secureBoot': 'off',
      'network.wired': 1,
      'network.wireless': 0,
      'graphics.driver': 'virtio_gpu',
      'graphics.family': 'in-kernel',
      'power.battery': false,
    },
    stores: [
      { serial: 'OFFICE-SSD-1', transport: 'sata', removable: false, mib: 64 },
      { serial: 'STICK-77', transport: 'usb', removable: true, mib: 32 },
    ],
    wired: 1,
  },
  {
    file: 'old-desktop',
    name: 'old desktop: BIOS, one core without ciphers, an IDE disk',
    firmware: 'bios',
    args: [
      ...machine('pc', 'Conroe', '1', 512),
      ...devices('ide-hd,drive=a,bus=ide.0,serial=OLD-IDE-9'),
      ...port('rtl8139', 0),
      ...devices('VGA'),
    ],
    drives: { a: 48 },
    facts: {
      'cpu.arch': 'x86_64',
      'cpu.bits': '64',
      'cpu.level': 'v1',
      'cpu.cores': 1,
      'cpu.threads': 1,
      'cpu.aes': false,
      'firmware.mode': 'bios',
      'firmware.secureBoot': 'absent',
      'network.wired': 1,
    },
    stores: [{ serial: 'OLD-IDE-9', transport: 'ide', removable: false, mib: 48 }],
    wired: 1,
  },
  {
    file: 'two-sockets',
    name: 'server: two sockets, NVMe and two SATA disks, two ports',
    firmware: 'bios',
    args: [
      ...machine('q35', 'Haswell', '8,sockets=2,cores=2,threads=2', 1024),
      ...devices(
        'nvme,drive=a,serial=NVME-1',
        'ide-hd,drive=b,bus=ide.0,serial=DISK-B',
        'ide-hd,drive=c,bus=ide.1,serial=DISK-C',
      ),
      ...port('e1000e', 0),
      ...port('e1000e', 1),
    ],
    drives: { a: 64, b: 96, c: 96 },
    facts: {
      'cpu.arch': 'x86_64',
      'cpu.bits': '64',
      'cpu.level': 'v3',
      'cpu.cores': 4,
      'cpu.threads': 8,
      'cpu.aes': true,
      'firmware.mode': 'bios',
      'network.wired': 2,
      'graphics.driver': undefined,
      'graphics.family': undefined,
    },
    stores: [
      { serial: 'NVME-1', transport: 'nvme', removable: false, mib: 64 },
      { serial: 'DISK-B', transport: 'sata', removable: false, mib: 96 },
      { serial: 'DISK-C', transport: 'sata', removable: false, mib: 96 },
    ],
    wired: 2,
  },
  {
    file: 'gate',
    name: 'gate: three ports of three makers, a card',
    firmware: 'uefi',
    args: [
      ...machine('q35', 'Westmere', '2,sockets=1,cores=2,threads=1', 768),
      ...devices('sdhci-pci', 'sd-card,drive=a'),
      ...port('e1000e', 0),
      ...port('rtl8139', 1),
      ...port('virtio-net-pci', 2),
    ],
    drives: { a: 64 },
    facts: {
      'cpu.arch': 'x86_64',
      'cpu.level': 'v2',
      'cpu.cores': 2,
      'cpu.threads': 2,
      'cpu.aes': true,
      'firmware.mode': 'uefi',
      'network.wired': 3,
    },
    stores: [{ serial: '', transport: 'mmc', removable: true, mib: 64 }],
    wired: 3,
  },
  {
    file: 'portrait',
    name: 'handheld: an upright panel, NVMe, no wired port but one on USB',
    firmware: 'uefi',
    args: [
      ...machine('q35', 'EPYC-Rome', '4,sockets=1,cores=4,threads=1', 1024),
      ...devices('nvme,drive=a,serial=HAND-NVME', 'virtio-vga,edid=on,xres=800,yres=1280', 'qemu-xhci'),
      ...port('usb-net', 0),
    ],
    drives: { a: 64 },
    facts: {
      'cpu.level': 'v3',
      'cpu.cores': 4,
      'cpu.threads': 4,
      'display.portrait': true,
      'display.native': '800 × 1280',
      'network.wired': 0,
      'graphics.driver': 'virtio_gpu',
    },
    stores: [{ serial: 'HAND-NVME', transport: 'nvme', removable: false, mib: 64 }],
    wired: 0,
  },
  {
    file: 'no-ciphers',
    name: 'mini PC: no ciphers, SATA and USB disk, two ports',
    firmware: 'uefi',
    args: [
      ...machine('q35', 'Nehalem', '2,sockets=1,cores=2,threads=1', 768),
      ...devices(
        'ide-hd,drive=a,bus=ide.2,serial=MINI-SATA',
        'qemu-xhci',
        'usb-storage,drive=b,serial=USB-DISK',
      ),
      ...port('e1000e', 0),
      ...port('e1000e', 1),
    ],
    drives: { a: 64, b: 80 },
    facts: {
      'cpu.level': 'v2',
      'cpu.aes': false,
      'cpu.cores': 2,
      'firmware.mode': 'uefi',
      'network.wired': 2,
    },
    stores: [
      { serial: 'MINI-SATA', transport: 'sata', removable: false, mib: 64 },
      { serial: 'USB-DISK', transport: 'usb', removable: true, mib: 80 },
    ],
    wired: 2,
  },
  {
    file: 'four-disks',
    name: 'storage tower: four SATA disks, one of them solid state, BIOS',
    firmware: 'bios',
    args: [
      ...machine('q35', 'Broadwell', '4,sockets=1,cores=4,threads=1', 768),
      ...devices(
        'ide-hd,drive=a,bus=ide.0,serial=TOWER-BOOT,rotation_rate=1',
        'ide-hd,drive=b,bus=ide.1,serial=TOWER-B,rotation_rate=5400',
        'ide-hd,drive=c,bus=ide.2,serial=TOWER-C,rotation_rate=5400',
        'ide-hd,drive=d,bus=ide.3,serial=TOWER-D,rotation_rate=7200',
      ),
      ...port('e1000e', 0),
    ],
    drives: { a: 48, b: 96, c: 96, d: 80 },
    facts: { 'cpu.level': 'v3', 'cpu.cores': 4, 'firmware.mode': 'bios', 'network.wired': 1 },
    stores: [
      { serial: 'TOWER-BOOT', transport: 'sata', removable: false, mib: 48 },
      { serial: 'TOWER-B', transport: 'sata', removable: false, mib: 96 },
      { serial: 'TOWER-C', transport: 'sata', removable: false, mib: 96 },
      { serial: 'TOWER-D', transport: 'sata', removable: false, mib: 80 },
    ],
    wired: 1,
  },
  {
    file: 'guest-host',
    name: 'host of guests: virtualisation in the processor, many cores, no drive',
    firmware: 'bios',
    args: [...machine('q35', 'Haswell,vmx=on', '6,sockets=1,cores=6,threads=1', 1024), ...port('e1000e', 0)],
    drives: {},
    facts: {
      'cpu.level': 'v3',
      'cpu.cores': 6,
      'cpu.threads': 6,
      'firmware.mode': 'bios',
      'network.wired': 1,
    },
    stores: [],
    wired: 1,
  },
  {
    file: 'empty-slot',
    name: 'office desktop: two slots for memory, one of them empty',
    firmware: 'bios',
    args: [...machine('q35', 'Haswell', '2,sockets=1,cores=2,threads=1', 1024), ...port('e1000e', 0)],
    drives: {},
    smbios: [memorySlot(0x1100, 1024), memorySlot(0x1101, 0)],
    facts: {
      'memory.slots': 2,
      'memory.free': 1,
      'memory.type': 'DDR4',
      'memory.form': 'DIMM',
      'cpu.cores': 2,
      'network.wired': 1,
    },
    stores: [],
    wired: 1,
  },
  {
    file: 'installed',
    name: 'laptop: a system was installed, and has an entry in the boot manager',
    firmware: 'uefi',
    args: [
      ...machine('q35', 'Haswell', '2,sockets=1,cores=2,threads=1', 768),
      ...devices('ide-hd,drive=a,bus=ide.0,serial=OLD-SYSTEM,rotation_rate=1'),
      ...port('e1000e', 0),
    ],
    drives: { a: 96 },
    tables: { a: 'label: gpt\nstart=2048, size=65536, type=U\nstart=67584, type=L\n' },
    entry: 'Old-system',
    facts: { 'firmware.mode': 'uefi', 'cpu.cores': 2 },
    stores: [{ serial: 'OLD-SYSTEM', transport: 'sata', removable: false, mib: 96 }],
    wired: 1,
    entries: ['Old-system'],
  },
];

/** What a survey found of a machine beside what its command line says, in one shape to be compared. */
export function against(shape: ShapeTruth, survey: Survey): { found: unknown; truth: unknown } {
  const keys = Object.keys(shape.facts) as FactKey[];
  const byName = (a: { serial: string }, b: { serial: string }): number => (a.serial < b.serial ? -1 : 1);
  return {
    found: {
      facts: Object.fromEntries(keys.map((k) => [k, survey.facts[k]?.value])),
      // A card has its serial from its maker; the emulator gives none that the command line tells.
      stores: survey.drives
        .map((d) => ({
          serial: d.transport === 'mmc' ? '' : (d.serial ?? ''),
          transport: d.transport ?? '',
          removable: d.removable,
          mib: d.bytes / 1024 ** 2,
        }))
        .sort(byName),
      wired: survey.networkPorts.filter((p) => p.kind === 'wired').length,
      entries: survey.details.bootEntries
        .filter((e) => /\\EFI\\old\\grubx64\.efi/i.test(e.path))
        .map((e) => e.label),
    },
    truth: {
      facts: shape.facts,
      stores: [...shape.stores].sort(byName),
      wired: shape.wired,
      entries: shape.entries ?? [],
    },
  };
}
