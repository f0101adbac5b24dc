/**
 * What is written for a host of guests, taken by the tools it is for: domain and network XML by libvirt's own schemas
 * (virt-xml-validate), seeds by readers of optical volumes (isoinfo, bsdtar, xorriso) and by a schema of the published format
 * (cloud-init, “NoCloud”, “Module reference”, “network config version 2”; from memory).
 */
import { writeFileSync } from 'node:fs';
import { parse } from 'yaml';
import { z } from 'zod';
import { bookingGuests } from '@zb/core/demo/guests';
import { potOf } from '@zb/core/guests/pot';
import { domainXml } from '@zb/core/guests/write/domain';
import { networkXml } from '@zb/core/guests/write/network';
import { seedFiles, seedIso } from '@zb/core/guests/write/seed';
import { guestPlanSchema, type Guest, type GuestPlan } from '@zb/core/model/guests';
import { GIB, MIB } from '@zb/core/units/bytes';
import { randomFrom } from '@zb/core/units/random';
import { seedOfRun } from './damage';
import { blkid, run, scratch } from './files';

jest.setTimeout(300_000);
const ALL = process.env.ZB_GUESTS === 'all';
const room = scratch();
afterAll(() => room.clear());
const dice = randomFrom(seedOfRun());
const upTo = (n: number): number => Math.floor(dice() * n);
const one = <T>(list: readonly T[]): T => list[upTo(list.length)] as T;

const KEY = 'ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIEdyZXlTYWx0bWFyc2hIYWxsTWFkZVVwS2V5MDAwMDAy';

/** Any plan: firmware, disks, cards, devices, seeds, odd words in what people may type freely. */
function planAtRandom(): GuestPlan {
  const odd = (): string =>
    one(['', 'a plain one', `<&"'>`, 'ümläut — dash', 'x'.repeat(180), ']]>', 'tab\tand\u0007bell']);
  const guests = Array.from({ length: 1 + upTo(4) }, (_, i) => ({
    id: `g${i}`,
    name: one([`g${i}`, `guest.${i}-x`, `G_${i}`]),
    purpose: odd(),
    cores: 1 + upTo(12),
    memoryBytes: 64 * MIB + upTo(32 * GIB),
    floorBytes: one([null, 32 * MIB]),
    disks: Array.from({ length: upTo(4) }, (_d, j) => ({
      id: `d${i}${j}`,
      bytes: 1 + upTo(200 * GIB),
      poolId: one(['p', 'q']),
      thin: one([true, false]),
    })),
    nics: Array.from({ length: upTo(3) }, () => ({
      netId: one(['n', 'b', 'x']),
      hardware: one([null, `02:00:5e:00:0${i}:0${upTo(10)}`]),
    })),
    screen: one(['none', 'window']),
    firmware: one(['bios', 'uefi', 'secure']),
    devices: upTo(3) === 0 ? ['d'] : [],
    nested: one([true, false]),
    weight: 1 + upTo(10),
    seed: one([
      null,
      {
        hostName: `h${i}`,
        keys: [KEY, `${KEY} somebody: "else"`],
        hash: null,
        packages: ['qemu-guest-agent'],
      },
      {
        hostName: `h-${i}`,
        user: 'warden',
        keys: [],
        hash: '$6$rounds=5000$saltsalt$0123456789abcdefghijklmnopqrstuvwxyz',
        address: one([
          { cidr: '192.0.2.7/24', gateway: '192.0.2.1', nameServers: ['192.0.2.1', '192.0.2.2'] },
          { cidr: '2001:db8::7/64', gateway: '2001:db8::1', nameServers: ['2001:db8::1'] },
        ]),
      },
    ]),
  }));
  return guestPlanSchema.parse({
    pot: { sockets: one([1, 2]), memoryBytes: 64 * GIB, threads: 16 },
    pools: [
      { id: 'p', name: 'p', bytes: 500 * GIB },
      { id: 'q', name: 'q', bytes: 500 * GIB, thin: false, path: '/srv/other/' },
    ],
    nets: [
      {
        id: 'n',
        name: 'behind',
        mode: 'behind',
        bridge: 'virbr3',
        prefix: one(['192.168.77.0/24', '10.9.0.0/16', '172.31.4.0/29']),
      },
      { id: 'b', name: 'hall', mode: 'bridge', bridge: 'br0' },
      { id: 'x', name: 'apart', mode: 'apart', bridge: 'virbr4', prefix: one([null, '10.1.2.0/24']) },
    ],
    devices: [{ id: 'd', name: 'card', address: '0000:0a:1f.7', group: 3, node: one([null, 0]) }],
    guests,
  });
}

