import { blankProfile, blankRelease } from '../system/draft';
import { plainMachine, plainStore } from '../model/blank';
import { emptyContent, type Content } from '../model/content';
import type { FirmwareKind } from '../model/inspection';
import type { Release, Variant } from '../model/profile';
import type { Machine, Profile, Store } from '../model/bench';
import type { FactKey, Facts, FactValue } from '../model/facts';
import { LEVEL_FLAGS } from '../machine/cpuLevel';

/** Small makers that keep the demo bench readable. Everything they are given is made up. */
export const DAY0 = '2026-03-02T18:30:00.000Z';

/** A moment of the demo's weeks: days and minutes after its first evening. */
export const moment = (days: number, minutes = 0): string =>
  new Date(Date.parse(DAY0) + (days * 24 * 60 + minutes) * 60_000).toISOString();

const SOURCE: Partial<Record<FactKey, (v: FactValue) => string>> = {
  'cpu.arch': (v) => `lscpu, Architecture: ${String(v)}`,
  'cpu.level': (v) => `lscpu, Flags: ${LEVEL_FLAGS[v as 'v1'].join(' ')}`,
  'cpu.cores': (v) => `lscpu, Core(s) per socket: ${String(v)} × Socket(s): 1`,
  'cpu.threads': (v) => `lscpu, CPU(s): ${String(v)}`,
  'memory.bytes': (v) => `meminfo, MemTotal: ${Number(v) / 1024} kB`,
  'firmware.mode': (v) => `firmware, mode=${String(v)}`,
  'firmware.bits': (v) => `firmware, bits=${String(v)}`,
  'firmware.secureBoot': (v) =>
    v === 'absent' ? 'firmware, mode=bios' : `firmware, secureboot=${v === 'on' ? 1 : 0}`,
  'cpu.bits': (v) => `lscpu, Flags: ${v === '64' ? 'lm present' : 'no lm'}`,
  'cpu.virtualisation': (v) => `lscpu, Flags: ${v === true ? 'vmx' : 'neither vmx nor svm'}`,
  'graphics.family': (v) => (v === 'none' ? 'graphics, no card' : 'graphics, intree Y'),
  'network.wired': (v) =>
    `network, ${Array.from({ length: Number(v) }, (_, i) => `eth${i}`).join(' ') || 'no wired device'}`,
  'network.wireless': (v) => (Number(v) > 0 ? 'network, wlan0' : 'network, no wireless device'),
  'power.battery': (v) => (v === true ? 'power, type=Battery' : 'power, no battery listed'),
  'graphics.driver': (v) => `graphics, driver ${String(v)}`,
  'cpu.mhz': (v) => `lscpu, CPU max MHz: ${String(v)}`,
  'cpu.aes': (v) => `lscpu, Flags: ${v === true ? 'aes' : 'no aes'}`,
  'memory.type': (v) => `dmi, Type: ${String(v)}`,
  'memory.form': (v) => `dmi, Form Factor: ${String(v)}`,
  'memory.slots': (v) => `dmi, Memory Device × ${String(v)}`,
  'memory.free': (v) => `dmi, ${String(v)} without a module`,
  'memory.max': (v) => `dmi, Maximum Capacity: ${Number(v) / 1024 ** 3} GB`,
  'firmware.date': (v) => `firmware, date=${String(v)}`,
  'network.speed': (v) => `network, speed ${String(v)} on eth0`,
  'display.native': () => 'displays, EDID first detailed timing',
  'display.size': () => 'displays, EDID image size',
  'display.audio': (v) => `displays, EDID ${v === true ? 'audio in the CTA-861 block' : 'no audio block'}`,
  'power.wear': (v) => `power, BAT0: ${String(v)} % of its design`,
};

/** A made-up address of a card: the bit that says so is set (IEEE 802). */
export function demoCard(of: string, port: number): string {
  const sum = [...of].reduce((n, c) => (Math.imul(n, 33) + c.charCodeAt(0)) >>> 0, 5381 + port);
  const pairs = [24, 16, 8, 0].map((shift) => ((sum >>> shift) & 0xff).toString(16).padStart(2, '0'));
  return ['02', '5a', ...pairs].join(':');
}

