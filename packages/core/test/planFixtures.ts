/** Fourteen plans of other shapes than the demo's, each with the last state it must lead to. All of it is made up. */
import { machine, store } from '@zb/core/demo/make';
import { demoProfiles } from '@zb/core/demo/profiles';
import { besideOf } from '@zb/core/layout/beside';
import {
  emptyBench,
  type Bench,
  type Box,
  type Machine,
  type Profile,
  type Store,
} from '@zb/core/model/bench';
import type { Content } from '@zb/core/model/content';
import type { FactKey, FactValue } from '@zb/core/model/facts';
import { noBoxLayout } from '@zb/core/model/layout';
import { plainAdapter } from '@zb/core/model/blank';
import { emptyStopRecords } from '@zb/core/model/stopRecords';
import type { ShelfItem } from '@zb/core/model/shelf';
import { noPool } from '@zb/core/model/storage';

/** A medium at the end of a plan: where it is, whose system or pool it holds, whether it may be erased. */
export interface MediumEnd {
  in: 'machine' | null;
  holds: 'the system' | 'the pool' | 'the image' | 'as it was';
  fate: Store['fate'];
}

/** A plan to be followed to its end, and what is so then. */
export interface PlanFixture {
  name: string;
  bench: Bench;
  box: Box;
  end: Record<string, MediumEnd>;
  /** What stands first in the boot order; null: nobody has changed it. */
  bootFirst: string | null;
  /** What is lacking, by code; empty where it reaches its end. */
  lacks: string[];
}

const GIB = 1024 ** 3;
const at = '2026-05-01T09:00:00.000Z';
const surveyed: Partial<Record<FactKey, FactValue>> = {
  'cpu.arch': 'x86_64',
  'cpu.level': 'v3',
  'cpu.bits': '64',
  'cpu.cores': 4,
  'memory.bytes': 8 * GIB,
  'firmware.mode': 'uefi',
  'firmware.bits': '64',
  'firmware.secureBoot': 'off',
  'graphics.family': 'in-kernel',
  'network.wired': 1,
};
const entered: Partial<Record<FactKey, FactValue>> = {
  'firmware.setupKey': 'F2',
  'firmware.menuKey': 'F12',
  'firmware.order': ['internal', 'usb'],
  'ports.usb': 4,
  'ports.sata': 2,
  'ports.drives': 2,
  'ports.m2': [],
};
const desk = (facts: Partial<Record<FactKey, FactValue>> = {}): Machine =>
  machine('desk', 'Desk', 'office desktop', '', surveyed, { ...entered, ...facts }, 0);

const base = demoProfiles.find((p) => p.id === 'curtain-player');
if (!base) throw new Error('the demo has a system for film');
const system = (to: Partial<Profile> = {}): Profile => ({
  ...base,
  id: 'sys',
  name: 'Small System',
  drivers: [],
  ...to,
});
const straight = system({ installer: 'written straight to the final drive' });

const drive = (id: string, to: Partial<Store> = {}): Store =>
  store('drive', id, `Drive ${id}`, 240e9, `SN-2026-${id}`, { attachment: 'internal', ...to });
const stick = (id = 'stick', to: Partial<Store> = {}): Store =>
  store('stick', id, `Stick ${id}`, 32e9, `SN-2026-${id}`, { attachment: 'external', ...to });
/** A system that firmware boots from the path it falls back to. */
const old = (title: string): Content => ({
  table: 'gpt',
  tableId: null,
  sectorSize: 512,
  parts: [
    {
      start: 1024 ** 2,
      bytes: 512 * 1024 ** 2,
      type: 'c12a7328-f81f-11d2-ba4b-00a0c93ec93b',
      name: 'EFI',
      filesystem: 'vfat',
      label: 'EFI',
      uuid: null,
      partitionId: null,
      attributes: null,
      mount: null,
    },
    {
      start: 513 * 1024 ** 2,
      bytes: 200e9 - (200e9 % 1024 ** 2),
      type: '0fc63daf-8483-4772-8e79-3d69d8477de4',
      name: 'root',
      filesystem: 'ext4',
      label: 'root',
      uuid: null,
      partitionId: null,
      attributes: null,
      mount: null,
    },
  ],
  starts: [{ by: 'loader', firmware: 'uefi-x64', path: '/EFI/BOOT/BOOTX64.EFI', title }],
  learnt: { from: 'survey', at, imageId: null },
});

