import type { Guest, GuestPlan } from '../../model/guests';
import { folderOf, homePool } from '../folder';
import { placeOnSockets } from '../sockets';
import type { Pot } from '../pot';
import { xmlText, type Xml } from '../../formats/writer/xml';

const KIB = 1024;
const kibibytes = (bytes: number): string => String(Math.ceil(bytes / KIB));
const LETTERS = 'abcdefghijklmnopqrstuvwx';

/** The file of a disk. */
export const diskFile = (plan: GuestPlan, g: Guest, i: number): string => {
  const pool = plan.pools.find((p) => p.id === g.disks[i]?.poolId);
  return `${folderOf(pool)}/${g.name}-${i}.${isThin(plan, g, i) ? 'qcow2' : 'raw'}`;
};
/** The file of a guest's first-boot seed. */
export const seedFile = (plan: GuestPlan, g: Guest): string =>
  `${folderOf(homePool(plan, g))}/${g.name}-seed.iso`;
const isThin = (plan: GuestPlan, g: Guest, i: number): boolean => {
  const d = g.disks[i];
  return d?.thin === true && plan.pools.find((p) => p.id === d.poolId)?.thin === true;
};

function disk(plan: GuestPlan, g: Guest, i: number): Xml {
  const thin = isThin(plan, g, i);
  return {
    name: 'disk',
    of: { type: 'file', device: 'disk' },
    in: [
      // What a guest deletes is given back to the pool.
      {
        name: 'driver',
        of: { name: 'qemu', type: thin ? 'qcow2' : 'raw', ...(thin ? { discard: 'unmap' } : {}) },
      },
      { name: 'source', of: { file: diskFile(plan, g, i) } },
      { name: 'target', of: { dev: `vd${LETTERS[i] ?? 'z'}`, bus: 'virtio' } },
    ],
  };
}

const disc = (file: string, target: string): Xml => ({
  name: 'disk',
  of: { type: 'file', device: 'cdrom' },
  in: [
    { name: 'driver', of: { name: 'qemu', type: 'raw' } },
    { name: 'source', of: { file } },
    { name: 'target', of: { dev: target, bus: 'sata' } },
    { name: 'readonly' },
  ],
});

function card(plan: GuestPlan, nic: Guest['nics'][number]): Xml | undefined {
  const net = plan.nets.find((n) => n.id === nic.netId);
  if (!net) return undefined;
  const bridged = net.mode === 'bridge';
  return {
    name: 'interface',
    of: { type: bridged ? 'bridge' : 'network' },
    in: [
      nic.hardware === null ? undefined : { name: 'mac', of: { address: nic.hardware } },
      { name: 'source', of: bridged ? { bridge: net.bridge } : { network: net.name } },
      { name: 'model', of: { type: 'virtio' } },
    ],
  };
}

function handed(plan: GuestPlan, id: string): Xml | undefined {
  const device = plan.devices.find((d) => d.id === id);
  const [domain = '0', bus = '0', rest = '0.0'] = device?.address.split(':') ?? [];
  const [slot = '0', fn = '0'] = rest.split('.');
  if (!device) return undefined;
  const of = { domain: `0x${domain}`, bus: `0x${bus}`, slot: `0x${slot}`, function: `0x${fn}` };
  return {
    name: 'hostdev',
    of: { mode: 'subsystem', type: 'pci', managed: 'yes' },
    in: [{ name: 'source', in: [{ name: 'address', of }] }],
  };
}

const firmware = (g: Guest): Xml => ({
  name: 'os',
  of: g.firmware === 'bios' ? {} : { firmware: 'efi' },
  in: [
    { name: 'type', of: { arch: 'x86_64', machine: 'q35' }, in: 'hvm' },
    g.firmware === 'bios'
      ? undefined
      : {
          name: 'firmware',
          in: [
            {
              name: 'feature',
              of: { enabled: g.firmware === 'secure' ? 'yes' : 'no', name: 'enrolled-keys' },
            },
            { name: 'feature', of: { enabled: g.firmware === 'secure' ? 'yes' : 'no', name: 'secure-boot' } },
          ],
        },
    // The drive first: what was installed starts, and an empty one falls through to the installer.
    { name: 'boot', of: { dev: 'hd' } },
    { name: 'boot', of: { dev: 'cdrom' } },
  ],
});

/**
 * One guest as libvirt takes it (“Domain XML format”). `image`: the file of its installer; null where it has none. A guest with
 * a socket of its own has its memory there.
 */
export function domainXml(plan: GuestPlan, pot: Pot, g: Guest, image: string | null = null): string {
  const node = pot.sockets > 1 ? placeOnSockets(plan, pot).at.get(g.id) : undefined;
  const floor = g.devices.length > 0 ? null : g.floorBytes;
  const devices: (Xml | undefined)[] = [
    ...g.disks.map((_, i) => disk(plan, g, i)),
    image === null ? undefined : disc(image, 'sda'),
    g.seed ? disc(seedFile(plan, g), 'sdb') : undefined,
    ...g.nics.map((n) => card(plan, n)),
    ...g.devices.map((d) => handed(plan, d)),
    { name: 'serial', of: { type: 'pty' }, in: [{ name: 'target', of: { port: 0 } }] },
    { name: 'console', of: { type: 'pty' }, in: [{ name: 'target', of: { type: 'serial', port: 0 } }] },
    g.screen === 'window'
      ? // Its screen is reached from the host alone, or through a shell to it.
        { name: 'graphics', of: { type: 'vnc', port: -1, autoport: 'yes', listen: '127.0.0.1' } }
      : undefined,
    g.screen === 'window' ? { name: 'video', in: [{ name: 'model', of: { type: 'virtio' } }] } : undefined,
    floor === null
      ? { name: 'memballoon', of: { model: 'none' } }
      : { name: 'memballoon', of: { model: 'virtio', autodeflate: 'on' } },
    {
      name: 'rng',
      of: { model: 'virtio' },
      in: [{ name: 'backend', of: { model: 'random' }, in: '/dev/urandom' }],
    },
  ];
  return xmlText({
    name: 'domain',
    of: { type: 'kvm' },
    in: [
      { name: 'name', in: g.name },
      g.purpose === '' ? undefined : { name: 'title', in: g.purpose.replace(/\n/g, ' ') },
      { name: 'memory', of: { unit: 'KiB' }, in: kibibytes(g.memoryBytes) },
      { name: 'currentMemory', of: { unit: 'KiB' }, in: kibibytes(g.memoryBytes) },
      { name: 'vcpu', of: { placement: 'static' }, in: String(g.cores) },
      { name: 'cputune', in: [{ name: 'shares', in: String(g.weight * 204) }] },
      node === undefined
        ? undefined
        : { name: 'numatune', in: [{ name: 'memory', of: { mode: 'strict', nodeset: node } }] },
      firmware(g),
      {
        name: 'features',
        in: [
          { name: 'acpi' },
          { name: 'apic' },
          g.firmware === 'secure' ? { name: 'smm', of: { state: 'on' } } : undefined,
        ],
      },
      {
        name: 'cpu',
        of: { mode: g.nested ? 'host-passthrough' : 'host-model', ...(g.nested ? { check: 'none' } : {}) },
      },
      { name: 'clock', of: { offset: 'utc' } },
      { name: 'on_poweroff', in: 'destroy' },
      { name: 'on_reboot', in: 'restart' },
      { name: 'on_crash', in: 'destroy' },
      { name: 'devices', in: devices },
    ],
  });
}
