/**
 * Forms: what one shows of a thing, sent back as it stands, is that thing to the byte; what cannot be is refused at its
 * field, and nothing is half read.
 */
import fc from 'fast-check';
import { hallGate } from '@zb/core/demo/gate';
import { bookingGuests } from '@zb/core/demo/guests';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import {
  forwardDraftOf,
  forwardOfDraft,
  permitDraftOf,
  permitOfDraft,
  portDraftOf,
  portOfDraft,
  readServices,
  seatOfDraft,
  typedServices,
  zoneOfDraft,
} from '@zb/core/model/gateDraft';
import { forwardSchema, gatePortSchema } from '@zb/core/model/gate';
import {
  guestDraftOf,
  guestOfDraft,
  guestPoolOfDraft,
  potDraftOf,
  potOfDraft,
  volumeOfDraft,
} from '@zb/core/model/guestDraft';
import { packetOfDraft, type PacketDraft } from '@zb/core/model/packetDraft';
import {
  folderDraftOf,
  folderOfDraft,
  foundSchema,
  linkOfDraft,
  userOfDraft,
} from '@zb/core/model/sharingDraft';
import { keepingDraftOf, keepingSchema, thingDraftOf, thingOfDraft } from '@zb/core/model/storageDraft';
import { readSize, writeSize } from '@zb/core/units/typedSize';
import { runs } from './runs';

const KIB = 1024;
/** Sizes as machines have them: of whole sectors or KiB, round in one family of units, or anything at all. */
const bytes = fc.oneof(
  fc.integer({ min: 1, max: 2 ** 34 }).map((n) => n * KIB),
  fc.integer({ min: 1, max: 9999 }).map((n) => n * 1e9),
  fc.integer({ min: 1, max: 9999 }).map((n) => n * 2 ** 30),
  fc.integer({ min: 1, max: 2 ** 44 }),
);
/** Fields of a form at which something is refused. */
const refused = (
  schema: { safeParse: (d: unknown) => { error?: { issues: { path: PropertyKey[] }[] } } },
  draft: unknown,
) => [...new Set((schema.safeParse(draft).error?.issues ?? []).map((i) => String(i.path[0])))];

describe('a size in a form', () => {
  it('is read back as the very same bytes', () =>
    fc.assert(
      fc.property(bytes, (n) => expect(readSize(writeSize(n), false)).toEqual({ bytes: n })),
      { numRuns: runs(2000) },
    ));
  it.each([
    [2 ** 30, '1.00 GiB'],
    [480e9, '480 GB'],
    [60_000e6, '60.0 GB'],
    [1536 * 2 ** 20, '1.50 GiB'],
    // What a running host tells: its memory in KiB (virsh nodeinfo).
    [16_308_124 * KIB, '16308124 KiB'],
    [12_345_678_901, '12345678901 B'],
    [1, '1 B'],
  ])('of %d bytes is shown as %s', (n, text) => expect(writeSize(n)).toBe(text));
});

describe('guests and their host', () => {
  const plan = bookingGuests();
  const [guest] = plan.guests;
  if (!guest) throw new Error('no guest');
  it('keep their sizes to the byte, and a disk of which nothing is used', () =>
    fc.assert(
      fc.property(bytes, bytes, fc.oneof(fc.constant(0), bytes), (memory, size, used) => {
        const memoryBytes = Math.max(memory, 16 * 2 ** 20);
        const [disk] = guest.disks;
        const g = {
          ...guest,
          memoryBytes,
          floorBytes: 0,
          disks: disk ? [{ ...disk, bytes: size, usedBytes: used, growsPerDay: used }] : [],
        };
        expect(guestOfDraft(g).parse(guestDraftOf(g))).toEqual(g);
        const pot = { ...plan.pot, memoryBytes: memory, nodeBytes: [size, memory], baseBytes: used };
        expect(potOfDraft(pot).parse(potDraftOf({ ...plan, pot }))).toEqual(pot);
        const pool = { name: 'p', bytes: writeSize(size), other: writeSize(used), thin: true, path: '/srv' };
        expect(guestPoolOfDraft('p').parse(pool)).toMatchObject({ bytes: size, otherBytes: used });
      }),
      { numRuns: runs(200) },
    ));
  it('a reading of a volume holds no more than the volume', () => {
    const form = { bytes: '20 GB', used: '12 GB', at: '2026-04-02' };
    expect(volumeOfDraft('r').parse(form)).toEqual({
      bytes: 20e9,
      reading: { id: 'r', at: '2026-04-02', usedBytes: 12e9 },
    });
    expect(refused(volumeOfDraft('r'), { ...form, used: '21 GB' })).toEqual(['used']);
    expect(refused(volumeOfDraft('r'), { ...form, at: '2026-02-30' })).toEqual(['at']);
    expect(refused(volumeOfDraft('r'), { bytes: '20', used: 'much', at: '' }).sort()).toEqual([
      'at',
      'bytes',
      'used',
    ]);
  });
});

