/**
 * Plans applied to a real server in a network namespace, and asked by real clients (dnsmasq, busybox udhcpc): who gets what is
 * what was planned, and after a cut, with the lease file kept and lost, what was foretold, in every order of returns.
 * Probing against a namespace where somebody does answer (iputils arping -D, RFC 5227).
 */
import { rmSync, writeFileSync } from 'node:fs';
import { allot, hardwareHash } from '@zb/core/network/allot';
import { cutPower } from '@zb/core/network/cut';
import { countOrders, given, promisedIn } from '@zb/core/network/cutCount';
import { cutScene } from '@zb/core/network/cutWorld';
import { probeCommand } from '@zb/core/network/before';
import { dnsmasqConfig } from '@zb/core/network/write/servers';
import { blankNetwork, hostSchema, type Host, type Network } from '@zb/core/model/network';
import { formatIp, parseIp } from '@zb/core/units/ip';
import { seedOfRun } from './damage';
import { randomFrom } from '@zb/core/units/random';
import { scratch } from './files';
import { lan, type Lan } from './lan';

jest.setTimeout(600_000);
const ALL = process.env.ZB_NETWORK === 'all';
const room = scratch();
let wire: Lan;
afterAll(() => room.clear());
beforeEach(() => {
  wire = lan();
});
afterEach(() => wire.clear());

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
const NETWORK: Network = {
  ...blankNetwork('n', 'Test'),
  prefix: '10.77.5.0/24',
  gateway: '10.77.5.1',
  nameServers: ['10.77.5.1'],
  pool: { from: '10.77.5.100', to: '10.77.5.106' },
  leaseSeconds: 3600,
  manner: 'by hardware address',
  remembers: false,
  domain: 'test.home.arpa',
};
const host = (id: string, hardware: string, more: Partial<Host> = {}): Host => ({
  ...hostSchema.parse({ id, name: id, networkId: 'n', hardware, manner: 'pool' }),
  ...more,
});
const dice = randomFrom(seedOfRun());
const card = (): string =>
  [
    '02',
    ...Array.from({ length: 5 }, () =>
      Math.floor(dice() * 256)
        .toString(16)
        .padStart(2, '0'),
    ),
  ].join(':');

/** The real server, with exactly what we write for it. */
async function server(network: Network, hosts: readonly Host[], leases: string, more: string[] = []) {
  const conf = room.path('dnsmasq.conf');
  writeFileSync(conf, dnsmasqConfig(network, hosts));
  wire.tried('router', 'ip', ['addr', 'add', `${network.gateway}/24`, 'dev', 'eth0']);
  const made = wire.serve('router', 'dnsmasq', [
    '-k',
    '-C',
    conf,
    '--port=0',
    '--bind-interfaces',
    '--interface=eth0',
    `--dhcp-leasefile=${leases}`,
    '--user=root',
    ...more,
  ]);
  await pause(400);
  expect(made.exitCode).toBeNull();
  return made;
}

const SCRIPT = room.path('lease.sh');
writeFileSync(SCRIPT, '#!/bin/sh\n[ "$1" = bound ] && echo "given $ip"\nexit 0\n', { mode: 0o755 });
/** What a real client is given; undefined where it is given nothing. */
function asks(name: string, again?: string): string | undefined {
  const { out } = wire.tried(name, 'busybox', [
    'udhcpc',
    '-i',
    'eth0',
    '-n',
    '-q',
    '-f',
    '-t',
    '3',
    '-T',
    '2',
    '-s',
    SCRIPT,
    ...(again === undefined ? [] : ['-r', again]),
  ]);
  return /^given (\S+)$/m.exec(out)?.[1];
}
const number = (address: string): number => Number(parseIp(address)?.value);
const text = (address: number): string => formatIp({ family: 4, value: BigInt(address) });

test('a client gets the address that was reserved for it, before and after a cut, leases kept and lost', async () => {
  const planned = [
    host('archive', card(), { manner: 'reservation', address: '10.77.5.20', label: 'archive' }),
    host('music', card(), { manner: 'reservation', address: '10.77.5.30' }),
    // Some reserve within what is handed out; it works with this server.
    host('within', card(), { manner: 'reservation', address: '10.77.5.103' }),
  ];
  wire.add('router', '02:00:00:00:00:01');
  for (const h of planned) wire.add(h.id, h.hardware ?? '');
  const leases = room.path('kept.leases');
  for (const lost of [false, false, true]) {
    if (lost) rmSync(leases, { force: true });
    const running = await server(NETWORK, planned, leases, ['--no-ping']);
    for (const h of lost ? [...planned].reverse() : planned) expect(asks(h.id)).toBe(h.address);
    await wire.end(running);
  }
});

