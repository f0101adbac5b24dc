/**
 * Networks and hosts: names, special ranges, what is wrong with both sides named, the next free address, the street, and what is
 * taken from readings. The arithmetic itself is held against Python and ipcalc in tests/oracle/addresses.oracle.ts.
 */
import fc from 'fast-check';
import { takeInto, shownOtherwise } from '@zb/core/acts/network';
import { tradeLines } from '@zb/core/box/summary';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { cableFor } from '@zb/core/network/cable';
import { beforeTaking } from '@zb/core/network/before';
import { checkPlan } from '@zb/core/network/check';
import { cutPower } from '@zb/core/network/cut';
import type { NetworkFault } from '@zb/core/network/finding';
import {
  addressSchools,
  draftHost,
  findingsOfBox,
  goneAfter,
  knownHostsLines,
  pageOf,
  selfMade6,
} from '@zb/core/network/forBox';
import { leaseClock } from '@zb/core/network/lease';
import { checkDomains, domainFaults } from '@zb/core/network/domain';
import { freeLabel, labelFault, labelOf } from '@zb/core/network/names';
import { matching6, nextFree } from '@zb/core/network/next';
import { rangeOf, rangeOfPrefix, uniqueLocal } from '@zb/core/network/ranges';
import { emptyReading, sighting } from '@zb/core/network/read/sighting';
import { shortened, streetOf } from '@zb/core/network/street';
import { takeReading } from '@zb/core/network/take';
import { applyChanges } from '@zb/core/model/changes';
import { blankNetwork, hostSchema, networkPlanSchema, type Host, type Network } from '@zb/core/model/network';
import { networkDraftOf, networkOfDraft, hostDraftOf, hostOfDraft } from '@zb/core/model/networkDraft';
import { canonicalHardware, isMadeUp } from '@zb/core/units/hardware';
import { formatIp, parseIp, type Ip } from '@zb/core/units/ip';
import { formatPrefix, isHostAddress, parsePrefix, sizeOf } from '@zb/core/units/prefix';
import { networkFaultWords } from '@zb/core/words/network';
import { runs } from './runs';

const ip = (text: string): Ip => parseIp(text) as Ip;
const NETWORK: Network = {
  ...blankNetwork('n', 'Home'),
  prefix: '192.168.10.0/24',
  gateway: '192.168.10.1',
  nameServers: ['192.168.10.2'],
  pool: { from: '192.168.10.100', to: '192.168.10.199' },
};
const host = (id: string, more: Partial<Host> = {}): Host => ({
  ...hostSchema.parse({ id, name: id, networkId: 'n' }),
  ...more,
});
const codes = (networks: Network[], hosts: Host[]): NetworkFault['code'][] =>
  checkPlan({ networks, hosts }).map((f) => f.fault.code);

test('what ranges are for (IANA’s registries, RFC 6890)', () => {
  const kinds = Object.fromEntries(
    [
      '10.1.2.3',
      '172.31.255.255',
      '172.32.0.0',
      '192.168.0.1',
      '100.64.0.1',
      '100.128.0.0',
      '169.254.9.9',
      '198.19.0.1',
      '203.0.113.9',
      '9.9.9.9',
      'fd12::1',
      'fe80::1',
      '2001:db8::1',
      '2600::1',
    ].map((a) => [a, rangeOf(ip(a))?.kind]),
  );
  expect(kinds).toEqual({
    '10.1.2.3': 'private',
    '172.31.255.255': 'private',
    '172.32.0.0': undefined,
    '192.168.0.1': 'private',
    '100.64.0.1': 'carrier',
    '100.128.0.0': undefined,
    '169.254.9.9': 'link-local',
    '198.19.0.1': 'benchmark',
    '203.0.113.9': 'documentation',
    '9.9.9.9': undefined,
    'fd12::1': 'unique local',
    'fe80::1': 'link-local',
    '2001:db8::1': 'documentation',
    '2600::1': undefined,
  });
  // A prefix that reaches beyond a range is not of that range.
  expect(rangeOfPrefix(parsePrefix('172.0.0.0/8') as never)).toBeUndefined();
});