describe('a gate', () => {
  const gate = hallGate();
  it('keeps ports, permits and forwarded ports as they are', () => {
    for (const p of gate.ports) expect(portOfDraft(p.id).parse(portDraftOf(p))).toEqual(p);
    for (const p of gate.permits) expect(permitOfDraft(p).parse(permitDraftOf(p))).toEqual(p);
    for (const f of gate.forwards) expect(forwardOfDraft(f.id).parse(forwardDraftOf(f))).toEqual(f);
    const [zone] = gate.zones;
    expect(zone && zoneOfDraft(zone.id).parse(zone)).toEqual(zone);
    expect(gate.ports.length * gate.permits.length).toBeGreaterThan(0);
  });
  it('keeps a range of ports, one port, and the port it ends at', () =>
    fc.assert(
      fc.property(
        fc.nat(65_535),
        fc.nat(65_535),
        fc.option(fc.integer({ min: 1, max: 65_535 })),
        (a, b, toPort) => {
          const f = forwardSchema.safeParse({
            id: 'f',
            name: 'f',
            protocol: 'tcp',
            ports: [Math.min(a, b), Math.max(a, b)],
            to: '192.0.2.9',
            toPort,
          });
          fc.pre(f.success);
          expect(forwardOfDraft('f').parse(forwardDraftOf(f.data))).toEqual(f.data);
        },
      ),
      { numRuns: runs(200) },
    ));
  it('reads a range with blanks and dashes of either kind', () => {
    const form = {
      ...forwardDraftOf(
        forwardSchema.parse({ id: 'f', name: 'f', protocol: 'udp', ports: [1, 1], to: '192.0.2.9' }),
      ),
    };
    for (const ports of ['7000-7010', '7000 – 7010', ' 7000 -7010 '])
      expect(forwardOfDraft('f').parse({ ...form, ports }).ports).toEqual([7000, 7010]);
    for (const ports of ['', '7010-7000', '7000-', 'web', '70000'])
      expect(refused(forwardOfDraft('f'), { ...form, ports })).toEqual(['ports']);
    expect(refused(forwardOfDraft('f'), { ...form, to: 'archive' })).toEqual(['to']);
  });
  it('refuses a port’s wrong lines where they stand', () => {
    const form = portDraftOf(gatePortSchema.parse({ id: 'p', device: 'eth0', zoneId: 'inside' }));
    expect(
      refused(portOfDraft('p'), { ...form, vlan: '4095', hardware: 'none', megabits: 'fast' }).sort(),
    ).toEqual(['hardware', 'megabits', 'vlan']);
    expect(portOfDraft('p').parse({ ...form, vlan: '4094' }).vlan).toBe(4094);
  });
  it('reads services as they are written, and nothing of a text that is none', () => {
    for (const { entries } of gate.services) {
      const read = readServices(typedServices(entries));
      expect(read).toHaveLength(entries.length);
      expect(read).toEqual(expect.arrayContaining(entries));
    }
    expect(readServices('tcp 443\nwhatever this is')).toBeUndefined();
  });
  it('reads the seat, with ports and without an address', () => {
    expect(seatOfDraft.parse({ zone: 'office', address: '', ports: '22, 443' })).toMatchObject({
      zone: 'office',
      address: null,
      ports: [22, 443],
    });
    expect(refused(seatOfDraft, { zone: 'office', address: 'nobody', ports: '22' })).toEqual(['address']);
    expect(refused(seatOfDraft, { zone: 'office', address: '', ports: 'ssh' })).toEqual(['ports']);
  });
});