interface Made {
  items: ShelfItem[];
  profile?: Profile;
  box?: Partial<Box>;
}
function made({ items, profile = system(), box = {} }: Made): { bench: Bench; box: Box } {
  const whole: Box = {
    id: 'build',
    name: 'Build',
    purpose: profile.purpose,
    ...emptyStopRecords(),
    machineId: 'desk',
    profileId: profile.id,
    targetSerial: 'SN-2026-stick',
    run: null,
    decisions: [],
    signoffs: [],
    createdAt: at,
    ...box,
  };
  return { bench: { ...emptyBench('Fixtures'), items, profiles: [profile], boxes: [whole] }, box: whole };
}
const onto = (driveId: string): Partial<Box> => ({ layout: { ...noBoxLayout(), driveId } });
const systemOn: MediumEnd = { in: 'machine', holds: 'the system', fate: 'keep' };
const kept: MediumEnd = { in: 'machine', holds: 'as it was', fate: 'keep' };
const installerStick: MediumEnd = { in: null, holds: 'the image', fate: 'may be lost' };
const fixture = (
  name: string,
  is: Made,
  end: PlanFixture['end'],
  more: Partial<Pick<PlanFixture, 'bootFirst' | 'lacks'>> = {},
): PlanFixture => ({ name, ...made(is), end, bootFirst: null, lacks: [], ...more });

const beside = drive('a', { in: 'desk', fate: 'keep', content: old('Old System') });
const bridge: ShelfItem = {
  kind: 'adapter',
  id: 'bridge',
  name: 'Bridge',
  from: 'SATA',
  to: 'USB',
  notes: '',
  ...plainAdapter,
};
const twoFirst = system({ manner: { ...base.manner, entry: 'fallback path only' } });