test('a prefix of one’s own for IPv6 (RFC 4193 §3.1: fd, 40 bits, 16 bits, 64 bits)', () => {
  expect(formatPrefix(uniqueLocal([0x12, 0x34, 0x56, 0x78, 0x9a], 7))).toBe('fd12:3456:789a:7::/64');
  expect(() => uniqueLocal([1, 2], 0)).toThrow(RangeError);
});

test('labels (RFC 1123 §2.1, RFC 1035 §2.3.4)', () => {
  expect(['a', 'film-night', 'x1', 'a'.repeat(63)].map(labelFault)).toEqual([
    undefined,
    undefined,
    undefined,
    undefined,
  ]);
  expect(
    ['', 'a'.repeat(64), 'film_night', 'köche', '-a', 'a-', '42', 'a.b'].map((l) => labelFault(l)?.code),
  ).toEqual([
    'empty',
    'label too long',
    'odd letters',
    'odd letters',
    'hyphen at an end',
    'hyphen at an end',
    'all digits',
    'odd letters',
  ]);
  expect(labelOf('Film night – Küche!')).toBe('film-night-kuche');
  expect(freeLabel('Film night', new Set(['film-night', 'film-night-2']))).toBe('film-night-3');
  fc.assert(
    fc.property(
      fc.string({ maxLength: 90 }),
      fc.array(fc.constantFrom('box', 'a', 'box-2')),
      (words, taken) => {
        const label = freeLabel(words, new Set(taken));
        expect(labelFault(label)).toBeUndefined();
        expect(taken).not.toContain(label);
      },
    ),
    { numRuns: runs(300) },
  );
});

test('domains: home.arpa (RFC 8375), never .local for names of hosts (RFC 6762), never an invented top level', () => {
  const code = (domain: string, own = false): string | undefined => domainFaults(domain, own)[0]?.code;
  expect(code('home.arpa')).toBeUndefined();
  expect(code('hall.home.arpa')).toBeUndefined();
  expect(code('hall.local')).toBe('multicast domain');
  expect(code('hall.lan')).toBe('invented top level');
  expect(code('hall.test')).toBe('set aside');
  expect(code('hall.dev')).toBe('real top level');
  expect(code('hall.dev', true)).toBeUndefined();
  expect(code('hall..arpa')).toBe('empty');
  expect(code(`${'a'.repeat(60)}.`.repeat(5) + 'home.arpa')).toBe('name too long');
  expect(checkDomains([{ ...NETWORK, domain: 'hall.lan' }])).toMatchObject([
    { fault: { code: 'bad domain', domain: 'hall.lan' }, networks: ['n'] },
  ]);
  // An end that only looks like it is none.
  expect(code('nothome.arpa')).toBe('real top level');
});