/** All orders of a few. */
function orders<T>(all: readonly T[]): T[][] {
  if (all.length < 2) return [[...all]];
  return all.flatMap((x, i) => orders([...all.slice(0, i), ...all.slice(i + 1)]).map((rest) => [x, ...rest]));
}

/** Cards of which several want the same place in the pool, so that the order matters. */
function crowding(count: number): string[] {
  const first = card();
  const size = number(NETWORK.pool?.to ?? '') - number(NETWORK.pool?.from ?? '') + 1;
  const want = hardwareHash(first) % size;
  const out = [first];
  while (out.length < count) {
    const next = card();
    if ((hardwareHash(next) % size === want) === out.length < 2) out.push(next);
  }
  return out;
}

test.each(['by hardware address', 'in order'] as const)(
  'who is new is given what was foretold, in every order: %s',
  async (manner) => {
    const network = { ...NETWORK, manner };
    const hosts = crowding(3).map((hardware, i) => host(`c${i}`, hardware));
    const kept = host('kept', card(), { manner: 'reservation', address: '10.77.5.101' });
    wire.add('router', '02:00:00:00:00:01');
    for (const h of hosts) wire.add(h.id, h.hardware ?? '');
    const scene = cutScene(network, [...hosts, kept], 60);
    expect(scene.ways).toEqual([{ manner, remembers: false, looks: true }]);
    const pool = { ...scene.pool, manner } as Parameters<typeof allot>[0];
    let played = 0;
    const seen = new Map<string, Set<string>>(hosts.map((h) => [h.id, new Set()]));
    for (const order of orders(hosts)) {
      const leases = room.path(`${manner}-${(played += 1)}.leases`);
      const running = await server(network, [...hosts, kept], leases, ['--no-ping']);
      const busy = new Set<number>();
      let last: number | undefined;
      for (const h of order) {
        const foretold = allot(pool, h.hardware, busy, last);
        const got = asks(h.id);
        expect({ order: order.map((o) => o.id), host: h.id, got }).toEqual({
          order: order.map((o) => o.id),
          host: h.id,
          got: foretold === undefined ? undefined : text(foretold),
        });
        seen.get(h.id)?.add(got ?? '');
        if (foretold !== undefined) busy.add(foretold);
        last = foretold === undefined ? last : Math.max(foretold, last ?? foretold);
      }
      await wire.end(running);
    }
    // What the count says may happen is what happened, no more and no less.
    const counted = countOrders(
      scene.returning.map((r) => ({ ...r, asksAgain: false })),
      pool,
      { manner, remembers: false, looks: true },
    );
    for (const h of hosts)
      expect([...(seen.get(h.id) ?? [])].sort()).toEqual(
        [...(counted?.get(h.id)?.at ?? [])].map(text).sort(),
      );
  },
);

test('after a cut: who asks again, who does not, and what the server remembers', async () => {
  const [a = '', b = ''] = crowding(2);
  const hosts = [host('first', a), host('second', b)];
  wire.add('router', '02:00:00:00:00:01');
  for (const h of hosts) wire.add(h.id, h.hardware ?? '');
  const leases = room.path('cut.leases');
  let running = await server(NETWORK, hosts, leases, ['--no-ping']);
  const before = new Map(hosts.map((h) => [h.id, asks(h.id) ?? '']));
  expect(before.get('first')).not.toBe(before.get('second'));
  const had = hosts.map((h) => ({ ...h, address: before.get(h.id) ?? null }));
  const worlds = [
    { kept: true, again: [false, false] },
    { kept: false, again: [false, false] },
    { kept: false, again: [true, false] },
    { kept: false, again: [false, true] },
    { kept: false, again: [true, true] },
  ];
  for (const { kept, again } of worlds) {
    await wire.end(running);
    if (!kept) rmSync(leases, { force: true });
    running = await server(NETWORK, hosts, leases, ['--no-ping']);
    const network = { ...NETWORK, remembers: kept };
    const scene = cutScene(
      network,
      had.map((h, i) => ({ ...h, asksAgain: again[i] ?? null })),
      60,
    );
    const [way] = scene.ways;
    if (!way || !scene.pool) throw new Error('one way was to be played');
    const pool = { ...scene.pool, manner: way.manner };
    // The second comes back first: that is the order in which things move.
    const busy = new Set(promisedIn(scene.returning, way));
    const got: (string | undefined)[] = [];
    const foretold: string[] = [];
    for (const r of [...scene.returning].reverse()) {
      const [at] = given(pool, way, r, busy, undefined);
      foretold.push(at === undefined ? '' : text(at));
      if (at !== undefined) busy.add(at);
      got.push(asks(r.id, r.asksAgain === true ? before.get(r.id) : undefined));
    }
    expect({ kept, again, got }).toEqual({ kept, again, got: foretold });
    if (kept) expect(got.reverse()).toEqual(hosts.map((h) => before.get(h.id)));
    // The world is back as it was before the next cut.
    await wire.end(running);
    rmSync(leases, { force: true });
    running = await server(NETWORK, hosts, leases, ['--no-ping']);
    for (const h of hosts) asks(h.id, before.get(h.id));
  }
  await wire.end(running);
  // Told as a whole: without memory anywhere one of the two moves in half of the orders.
  const cut = cutPower(
    { ...NETWORK, remembers: false },
    had.map((h) => ({ ...h, asksAgain: false })),
  );
  expect(cut.worlds).toBe(2n);
  expect(cut.hosts.map((h) => h.moved)).toEqual([1n, 1n]);
});

