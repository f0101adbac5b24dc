import type { FactKey, FactValue, Facts } from '../model/facts';
import { GIB } from '../units/bytes';
import type { Machine } from '../model/shelf';

type Usual = Partial<Record<FactKey, FactValue>>;
const PC: Usual = {
  'cpu.arch': 'x86_64',
  'cpu.bits': '64',
  'network.wireless': 0,
  'graphics.family': 'in-kernel',
  'firmware.mode': 'uefi',
  'cpu.virtualisation': true,
};

/** What machines of a kind usually have. Common practice, no source: a beginning for a machine that does not start yet. */
const USUAL: Record<Machine['form'], Usual> = {
  handheld: {
    ...PC,
    'cpu.level': 'v3',
    'cpu.cores': 8,
    'memory.bytes': 16 * GIB,
    'memory.form': 'soldered',
    'network.wired': 0,
    'network.wireless': 1,
    'ports.drives': 1,
    'ports.usb': 1,
    'display.portrait': true,
    'power.battery': true,
    'body.fan': true,
  },
  'mini PC': {
    ...PC,
    'cpu.level': 'v3',
    'cpu.cores': 4,
    'memory.bytes': 8 * GIB,
    'memory.form': 'SO-DIMM',
    'network.wired': 1,
    'network.wireless': 1,
    'ports.drives': 1,
    'ports.usb': 4,
    'power.battery': false,
  },
  tower: {
    ...PC,
    'cpu.level': 'v2',
    'cpu.cores': 4,
    'memory.bytes': 8 * GIB,
    'memory.form': 'DIMM',
    'network.wired': 1,
    'ports.drives': 4,
    'ports.sata': 4,
    'ports.usb': 6,
    'ports.pcie': 2,
    'power.battery': false,
    'body.fan': true,
  },
  'office desktop': {
    ...PC,
    'cpu.level': 'v3',
    'cpu.cores': 4,
    'memory.bytes': 8 * GIB,
    'memory.form': 'DIMM',
    'network.wired': 1,
    'ports.drives': 2,
    'ports.usb': 6,
    'ports.pcie': 1,
    'power.battery': false,
    'body.fan': true,
  },
  laptop: {
    ...PC,
    'cpu.level': 'v2',
    'cpu.cores': 2,
    'memory.bytes': 4 * GIB,
    'memory.form': 'SO-DIMM',
    'network.wired': 1,
    'network.wireless': 1,
    'ports.drives': 1,
    'ports.usb': 3,
    'power.battery': true,
    'body.fan': true,
  },
  board: {
    'cpu.arch': 'aarch64',
    'cpu.bits': '64',
    'cpu.cores': 4,
    'memory.bytes': 2 * GIB,
    'memory.form': 'soldered',
    'firmware.mode': 'board',
    'graphics.family': 'in-kernel',
    'network.wired': 1,
    'network.wireless': 1,
    'ports.drives': 0,
    'ports.usb': 4,
    'power.battery': false,
    'body.fan': false,
  },
  'rack server': {
    ...PC,
    'cpu.level': 'v3',
    'cpu.cores': 8,
    'memory.bytes': 32 * GIB,
    'memory.form': 'DIMM',
    'graphics.family': 'none',
    'network.wired': 2,
    'ports.drives': 6,
    'ports.usb': 4,
    'ports.pcie': 2,
    'power.battery': false,
    'body.fan': true,
    'body.noise': 'loud',
  },
  'old desktop': {
    'cpu.arch': 'i686',
    'cpu.bits': '32',
    'cpu.cores': 1,
    'memory.bytes': 1 * GIB,
    'memory.type': 'DDR',
    'memory.form': 'DIMM',
    'firmware.mode': 'bios',
    'firmware.secureBoot': 'absent',
    'graphics.family': 'in-kernel',
    'network.wired': 1,
    'network.wireless': 0,
    'ports.drives': 2,
    'ports.usb': 2,
    'power.battery': false,
    'body.fan': true,
  },
};

/** The facts of a machine with what its kind usually has put under what is known; what was assumed before goes. */
export function withUsual(facts: Facts, form: Machine['form']): Facts {
  const out: Facts = withoutAssumed(facts);
  for (const [key, value] of Object.entries(USUAL[form]) as [FactKey, FactValue][])
    out[key] = { ...out[key], assumed: { value, because: `usual for a machine of the kind “${form}”` } };
  return out;
}

/** The facts without anything assumed. */
export function withoutAssumed(facts: Facts): Facts {
  const out: Facts = {};
  for (const [key, record] of Object.entries(facts) as [FactKey, NonNullable<Facts[FactKey]>][]) {
    const { assumed: _gone, ...rest } = record;
    if (Object.keys(rest).length > 0) out[key] = rest;
  }
  return out;
}
