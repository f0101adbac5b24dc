import { profile, release } from '@zb/core/demo/make';
import type { ImageIdentity } from '@zb/core/model/imageIdentity';
import type { Profile, Release } from '@zb/core/model/profile';
import type { MachineView } from '@zb/core/system/view';

/* A machine that most systems fit, and a system that asks little: tests say what is different. Made up. */

export const GIB = 1024 ** 3;

/** A free drive of so many bytes. */
export const drive = (bytes: number, more = {}): MachineView['drives'][number] => ({
  name: 'd',
  bytes,
  transport: 'sata',
  removable: false,
  fate: 'may be lost' as const,
  ...more,
});
/** The machine, with other facts. */
export const machine = (facts: MachineView['facts'] = {}, more: Partial<MachineView> = {}): MachineView => ({
  name: 'M',
  facts: {
    'cpu.arch': 'x86_64',
    'cpu.bits': '64',
    'cpu.level': 'v3',
    'cpu.cores': 4,
    'memory.bytes': 7.7 * GIB,
    'firmware.mode': 'uefi',
    'firmware.secureBoot': 'off',
    'graphics.family': 'in-kernel',
    'network.wired': 1,
    'ports.drives': 3,
    'ports.sata': 3,
    'ports.m2': [],
    'memory.free': 1,
    'memory.type': 'DDR4',
    'memory.form': 'DIMM',
    'cpu.virtualisation': true,
    ...facts,
  },
  drives: [drive(120e9)],
  parts: [],
  ...more,
});

/** What a system may ask beyond the usual. */
export type Asked = Partial<Profile['needs']> &
  Partial<Pick<Release, 'archs' | 'cpuLevel' | 'oldestYear' | 'newestYear'>>;
/** The system, asking for more. */
export const wants = (asked: Asked = {}, more: Partial<Profile> = {}): Profile => {
  const { archs, cpuLevel, oldestYear, newestYear, ...needs } = asked;
  const limits = JSON.parse(JSON.stringify({ archs, cpuLevel, oldestYear, newestYear })) as Partial<Release>;
  return profile('p', 'P', 'games', '', [release('1', limits)], needs, more);
};

/** An image that says nothing of itself. */
export const silent: ImageIdentity = {
  name: null,
  version: null,
  variant: null,
  archs: [],
  kernels: [],
  cpuLevel: null,
  fromItsFile: null,
  reaches: 0,
};