test('what is wrong is found, and both sides are named', () => {
  expect(
    codes(
      [NETWORK],
      [
        host('a', { manner: 'fixed', address: '192.168.10.9' }),
        host('b', { manner: 'fixed', address: '192.168.10.9' }),
      ],
    ),
  ).toEqual(['same address']);
  const [both] = checkPlan({
    networks: [NETWORK],
    hosts: [host('a', { address: '192.168.10.9' }), host('b', { address: '192.168.10.9' })],
  });
  expect(both).toMatchObject({ grade: 'stop', hosts: ['a', 'b'] });
  const one = (more: Partial<Host>): NetworkFault['code'][] => codes([NETWORK], [host('a', more)]);
  expect(one({ manner: 'fixed', address: '192.168.10.0' })).toEqual(['network address']);
  expect(one({ manner: 'fixed', address: '192.168.10.255' })).toEqual(['broadcast address']);
  expect(one({ manner: 'fixed', address: '192.168.11.4' })).toEqual(['outside its network']);
  expect(one({ manner: 'fixed', address: '192.168.10.150' })).toEqual(['fixed in the pool']);
  expect(one({ manner: 'reservation', address: '192.168.10.150', hardware: '00:16:3e:00:00:01' })).toEqual([
    'reserved in the pool',
  ]);
  expect(one({ manner: 'fixed', address: '192.168.10.9', bits: 25 })).toEqual(['wrong mask']);
  expect(one({ manner: 'fixed', address: '192.168.10.9', known: false })).toEqual(['nobody wrote it down']);
  expect(one({ manner: 'reservation', address: '192.168.10.9' })).toEqual(['reservation without hardware']);
  expect(
    one({ manner: 'reservation', address: '192.168.10.9', hardware: '02:00:00:00:00:01', link: 'wireless' }),
  ).toEqual(['hardware may change']);
  expect(one({ manner: 'pool', address: '169.254.3.3' })).toEqual(['found no server']);
  expect(one({ manner: 'fixed' })).toEqual(['no address yet']);
  expect(one({ label: 'film_night' })).toEqual(['bad name']);
  expect(one({ manner: 'fixed', address: '192.168.10.1' })).toEqual([]);
  const net = (more: Partial<Network>): NetworkFault['code'][] => codes([{ ...NETWORK, ...more }], []);
  expect(net({})).toEqual([]);
  expect(net({ gateway: '192.168.11.1' })).toEqual(['gateway outside']);
  // RFC 1122 §3.2.1.3: neither end of a network is a host.
  for (const gateway of ['192.168.10.0', '192.168.10.255'])
    expect(net({ gateway })).toContain('gateway is no host');
  expect(net({ pool: { from: '192.168.10.199', to: '192.168.10.100' } })).toEqual(['pool runs backwards']);
  expect(net({ pool: { from: '192.168.9.200', to: '192.168.10.20' } })).toEqual([
    'pool outside',
    'pool holds',
    'pool holds',
  ]);
  expect(net({ outside: '192.168.0.0/16' })).toEqual(['inside is outside', 'outside is private']);
  expect(net({ outside: '100.64.0.0/10' })).toEqual(['outside is carrier']);
  expect(net({ prefix: '93.184.216.0/24', gateway: null, pool: null })).toEqual(['addresses of others']);
  expect(net({ prefix: '192.0.2.0/24', gateway: null, pool: null })).toEqual(['range for something else']);
  expect(net({ prefix6: 'fd00:1::/48' })).toEqual(['not a /64']);
  expect(net({ gateway6: 'fe80::1', prefix6: 'fd00:1::/64' })).toEqual([]);
  const two = {
    ...NETWORK,
    id: 'm',
    name: 'Other',
    prefix: '192.168.0.0/16',
    gateway: null,
    pool: null,
    vlan: 7,
  };
  expect(codes([{ ...NETWORK, vlan: 7 }, two], [])).toEqual(['networks overlap', 'same VLAN']);
  const few = { ...NETWORK, pool: { from: '192.168.10.100', to: '192.168.10.101' } };
  expect(
    codes(
      [few],
      ['a', 'b', 'c'].map((id) => host(id, { manner: 'pool' })),
    ),
  ).toEqual(['pool too small']);
});

test('every fault is said with its names', () => {
  const bench = saltmarshHall();
  const plan = { networks: bench.networks, hosts: bench.hosts };
  for (const f of checkPlan(plan)) {
    const names = (ids: string[]): string[] =>
      ids.map((id) => [...plan.hosts, ...plan.networks].find((x) => x.id === id)?.name ?? '');
    const said = networkFaultWords(f.fault, { hosts: names(f.hosts), networks: names(f.networks) });
    for (const name of names(f.hosts).slice(0, 2)) expect(said).toContain(name);
    expect(said).not.toMatch(/undefined|null/);
  }
});

const networks = fc
  .tuple(
    fc.integer({ min: 22, max: 30 }),
    fc.integer({ min: 0, max: 200 }),
    fc.integer({ min: 0, max: 300 }),
    fc.integer({ min: 0, max: 300 }),
    fc.constantFrom('dense' as const, 'by purpose' as const, 'by place' as const),
  )
  .map(([bits, gate, a, b, scheme]): Network => {
    const base = ip('10.20.0.0').value;
    const size = 2 ** (32 - bits);
    const at = (n: number): string => formatIp({ family: 4, value: base + BigInt(n % size) });
    const [from, to] = [a % size, b % size].sort((x, y) => x - y) as [number, number];
    return {
      ...blankNetwork('n', 'N'),
      prefix: `10.20.0.0/${bits}`,
      gateway: at(gate),
      pool: { from: at(from), to: at(to) },
      scheme,
    };
  });
const hosts = fc.array(
  fc.tuple(
    fc.integer({ min: 0, max: 300 }),
    fc.constantFrom('fixed' as const, 'pool' as const, 'reservation' as const),
  ),
  { maxLength: 12 },
);
const settled = (network: Network, all: [number, Host['manner']][]): Host[] => {
  const size = 2 ** (32 - Number(network.prefix?.split('/')[1]));
  return all.map(([n, manner], i) =>
    host(`h${i}`, {
      manner,
      address: formatIp({ family: 4, value: ip('10.20.0.0').value + BigInt(n % size) }),
    }),
  );
};