describe('a packet', () => {
  const form: PacketDraft = {
    from: 'hall',
    source: '192.168.7.20',
    destination: '192.0.2.10',
    protocol: 'tcp',
    port: '443',
    sourcePort: '50000',
    state: '',
    hour: '18:30',
  };
  it('is read with its hour in seconds, and of ICMP with a type in place of ports', () => {
    expect(packetOfDraft.parse(form)).toMatchObject({
      destinationPort: 443,
      sourcePort: 50_000,
      type: 0,
      state: null,
      second: 18 * 3600 + 30 * 60,
    });
    expect(packetOfDraft.parse({ ...form, protocol: 'icmp', port: '8' })).toMatchObject({
      destinationPort: 0,
      sourcePort: 0,
      type: 8,
    });
  });
  it.each([
    ['source', 'nobody'],
    ['destination', '192.0.2.256'],
    ['port', '65536'],
    ['port', '-1'],
    ['sourcePort', 'any'],
    ['hour', '24:00'],
    ['hour', 'noon'],
  ] as const)('is refused at %s: %s', (field, text) =>
    expect(refused(packetOfDraft, { ...form, [field]: text })).toEqual([field]),
  );
});

describe('what a pool keeps', () => {
  const box = saltmarshHall().boxes.find((b) => b.pool);
  if (!box?.pool) throw new Error('no pool in the demo');
  const { pool, things } = box;
  it('comes back as it was, with what must not be lost', () => {
    const { name, filled, scrubDays, scrubbed, snapshots } = pool;
    expect(keepingSchema.parse(keepingDraftOf(pool))).toEqual({
      name,
      filled,
      scrubDays,
      scrubbed,
      snapshots,
    });
    expect(things.length).toBeGreaterThan(0);
    for (const t of things) expect(thingOfDraft(t.id).parse(thingDraftOf(t))).toEqual(t);
  });
  it('to the byte', () =>
    fc.assert(
      fc.property(bytes, (n) => {
        const [thing] = things;
        if (!thing) throw new Error('nothing kept');
        expect(thingOfDraft(thing.id).parse(thingDraftOf({ ...thing, bytes: n })).bytes).toBe(n);
      }),
      { numRuns: runs(200) },
    ));
  it('begins on the pool, and wants a name', () => {
    const fresh = thingDraftOf(null);
    expect(fresh.copies).toEqual([{ where: 'this pool', name: '', at: '' }]);
    expect(refused(thingOfDraft('t'), fresh)).toEqual(['what']);
  });
});

describe('what is shared', () => {
  const sharing = saltmarshHall().boxes.find((b) => b.sharing)?.sharing;
  if (!sharing) throw new Error('nothing is shared in the demo');
  it('keeps folders, users and links as they are', () => {
    for (const f of sharing.folders) expect(folderOfDraft(f).parse(folderDraftOf(f))).toEqual(f);
    for (const u of sharing.users) expect(userOfDraft(u.id).parse(u)).toEqual(u);
    for (const l of sharing.links) expect(linkOfDraft(l.id).parse(l)).toEqual(l);
    expect(sharing.folders.length).toBeGreaterThan(0);
  });
  it('refuses a folder at its line', () => {
    const [folder] = sharing.folders;
    if (!folder) throw new Error('no folder');
    const form = folderDraftOf(folder);
    expect(refused(folderOfDraft(folder), { ...form, binDays: '0' })).toEqual(['binDays']);
    expect(refused(folderOfDraft(folder), { ...form, binDays: '366' })).toEqual(['binDays']);
    expect(folderOfDraft(folder).parse({ ...form, binDays: ' ' }).binDays).toBeNull();
    expect(refused(folderOfDraft(folder), { ...form, path: 'srv' })).toEqual(['path']);
    expect(refused(folderOfDraft(folder), { ...form, name: '' })).toEqual(['name']);
  });
  it('reads networks with blanks or commas between them', () => {
    const form = { name: ' ', workgroup: 'HALL', from: '192.168.7.0/24, 2001:db8::/64  10.0.0.0/8' };
    expect(foundSchema.parse(form)).toEqual({
      name: null,
      workgroup: 'HALL',
      from: ['192.168.7.0/24', '2001:db8::/64', '10.0.0.0/8'],
    });
    expect(foundSchema.parse({ ...form, from: '' }).from).toEqual([]);
    for (const from of ['everybody', '192.168.7.0/33', '192.168.7.0/24;10.0.0.0/8'])
      expect(refused(foundSchema, { ...form, from })).toEqual(['from']);
    expect(refused(foundSchema, { ...form, workgroup: '' })).toEqual(['workgroup']);
  });
});
