import { owning, plainAdapter } from '../model/blank';
import type { Adapter, Machine, Memory, ShelfItem } from '../model/shelf';
import { GIB } from '../units/bytes';
import { machine, store } from './make';

const memory = (
  id: string,
  name: string,
  gib: number,
  type: string,
  form: Memory['form'],
  more: Partial<Memory> = {},
): Memory => ({
  kind: 'memory',
  id,
  name,
  bytes: gib * GIB,
  type,
  form,
  checked: null,
  in: null,
  notes: '',
  ...owning,
  ...more,
});
const adapter = (
  id: string,
  name: string,
  from: string,
  to: string,
  more: Partial<Adapter> = {},
): Adapter => ({
  kind: 'adapter',
  id,
  name,
  from,
  to,
  notes: '',
  ...plainAdapter,
  ...more,
});
const priced = (price: number): { owned: false; price: number } => ({ owned: false, price });

/** A machine of the price list, to hold the shelf’s own against. */
const usedDesktop: Machine = machine(
  'buy-desktop',
  'Used small desktop',
  'office desktop',
  'What a reseller in town asks for one, checked and cleaned.',
  {},
  {
    'cpu.arch': 'x86_64',
    'cpu.bits': '64',
    'cpu.level': 'v3',
    'cpu.cores': 6,
    'cpu.mhz': 3300,
    'cpu.year': 2019,
    'cpu.aes': true,
    'memory.bytes': 8 * GIB,
    'firmware.mode': 'uefi',
    'graphics.family': 'in-kernel',
    'cpu.virtualisation': true,
    'network.wired': 1,
    'network.wireless': 0,
    'ports.drives': 2,
    'ports.sata': 1,
    'ports.m2': ['M 2280 nvme x4'],
    'ports.usb': 6,
    'memory.type': 'DDR4',
    'memory.form': 'SO-DIMM',
    'memory.free': 1,
    'memory.max': 32 * GIB,
    'power.idle': 9,
    'power.load': 45,
    'body.noise': 'quiet',
  },
  null,
  priced(95),
);

/** Loose parts, and what the shops in town ask for more of them. All of it is made up. */
export const demoParts: ShelfItem[] = [
  memory('mem-16', '16 GB module', 16, 'DDR4', 'DIMM', { notes: 'From a scrapped desktop.' }),
  memory('mem-4', '4 GB module', 4, 'DDR3', 'SO-DIMM'),
  adapter('dock', 'USB-C dock', 'USB-C', '3 × USB-A, wired network, power in', {
    notes: 'Takes the charger through.',
  }),
  adapter('lan-usb', 'USB network adapter', 'USB-A', 'wired network 1 Gb/s', {
    goesIn: 'USB port',
    wiredPorts: 1,
  }),
  adapter('sata-2', 'Two-port SATA card', 'expansion slot', '2 × SATA', {
    goesIn: 'expansion slot',
    sataPorts: 2,
    notes: 'Put aside for the archive.',
  }),
  memory('buy-ddr4', '16 GB module, new', 16, 'DDR4', 'DIMM', priced(32)),
  memory('buy-ddr3', '4 GB module, used', 4, 'DDR3', 'DIMM', priced(9)),
  store('drive', 'buy-ssd', '240 GB SSD, new', 240_057_409_536, null, {
    model: '240 GB SSD',
    shape: '2.5 inch',
    ...priced(18),
  }),
  store('card', 'buy-card', '32 GB card, new', 31_914_983_424, null, { model: '32 GB card', ...priced(7) }),
  adapter('buy-nic', 'Two-port network card', 'expansion slot', '2 × wired network 1 Gb/s', {
    goesIn: 'expansion slot',
    wiredPorts: 2,
    ...priced(14),
  }),
  adapter('buy-lan', 'USB network adapter, new', 'USB-A', 'wired network 1 Gb/s', {
    goesIn: 'USB port',
    wiredPorts: 1,
    ...priced(11),
  }),
  adapter('buy-sata', 'Four-port SATA card', 'expansion slot', '4 × SATA', {
    goesIn: 'expansion slot',
    sataPorts: 4,
    ...priced(22),
  }),
  usedDesktop,
];