test('the next free address is never one of those that nobody may take, and there is one while one is free', () => {
  fc.assert(
    fc.property(
      networks,
      hosts,
      fc.constantFrom('file store' as const, 'games' as const),
      (network, all, purpose) => {
        const there = settled(network, all);
        const found = nextFree(network, there, { purpose, place: 2 });
        const prefix = parsePrefix(network.prefix ?? '') as NonNullable<ReturnType<typeof parsePrefix>>;
        const taken = new Set([...there.map((h) => h.address), network.gateway]);
        const inPool = (value: bigint): boolean =>
          value >= ip(network.pool?.from ?? '').value && value <= ip(network.pool?.to ?? '').value;
        const free: string[] = [];
        for (let v = prefix.base; v < prefix.base + sizeOf(prefix); v += 1n) {
          const one: Ip = { family: 4, value: v };
          if (isHostAddress(prefix, one) && !inPool(v) && !taken.has(formatIp(one))) free.push(formatIp(one));
        }
        if (found === undefined) expect(free).toEqual([]);
        else expect(free).toContain(found);
        // A box put there is wrong with nothing that was not wrong before.
        if (found !== undefined) {
          const before = checkPlan({ networks: [network], hosts: there }).length;
          const box = host('new', { manner: 'fixed', address: found });
          expect(checkPlan({ networks: [network], hosts: [...there, box] })).toHaveLength(before);
        }
      },
    ),
    { numRuns: runs(200) },
  );
});

test('the street has every address once, in order, and everybody in it', () => {
  fc.assert(
    fc.property(networks, hosts, (network, all) => {
      const there = settled(network, all);
      const street = streetOf(network, there);
      const prefix = parsePrefix(network.prefix ?? '') as NonNullable<ReturnType<typeof parsePrefix>>;
      let next = prefix.base;
      for (const s of street) {
        expect(ip(s.from).value).toBe(next);
        expect(ip(s.to).value - ip(s.from).value + 1n).toBe(BigInt(s.count));
        next = ip(s.to).value + 1n;
      }
      expect(next).toBe(prefix.base + sizeOf(prefix));
      expect(street.flatMap((s) => s.hosts).sort()).toEqual(there.map((h) => h.id).sort());
      const short = shortened(street, 5, new Set());
      expect(short.reduce((n, s) => n + s.count, 0)).toBe(Number(sizeOf(prefix)));
      expect(short.flatMap((s) => s.hosts).sort()).toEqual(there.map((h) => h.id).sort());
    }),
    { numRuns: runs(200) },
  );
});

test('schemes: dense, ten for each purpose, ten for each place (common practice, no source)', () => {
  const next = (
    scheme: Network['scheme'],
    purpose: 'file store' | 'music',
    place: number | null,
  ): string | undefined =>
    nextFree(
      { ...NETWORK, scheme, boxesFrom: '192.168.10.20' },
      [host('a', { manner: 'fixed', address: '192.168.10.20' })],
      { purpose, place },
    );
  expect(next('dense', 'music', null)).toBe('192.168.10.21');
  expect(next('by purpose', 'file store', null)).toBe('192.168.10.30');
  expect(next('by place', 'music', 3)).toBe('192.168.10.40');
  expect(matching6({ ...NETWORK, prefix6: 'fd00:5::/64' }, '192.168.10.30')).toBe('fd00:5::1e');
});

test('the clock of a lease (RFC 2131 §4.4.5: half, then seven eighths)', () => {
  expect(leaseClock(86_400)).toEqual({ renew: 43_200, rebind: 75_600, ends: 86_400 });
});

test('hardware addresses in the manners they are written in (IEEE 802)', () => {
  const one = '00:16:3e:0a:0b:0c';
  for (const text of [
    '00:16:3E:0A:0B:0C',
    '00-16-3e-0a-0b-0c',
    '0016.3e0a.0b0c',
    '00163e0a0b0c',
    '0:16:3e:a:b:c',
  ])
    expect(canonicalHardware(text)).toBe(one);
  for (const text of ['00:16:3e:0a:0b', '00:16:3e:0a:0b:0g', '00:16-3e:0a:0b:0c', '', '10.0.0.1'])
    expect(canonicalHardware(text)).toBeUndefined();
  expect([isMadeUp('02:00:00:00:00:01'), isMadeUp(one)]).toEqual([true, false]);
});