/** A made-up machine for the demo bench, with facts a survey told and facts entered by hand. */
export function machine(
  id: string,
  name: string,
  form: Machine['form'],
  notes: string,
  surveyed: Partial<Record<FactKey, FactValue>>,
  entered: Partial<Record<FactKey, FactValue>>,
  day: number | null,
  more: Partial<Machine> = {},
  missing: string[] = [],
): Machine {
  const facts: Facts = {};
  const at = moment(day ?? 0);
  for (const [key, value] of Object.entries(surveyed) as [FactKey, FactValue][]) {
    const source =
      key === 'cpu.bits' && !/^(x86_64|i686)$/.test(String(surveyed['cpu.arch']))
        ? `architecture ${String(surveyed['cpu.arch'])}`
        : (SOURCE[key]?.(value) ?? `report, ${key}`);
    facts[key] = { surveyed: { value, source, at } };
  }
  for (const [key, value] of Object.entries(entered) as [FactKey, FactValue][])
    facts[key] = { ...facts[key], entered: { value, at } };
  const wired = Number(surveyed['network.wired'] ?? 0);
  const networkPorts = Array.from({ length: wired }, (_, i) => ({
    name: `eth${i}`,
    kind: 'wired' as const,
    driver: null,
    speedMbps: Number(surveyed['network.speed'] ?? entered['network.speed'] ?? 1000),
    family: null,
    hardware: demoCard(id, i),
  }));
  return {
    kind: 'machine',
    id,
    name,
    form,
    notes,
    facts,
    surveyedAt: day === null ? null : at,
    missing,
    networkPorts,
    ...plainMachine,
    ...more,
  };
}

/** A made-up drive, stick or card for the demo bench; bytes. */
export function store(
  kind: Store['kind'],
  id: string,
  name: string,
  bytes: number,
  serial: string | null,
  more: Partial<Store>,
): Store {
  const removable = kind !== 'drive';
  const transport = kind === 'stick' ? 'usb' : kind === 'card' ? 'mmc' : 'sata';
  return {
    kind,
    id,
    name,
    bytes,
    serial,
    model: null,
    label: '',
    transport,
    rotational: false,
    removable,
    in: null,
    holds: '',
    realBytes: null,
    notes: '',
    ...plainStore,
    content: emptyContent('hand', DAY0),
    fate: 'may be lost',
    ...more,
  };
}

/** A drive of one part that keeps data, and nothing that starts. */
export const dataOn = (filesystem: string, label: string, bytes: number): Content => ({
  table: 'gpt',
  parts: [
    {
      start: 1_048_576,
      bytes: bytes - 2 * 1_048_576,
      type: '',
      name: '',
      filesystem,
      label,
      uuid: null,
      partitionId: null,
      attributes: null,
      mount: null,
    },
  ],
  starts: [],
  tableId: null,
  sectorSize: null,
  learnt: { from: 'survey', at: DAY0, imageId: null },
});

/** A drive with a system that starts by this firmware. */
export const systemOn = (
  firmware: FirmwareKind,
  title: string,
  filesystem: string,
  label: string,
  bytes: number,
): Content => {
  const data = dataOn(filesystem, label, bytes);
  const by = firmware === 'bios' ? ('boot code' as const) : ('boot entry' as const);
  return { ...data, starts: [{ by, firmware, path: firmware === 'bios' ? '' : '/EFI/system.efi', title }] };
};

export const OPEN: Variant = { id: 'standard', name: 'standard', drivers: ['in-kernel'] };
export const ANY: Variant = { id: 'standard', name: 'standard', drivers: ['in-kernel', 'out-of-tree'] };

/** A made-up release: long support for x86_64, no limits, unless `more` says otherwise. */
export const release = (version: string, more: Partial<Release> = {}): Release => ({
  ...blankRelease(`r${version.replace(/\W/g, '-')}`),
  version,
  ...more,
});

/** A made-up system of modest needs, unless `needs` and `more` say otherwise. */
export function profile(
  id: string,
  name: string,
  purpose: Profile['purpose'],
  about: string,
  releases: Release[],
  needs: Partial<Profile['needs']>,
  more: Partial<Omit<Profile, 'prefers' | 'manner' | 'first'>> & {
    first?: Partial<Profile['first']>;
    prefers?: Partial<Profile['prefers']>;
    manner?: Partial<Profile['manner']>;
  } = {},
): Profile {
  const blank = blankProfile(id);
  return {
    ...blank,
    name,
    purpose,
    about,
    releases,
    growsAtFirstStart: more.installer === 'written straight to the final drive',
    ...more,
    needs: { ...blank.needs, ...needs },
    prefers: { ...blank.prefers, ...more.prefers },
    manner: { ...blank.manner, ...more.manner },
    first: { ...blank.first, ...more.first },
  };
}