export const planFixtures: readonly PlanFixture[] = [
  fixture(
    'wipe the only drive',
    { items: [desk(), drive('a', { in: 'desk' }), stick()], box: onto('a') },
    { a: systemOn, stick: installerStick },
  ),
  fixture(
    'beside what stays',
    {
      items: [desk(), beside, stick()],
      profile: system({ manner: { ...base.manner, beside: true } }),
      box: { layout: { ...noBoxLayout(), driveId: 'a', kept: besideOf(beside) } },
    },
    { a: systemOn, stick: installerStick },
  ),
  fixture(
    'a kept drive out meanwhile',
    {
      items: [desk(), drive('a', { in: 'desk' }), drive('b', { in: 'desk', fate: 'keep' }), stick()],
      box: { ...onto('a'), precautions: ['unplug:b'] },
    },
    { a: systemOn, b: kept, stick: installerStick },
  ),
  fixture(
    'a new drive in the only port',
    {
      items: [
        desk({ 'ports.sata': 1, 'ports.drives': 1 }),
        drive('a', { in: 'desk', fate: 'keep' }),
        drive('n'),
        stick(),
      ],
      box: onto('n'),
    },
    { a: { ...kept, in: null }, n: systemOn, stick: installerStick },
  ),
  fixture(
    'written in an adapter',
    {
      items: [desk(), drive('a', { in: 'desk' }), bridge],
      profile: straight,
      box: { targetSerial: 'SN-2026-a' },
    },
    { a: systemOn },
  ),
  fixture(
    'written in place by the system that runs now, and put first',
    {
      items: [
        desk(),
        drive('old', { in: 'desk', fate: 'keep', content: old('Old System') }),
        drive('zz', { in: 'desk' }),
      ],
      profile: straight,
      box: {
        targetSerial: 'SN-2026-zz',
        precautions: ['target first'],
        decisions: [{ id: 'write-way', stop: 'write', what: '', value: 'running system', because: '', at }],
      },
    },
    { old: kept, zz: systemOn },
    { bootFirst: 'zz' },
  ),
  fixture(
    'written straight to a stick it runs from',
    { items: [desk({ 'ports.drives': 2 }), stick()], profile: straight },
    { stick: systemOn },
  ),
  fixture(
    'by a stick onto the drive inside',
    {
      items: [desk(), drive('a', { in: 'desk' }), stick()],
      profile: straight,
      box: {
        decisions: [{ id: 'write-way', stop: 'write', what: '', value: 'installer stick', because: '', at }],
      },
    },
    { a: systemOn, stick: installerStick },
  ),
  fixture(
    'a card in a board',
    {
      items: [
        machine(
          'desk',
          'Board',
          'board',
          '',
          { ...surveyed, 'cpu.arch': 'aarch64', 'firmware.mode': 'board' },
          { 'ports.drives': 0, 'ports.usb': 2 },
          0,
        ),
        store('card', 'card', 'Card', 64e9, 'SN-2026-card', { attachment: 'card slot' }),
      ],
      profile: {
        ...straight,
        needs: { ...straight.needs, firmware: ['board'] },
        releases: straight.releases.map((r) => ({ ...r, archs: ['aarch64' as const], cpuLevel: null })),
      },
      box: { targetSerial: 'SN-2026-card' },
    },
    { card: systemOn },
  ),
  fixture(
    'an external drive',
    {
      items: [
        desk(),
        drive('x', { transport: 'usb', attachment: 'external' }),
        drive('a', { in: 'desk', fate: 'keep' }),
        stick(),
      ],
      box: onto('x'),
    },
    { x: systemOn, a: kept, stick: installerStick },
  ),
  fixture(
    'a chain loader',
    {
      items: [
        desk({ 'firmware.startsNvme': false, 'ports.m2': ['M 2280 nvme x4'] }),
        drive('a', { in: 'desk', transport: 'nvme', shape: 'M.2' }),
        stick(),
        stick('chain'),
      ],
      box: { ...onto('a'), chain: { stickId: 'chain', seconds: 5 } },
    },
    { a: systemOn, chain: { in: 'machine', holds: 'as it was', fate: 'keep' }, stick: installerStick },
    { bootFirst: 'chain' },
  ),
  fixture(
    'beside another system, put first',
    {
      items: [
        desk(),
        drive('old', { in: 'desk', fate: 'keep', content: old('Old System') }),
        drive('zz', { in: 'desk' }),
        stick(),
      ],
      profile: twoFirst,
      box: { ...onto('zz'), precautions: ['target first'] },
    },
    { old: kept, zz: systemOn, stick: installerStick },
    { bootFirst: 'zz' },
  ),
  fixture(
    'another system boots, and nobody has said otherwise',
    {
      items: [
        desk(),
        drive('old', { in: 'desk', fate: 'keep', content: old('Old System') }),
        drive('zz', { in: 'desk' }),
        stick(),
      ],
      profile: twoFirst,
      box: onto('zz'),
    },
    { old: kept, zz: systemOn, stick: installerStick },
    { lacks: ['another boots'] },
  ),
  fixture(
    'a system, and a pool of two drives',
    {
      items: [
        desk({ 'ports.sata': 3, 'ports.drives': 3 }),
        drive('a', { in: 'desk' }),
        drive('p', { in: 'desk' }),
        drive('q', { in: 'desk' }),
        stick(),
      ],
      box: {
        ...onto('a'),
        pool: {
          ...noPool(),
          drives: ['p', 'q'],
          way: { manner: 'groups', shape: 'copies', level: 2, spare: false },
        },
      },
    },
    {
      a: systemOn,
      p: { in: 'machine', holds: 'the pool', fate: 'keep' },
      q: { in: 'machine', holds: 'the pool', fate: 'keep' },
      stick: installerStick,
    },
  ),
];