const PLANS: GuestPlan[] = [bookingGuests(), ...Array.from({ length: ALL ? 150 : 12 }, planAtRandom)];
const potFor = (p: GuestPlan) => potOf(p, { cores: 8, threads: 16, memory: 64 * GIB });

it('every guest and network is taken by the schemas of libvirt', () => {
  for (const [i, p] of PLANS.entries()) {
    for (const g of p.guests) {
      const path = room.path(`d${i}-${g.id}.xml`);
      writeFileSync(path, domainXml(p, potFor(p), g, one([null, '/srv/guests/images/installer.iso'])));
      expect(() => run('virt-xml-validate', [path, 'domain'])).not.toThrow();
    }
    for (const n of p.nets) {
      const path = room.path(`n${i}-${n.id}.xml`);
      writeFileSync(path, networkXml(n));
      expect(() => run('virt-xml-validate', [path, 'network'])).not.toThrow();
    }
  }
});

/** What a first boot reads (cloud-init, “Module reference”: hostname, users and groups, ssh, packages). */
const userDataSchema = z.strictObject({
  hostname: z.string().max(63),
  manage_etc_hosts: z.union([z.boolean(), z.literal('localhost')]),
  users: z.array(
    z.strictObject({
      name: z.string(),
      shell: z.string(),
      groups: z.array(z.string()),
      lock_passwd: z.boolean(),
      passwd: z
        .string()
        .regex(/^\$(6|y|5|2[aby])\$/)
        .optional(),
      sudo: z.string(),
      ssh_authorized_keys: z.array(z.string()).optional(),
    }),
  ),
  ssh_pwauth: z.boolean(),
  disable_root: z.boolean(),
  package_update: z.boolean(),
  packages: z.array(z.string()).optional(),
});
const metaDataSchema = z.strictObject({ 'instance-id': z.string().min(1), 'local-hostname': z.string() });
const networkSchema = z.strictObject({
  version: z.literal(2),
  ethernets: z.record(
    z.string(),
    z.strictObject({
      match: z.union([z.strictObject({ name: z.string() }), z.strictObject({ macaddress: z.string() })]),
      dhcp4: z.boolean(),
      dhcp6: z.boolean().optional(),
      addresses: z.array(z.string().regex(/\/\d+$/)).optional(),
      routes: z.array(z.strictObject({ to: z.string(), via: z.string() })).optional(),
      nameservers: z.strictObject({ addresses: z.array(z.string()) }).optional(),
    }),
  ),
});
const SCHEMAS = { 'user-data': userDataSchema, 'meta-data': metaDataSchema, 'network-config': networkSchema };

it('every seed is a volume of the name that is looked for, with its files under their full names', () => {
  const seeded = PLANS.flatMap((p) => p.guests.filter((g) => g.seed));
  expect(seeded.length).toBeGreaterThan(5);
  for (const [i, g] of seeded.entries()) {
    const path = room.path(`seed${i}.iso`);
    writeFileSync(path, seedIso(g));
    expect(blkid(path)).toMatchObject({ LABEL: 'cidata', TYPE: 'iso9660' });
    const listed = run('isoinfo', ['-R', '-f', '-i', path]).trim().split('\n').sort();
    expect(listed).toEqual(['/meta-data', '/network-config', '/user-data']);
    for (const f of seedFiles(g)) {
      expect(run('isoinfo', ['-R', '-x', `/${f.name}`, '-i', path])).toBe(f.text);
      expect(run('bsdtar', ['-xOf', path, f.name])).toBe(f.text);
      SCHEMAS[f.name].parse(parse(f.text));
    }
    expect(run('xorriso', ['-indev', path, '-pvd_info']).replace(/\s+/g, ' ')).toContain('cidata');
  }
});

it('nothing of a password stands in a seed but its hash', () => {
  for (const g of PLANS.flatMap((p) => p.guests.filter((x): x is Guest => x.seed !== null))) {
    const user = SCHEMAS['user-data'].parse(parse(seedFiles(g)[0]?.text ?? '')).users[0];
    expect(user?.lock_passwd).toBe(g.seed?.hash === null);
    expect(user?.passwd ?? null).toBe(g.seed?.hash ?? null);
  }
});