test('a reading is taken: known hosts gain what was seen, new ones are hosts that nobody wrote down, decisions stay', () => {
  const before = [
    host('box', { manner: 'reservation', hardware: '00:16:3e:00:00:01', address: '192.168.10.20' }),
    host('named', { manner: 'fixed', address: '192.168.10.30' }),
  ];
  const reading = {
    ...emptyReading('ip neigh'),
    sightings: [
      sighting('neighbour', { address: '192.168.10.140', hardware: '00:16:3e:00:00:01' }),
      sighting('neighbour', { address: '192.168.10.30', hardware: '00:16:3e:00:00:02' }),
      sighting('neighbour', { address: '192.168.10.50', hardware: '00:16:3e:00:00:03' }),
      sighting('lease', {
        address: '192.168.10.101',
        hardware: '00:16:3e:00:00:04',
        name: 'till',
        until: '2026-01-01T00:00:00.000Z',
      }),
      sighting('written', { address: '192.168.10.101', name: 'another-name' }),
      sighting('neighbour', { address: '10.0.0.9', hardware: '00:16:3e:00:00:05' }),
    ],
  };
  let n = 0;
  const taken = takeReading(NETWORK, before, reading, {
    id: () => `new${(n += 1)}`,
    at: '2026-01-01T00:00:00.000Z',
    by: 'a look',
  });
  const byId = new Map(taken.hosts.map((h) => [h.id, h]));
  expect(byId.get('box')).toMatchObject({ address: '192.168.10.20', seen: { address: '192.168.10.140' } });
  expect(taken.elsewhere).toEqual(['box']);
  expect(byId.get('named')).toMatchObject({ hardware: '00:16:3e:00:00:02', known: true });
  expect(taken.fresh).toHaveLength(2);
  expect(taken.hosts.find((h) => h.address === '192.168.10.50')).toMatchObject({
    manner: 'fixed',
    known: false,
  });
  expect(taken.hosts.find((h) => h.name === 'till')).toMatchObject({
    manner: 'pool',
    address: '192.168.10.101',
    leaseUntil: '2026-01-01T00:00:00.000Z',
  });
  expect(taken.strangers.map((s) => s.address)).toEqual(['10.0.0.9']);
  // Taken again it brings nothing new.
  const after = [...before.filter((h) => !byId.has(h.id)), ...taken.hosts];
  expect(takeReading(NETWORK, after, reading, { id: () => 'x', at: '', by: '' }).fresh).toEqual([]);
});

test('another card at an address that is written down is another host, and both are named', () => {
  const before = [host('box', { manner: 'fixed', hardware: '00:16:3e:00:00:01', address: '192.168.10.20' })];
  const reading = {
    ...emptyReading('arp'),
    sightings: [sighting('neighbour', { address: '192.168.10.20', hardware: '00:16:3e:00:00:09' })],
  };
  const taken = takeReading(NETWORK, before, reading, { id: () => 'x', at: '', by: '' });
  expect(taken.fresh).toEqual(['x']);
  expect(checkPlan({ networks: [NETWORK], hosts: [...before, ...taken.hosts] })[0]).toMatchObject({
    fault: { code: 'same address' },
    hosts: ['box', 'x'],
  });
});

test('what a host shows goes to its box the first time, and is held against it afterwards', () => {
  const bench = saltmarshHall();
  const [hall] = bench.networks as [Network];
  const shows = (fingerprint: string) => ({
    ...emptyReading('look report'),
    shown: [{ what: 'certificate' as const, host: '10.44.8.50:443', fingerprint, expires: '2027-01-01' }],
  });
  const first = takeInto(bench, hall, shows('a'.repeat(64)), 'look', {
    now: '2026-01-01T00:00:00.000Z',
    id: () => 'x',
  });
  const after = applyChanges(bench, first.act.changes);
  expect(after.boxes.find((b) => b.id === 'film-night')?.reach?.page).toMatchObject({
    fingerprint: 'a'.repeat(64),
    expires: '2027-01-01',
  });
  expect(shownOtherwise(after, shows('a'.repeat(64)))).toEqual([]);
  expect(shownOtherwise(after, shows('b'.repeat(64)))).toMatchObject([
    { boxId: 'film-night', what: 'certificate' },
  ]);
  const again = applyChanges(
    after,
    takeInto(after, hall, shows('b'.repeat(64)), 'look', { now: '', id: () => 'y' }).act.changes,
  );
  expect(again.boxes.find((b) => b.id === 'film-night')?.reach?.page?.fingerprint).toBe('a'.repeat(64));
});