test('a server that looks passes over an address where somebody answers, and we foretell which is next', async () => {
  const newcomer = host('newcomer', card());
  const pool = {
    from: number('10.77.5.100'),
    to: number('10.77.5.106'),
    kept: new Set<number>(),
    manner: 'by hardware address' as const,
  };
  const wanted = allot(pool, newcomer.hardware, new Set(), undefined) ?? 0;
  wire.add('router', '02:00:00:00:00:01');
  wire.add('newcomer', newcomer.hardware ?? '');
  wire.add('mast', '02:00:00:00:00:99');
  wire.in('mast', 'ip', ['addr', 'add', `${text(wanted)}/24`, 'dev', 'eth0']);
  const running = await server(NETWORK, [newcomer], room.path('looks.leases'));
  const next = allot(pool, newcomer.hardware, new Set([wanted]), undefined);
  // The server waits three seconds for an answer before it offers.
  expect(asks('newcomer') ?? asks('newcomer')).toBe(text(next ?? 0));
  await wire.end(running);
  const scene = cutScene(
    { ...NETWORK, remembers: false },
    [newcomer, host('mast', '02:00:00:00:00:99', { manner: 'fixed', address: text(wanted) })],
    60,
  );
  const fates = countOrders(scene.returning, pool, {
    manner: 'by hardware address',
    remembers: false,
    looks: true,
  });
  // Whoever is first has it: if that is the newcomer, the mast shares its address.
  expect([...(fates?.get('newcomer')?.at ?? [])].sort()).toEqual([wanted, next].sort());
  expect(fates?.get('mast')?.ill).toEqual(['newcomer', 'mast']);
});

test('the probe we tell people to type finds who answers, and nobody where nobody does', () => {
  wire.add('asker', '02:00:00:00:00:10');
  wire.add('printer', '02:00:00:00:00:11');
  wire.in('printer', 'ip', ['addr', 'add', '10.77.5.50/24', 'dev', 'eth0']);
  for (const [address, free] of [
    ['10.77.5.50', false],
    ['10.77.5.51', true],
  ] as const) {
    const [command = '', ...args] = probeCommand(address, 'eth0').split(' ');
    const { status } = wire.tried('asker', command, args);
    // arping(8): with -D it ends with 0 where nobody answered.
    expect({ address, free: status === 0 }).toEqual({ address, free });
  }
});

test('whole networks by dice: every one of many clients is given what was foretold', async () => {
  const count = ALL ? 40 : 8;
  wire.add('router', '02:00:00:00:00:01');
  const network: Network = { ...NETWORK, pool: { from: '10.77.5.100', to: '10.77.5.160' } };
  const hosts = Array.from({ length: count }, (_, i) => host(`d${i}`, card()));
  for (const h of hosts) wire.add(h.id, h.hardware ?? '');
  const running = await server(network, hosts, room.path('many.leases'), ['--no-ping']);
  const pool = {
    from: number('10.77.5.100'),
    to: number('10.77.5.160'),
    kept: new Set<number>(),
    manner: 'by hardware address' as const,
  };
  const busy = new Set<number>();
  for (const h of hosts) {
    const at = allot(pool, h.hardware, busy, undefined) ?? 0;
    busy.add(at);
    expect(asks(h.id)).toBe(text(at));
  }
  await wire.end(running);
});