test('before an address is taken: nobody found where nobody looked says nothing', () => {
  expect(beforeTaking(NETWORK, [], '192.168.10.20', undefined, null).map((l) => l.says)).toEqual([
    'ask',
    'ask',
    'ask',
  ]);
  const seen = host('p', {
    manner: 'not known',
    seen: { address: '192.168.10.20', at: '2026-01-01T00:00:00.000Z', by: 'arp' },
  });
  expect(beforeTaking(NETWORK, [seen], '192.168.10.20', undefined, null)[1]).toMatchObject({
    says: 'taken',
    host: 'p',
  });
  expect(beforeTaking(NETWORK, [seen], '192.168.10.21', undefined, null)[1]).toMatchObject({
    says: 'free',
    looked: 1,
  });
  const probed = { address: '192.168.10.21', at: '2026-01-01T00:00:00.000Z', answered: false, by: 'arping' };
  expect(beforeTaking(NETWORK, [], '192.168.10.21', undefined, probed)[2]?.says).toBe('free');
  // A probe of another address says nothing of this one.
  expect(beforeTaking(NETWORK, [], '192.168.10.22', undefined, probed)[2]?.says).toBe('ask');
});

test('a box is placed as its purpose wants, and its page and shell are told', () => {
  const bench = saltmarshHall();
  const [hall] = bench.networks as [Network];
  const box = bench.boxes.find((b) => b.id === 'booking-host');
  if (!box) throw new Error('the demo has a booking host');
  const placed = draftHost(bench, box, hall, 'x');
  expect(placed).toMatchObject({
    manner: 'reservation',
    address: '10.44.8.30',
    label: 'booking-host',
    address6: 'fd3c:71a4:9e02:8::1e',
  });
  const without = { ...placed, hardware: null };
  expect(addressSchools(bench, box, without, hall).find((s) => s.usual)?.manner).toBe('fixed');
  expect(addressSchools(bench, box, without, hall)[0]?.wants).toEqual(['a hardware address']);
  const coldstore = bench.profiles.find((p) => p.id === 'coldstore');
  const archive = bench.hosts.find((h) => h.id === 'host-archive');
  expect(pageOf(coldstore, archive, hall)?.byName).toMatch(/^https:\/\/archive\.hall\.home\.arpa/);
  expect(knownHostsLines(archive as Host, hall, [{ type: 'ssh-ed25519', key: 'AAAA' }])).toEqual([
    'archive.hall.home.arpa,10.44.8.20 ssh-ed25519 AAAA',
  ]);
  expect(findingsOfBox(bench, bench.boxes.find((b) => b.id === 'archive') as never)).toEqual([]);
});

test('plans are brought into one form, or refused with the field', () => {
  const plan = networkPlanSchema.parse({
    networks: [{ id: 'n', name: 'N', prefix: '10.0.0.0/8' }],
    hosts: [{ id: 'h', name: 'h', networkId: 'n', hardware: '00-16-3E-00-00-01', address6: 'FD00:0::1' }],
  });
  expect(plan.hosts[0]).toMatchObject({
    hardware: '00:16:3e:00:00:01',
    address6: 'fd00::1',
    manner: 'not known',
  });
  for (const bad of [
    { prefix: '10.0.0.1/8' },
    { prefix: '10.0.0.0' },
    { prefix: '10.0.0.0/8', gateway: 'fd00::1' },
    { prefix: null, vlan: 4095 },
  ])
    expect(
      networkPlanSchema.safeParse({ networks: [{ id: 'n', name: 'N', ...bad }], hosts: [] }).success,
    ).toBe(false);
  expect(
    networkPlanSchema.safeParse({
      networks: [],
      hosts: [{ id: 'h', name: 'h', networkId: null, hardware: 'ff:ff:ff:ff:ff:ff' }],
    }).success,
  ).toBe(false);
});

test('what is typed of networks and hosts comes back as it was', () => {
  const bench = saltmarshHall();
  for (const n of bench.networks) expect(networkOfDraft(n).parse(networkDraftOf(n))).toEqual(n);
  for (const h of bench.hosts) expect(hostOfDraft(h).parse(hostDraftOf(h))).toEqual({ ...h, known: true });
  const [hall] = bench.networks as [Network];
  const half = networkOfDraft(hall).safeParse({ ...networkDraftOf(hall), poolTo: '' });
  expect(half.error?.issues[0]?.path).toEqual(['poolTo']);
});

test('cables by what they carry over 100 m (IEEE 802.3, from memory), and one wire at a time', () => {
  expect([100, 1000, 2500, 10_000, 25_000].map(cableFor)).toEqual([
    'Cat 5',
    'Cat 5e',
    'Cat 5e',
    'Cat 6A',
    undefined,
  ]);
  const bench = saltmarshHall();
  const lines = (id: string) =>
    tradeLines(bench, bench.boxes.find((b) => b.id === id) as never, 'network').map((l) => l.code);
  expect(lines('guest-gate')).toContain('one wire at a time');
  expect(lines('archive')).toEqual(['cable and port']);
});

test('leases and neighbours alone: the usual prefix is taken around them, and that is said', () => {
  const reading = {
    ...emptyReading('arp'),
    sightings: ['192.168.3.7', '192.168.3.9'].map((address, i) =>
      sighting('neighbour', { address, hardware: `00:16:3e:00:00:0${i}` }),
    ),
  };
  const taken = takeReading(blankNetwork('n', 'N'), [], reading, { id: () => 'x', at: '', by: '' });
  expect([taken.network.prefix, taken.guessed, taken.hosts.length]).toEqual(['192.168.3.0/24', true, 2]);
  // From two of them nothing is guessed.
  const two = {
    ...reading,
    sightings: [...reading.sightings, sighting('neighbour', { address: '192.168.4.1' })],
  };
  expect(
    takeReading(blankNetwork('n', 'N'), [], two, { id: () => 'x', at: '', by: '' }).network.prefix,
  ).toBeNull();
});

test('the address that a card makes for itself is told where it makes one', () => {
  const network = { ...NETWORK, prefix6: 'fd00:5::/64' };
  const one = host('a', { hardware: '00:16:3e:00:00:01', manner6: 'made by itself' });
  expect(selfMade6(one, network)).toBe('fd00:5::216:3eff:fe00:1');
  expect(selfMade6({ ...one, address6: 'fd00:5::9' }, network)).toBeNull();
  expect(selfMade6(one, { ...network, prefix6: 'fd00:5::/56' })).toBeNull();
});

test('what would be gone with a box that moves: its page, its shell, and every name where it is the name server', () => {
  const bench = saltmarshHall();
  const [hall] = bench.networks as [Network];
  const moved = {
    ...bench,
    networks: [{ ...hall, nameServers: ['10.44.8.125'] }],
    hosts: bench.hosts.map((h) =>
      h.id === 'host-archive'
        ? { ...h, manner: 'pool' as const, address: '10.44.8.125', asksAgain: false }
        : h,
    ),
  };
  const cut = cutPower(moved.networks[0] as Network, moved.hosts);
  expect(goneAfter(moved, cut).get('host-archive')).toEqual([
    { code: 'page', url: 'https://10.44.8.125/' },
    { code: 'shell', address: '10.44.8.125' },
    { code: 'name server', network: 'Hall' },
  ]);
  expect(goneAfter(bench, cutPower(hall, bench.hosts)).size).toBe(0);
});

test('two that a pool gave the same address, one after the other, claim nothing; one that was set by hand does', () => {
  const pool = (id: string): Host => host(id, { manner: 'pool', address: '192.168.10.150' });
  expect(codes([NETWORK], [pool('a'), pool('b')])).toEqual([]);
  expect(
    checkPlan({
      networks: [NETWORK],
      hosts: [pool('a'), host('b', { manner: 'fixed', address: '192.168.10.150' })],
    }),
  ).toMatchObject([
    { fault: { code: 'same address' }, grade: 'check' },
    { fault: { code: 'fixed in the pool' } },
  ]);
});
