/**
 * Rules of a gate against the kernel's own filter: rulesets loaded into a network namespace with a machine on each port, packets
 * of every kind sent and watched at the other side (nft, Linux netfilter). What passed, where it came out, with which address
 * and port, is what was told.
 */
import { spawn } from 'node:child_process';
import { existsSync, writeFileSync } from 'node:fs';
import { hallGate } from '@zb/core/demo/gate';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { gateFileSchema, type GatePlan } from '@zb/core/model/gate';
import { hostSchema, type Network } from '@zb/core/model/network';
import { compareRules } from '@zb/core/rules/compare';
import { compileGate } from '@zb/core/rules/compile';
import { SELF } from '@zb/core/rules/flatten';
import { firstState } from '@zb/core/rules/protocols';
import { readNftJson } from '@zb/core/rules/read/nftJson';
import { ownOf, routesOf } from '@zb/core/rules/routes';
import type { Ruleset, Topology } from '@zb/core/rules/ruleset';
import { topologyOf } from '@zb/core/rules/topology';
import { walkPacket, type NumberedPacket, type Walk } from '@zb/core/rules/walk';
import { rollbackScript } from '@zb/core/rules/write/rollback';
import { writeGate } from '@zb/core/rules/write/forms';
import { writeNft } from '@zb/core/rules/write/nft';
import { addressSpans, familyAt, formatPlace } from '@zb/core/units/addressLine';
import { randomFrom } from '@zb/core/units/random';
import { inSpans } from '@zb/core/units/spans';
import { seedOfRun } from './damage';
import { scratch } from './files';
import { packetBytes, wireOf, type Wire } from './frames';
import { gateRig, type GateRig, type Seen } from './gate';
import { HOSTILE } from './hostileRules';
import { planAtRandom, PLAN_NETWORKS } from './randomPlans';

jest.setTimeout(600_000);
const ALL = process.env.ZB_RULES === 'all';
const dice = randomFrom(seedOfRun());
const upTo = (n: number): number => Math.floor(dice() * n);
const one = <T>(list: readonly T[]): T => list[upTo(list.length)] as T;

let rig: GateRig | undefined;
afterEach(() => {
  rig?.clear();
  rig = undefined;
});

/** Numbers at which some rule begins or ends, one below and one above. */
function edges(ruleset: Ruleset, topology: Topology) {
  const found = {
    address: new Set<bigint>(),
    port: new Set<number>(),
    proto: new Set<number>([6, 17, 1, 58]),
  };
  const all = (spans: readonly (readonly [bigint, bigint])[]): bigint[] =>
    spans.flatMap(([a, b]) => [a - 1n, a, a + 1n, b - 1n, b, b + 1n]);
  const addresses = [
    ...topology.ports.flatMap((p) => [...p.prefixes, ...p.own]),
    '198.18.4.9',
    '8.9.10.11',
    '2600:1234::9',
  ];
  for (const a of all(addressSpans(addresses))) found.address.add(a);
  for (const c of ruleset.chains)
    for (const r of c.rules) {
      if (r.verdict.kind === 'dnat' && r.verdict.port !== null) found.port.add(r.verdict.port);
      for (const { spans } of r.when) {
        for (const a of all([...(spans.saddr ?? []), ...(spans.daddr ?? [])])) found.address.add(a);
        for (const n of all([...(spans.sport ?? []), ...(spans.dport ?? [])])) found.port.add(Number(n));
      }
    }
  const usable = (a: bigint): boolean => a >= 0n && a < (1n << 32n) + (1n << 128n);
  return {
    four: [...found.address].filter((a) => usable(a) && familyAt(a) === 4),
    six: [...found.address].filter((a) => usable(a) && familyAt(a) === 6),
    port: [...found.port].filter((n) => n > 0 && n < 65_536),
  };
}

const TYPES = { 1: [8 * 256, 13 * 256], 58: [128 * 256, 135 * 256, 134 * 256] } as const;

/** Packets that begin something, so that every edge of a rule is among them, and as many at random as are asked for. */
function packetsFor(ruleset: Ruleset, topology: Topology, count: number): NumberedPacket[] {
  const { four, six, port } = edges(ruleset, topology);
  const ways = [...topology.ports.map((p) => p.name), SELF];
  const routes = routesOf(topology);
  const out: NumberedPacket[] = [];
  const add = (more: Partial<NumberedPacket>): void => {
    const family = more.saddr ?? more.daddr;
    const list = (family === undefined ? upTo(3) > 0 : familyAt(family) === 4) ? four : six;
    const isSix = list === six;
    const proto = more.proto ?? one([6, 6, 17, 17, isSix ? 58 : 1]);
    const icmp = proto === 1 || proto === 58;
    const iif = more.iif ?? one(ways);
    const behind = routes.behind.get(iif);
    // Half of them come from where they say they do.
    const honest = behind && upTo(2) === 0 ? list.filter((a) => inSpans(behind, a)) : list;
    const dport = icmp ? one(TYPES[proto]) : (more.dport ?? (port.length > 0 ? one(port) : 80));
    const p: NumberedPacket = {
      iif,
      saddr: one(iif === SELF ? own(topology, isSix) : honest.length > 0 ? honest : list),
      daddr: one(list),
      proto,
      sport: icmp ? 0 : (more.sport ?? 20_000 + upTo(40_000)),
      day: new Date().getUTCDay(),
      second: secondNow(),
      over: new Set(),
      matches: new Set(),
      ...more,
      dport,
      state: firstState(proto, dport),
    };
    if (sendable(p)) out.push(p);
  };
  for (const a of [...four, ...six]) {
    add({ daddr: a });
    add({ saddr: a, iif: one(topology.ports.map((p) => p.name)) });
  }
  for (const n of port) {
    add({ dport: n, proto: 6 });
    add({ dport: n, proto: 17 });
    add({ sport: n, proto: one([6, 17]) });
  }
  while (out.length < count) add({});
  return out;
}

const secondNow = (): number => {
  const now = new Date();
  return now.getUTCHours() * 3600 + now.getUTCMinutes() * 60 + now.getUTCSeconds();
};
const own = (topology: Topology, six: boolean): bigint[] =>
  topology.ports
    .flatMap((p) => ownOf({ ...p, fromLine: false }).map(([a]) => a))
    .filter((a) => (familyAt(a) === 6) === six);

/** Packets whose end the wire does not show: those to everybody, to nobody, and those the gate would send to itself. */
function sendable(p: NumberedPacket): boolean {
  const odd = addressSpans([
    '224.0.0.0/4',
    '255.255.255.255',
    '127.0.0.0/8',
    '0.0.0.0/8',
    'ff00::/8',
    '::/127',
    'fe80::/10',
  ]);
  return !inSpans(odd, p.daddr) && !(p.iif === SELF && inSpans(odd, p.saddr));
}

/** Every packet sent and compared; answers what differed, in words. */
async function differences(
  gate: GateRig,
  ruleset: Ruleset,
  topology: Topology,
  packets: readonly { packet: NumberedPacket; wire: Wire }[],
): Promise<string[]> {
  const routes = routesOf(topology);
  const seen = await gate.send(packets.map(({ packet, wire }) => ({ at: packet.iif, wire })));
  return packets.flatMap(({ packet, wire }) => {
    const walk = walkPacket(ruleset, routes, packet);
    const wrong = differs(walk, packet, seen, wire.tag, routes.own);
    return wrong === null
      ? []
      : [
          `${packet.iif} ${formatPlace(packet.saddr)}:${packet.sport} > ${formatPlace(packet.daddr)}:${packet.dport} proto ${packet.proto} ${packet.state}: told ${walk.end} to ${walk.out} by ${walk.by}, ${wrong}`,
        ];
  });
}

function differs(
  walk: Walk,
  p: NumberedPacket,
  seen: Seen,
  tag: number,
  ownAddresses: ReturnType<typeof ownOf>,
): string | null {
  const out = seen.out.get(tag);
  if (walk.end !== 'passes')
    return out ? `came out at ${out.port}` : seen.atGate.has(tag) ? 'came to the gate' : null;
  if (walk.out === null) {
    // What the gate sends to itself goes over its loopback, and no port shows it.
    if (p.iif === SELF) return null;
    return seen.atGate.has(tag) ? null : 'did not come to the gate';
  }
  if (!out) return 'came out nowhere';
  if (out.port !== walk.out) return `came out at ${out.port}`;
  const { daddr, dport } = walk.translated ?? p;
  if (out.heard.daddr !== daddr || out.heard.dport !== dport)
    return `went to ${formatPlace(out.heard.daddr)}:${out.heard.dport}`;
  const kept = out.heard.saddr === p.saddr;
  if (walk.leavesAs === null) return kept ? null : `left as ${formatPlace(out.heard.saddr)}`;
  const wanted = walk.leavesAs === 'its own' ? ownAddresses : addressSpans([walk.leavesAs]);
  return inSpans(wanted, out.heard.saddr) ? null : `left as ${formatPlace(out.heard.saddr)}`;
}

const tagged = (packets: readonly NumberedPacket[]) =>
  packets.map((packet, i) => ({ packet, wire: wireOf(packet, i + 1) }));

const HALL = gateFileSchema.parse({
  gate: {
    zones: [
      { id: 'outside', name: 'Outside', kind: 'outside' },
      { id: 'hall', name: 'Hall', kind: 'inside', tells: true },
      { id: 'guests', name: 'Guests', kind: 'guests' },
    ],
    ports: [
      { id: 'p1', device: 'wan', zoneId: 'outside', own: ['100.72.16.9', '2600:77::9'] },
      { id: 'p2', device: 'hall', zoneId: 'hall', networkId: 'n0' },
      { id: 'p3', device: 'guests', zoneId: 'guests', networkId: 'n1' },
    ],
    addresses: [{ id: 'archive', name: 'Archive', entries: ['10.0.0.20', 'fd00:0:0:1::14'] }],
    services: [
      {
        id: 'web',
        name: 'Web',
        entries: [
          { protocol: 'tcp', ports: [80, 80] },
          { protocol: 'tcp', ports: [443, 443] },
          { protocol: 'udp', ports: [443, 443] },
        ],
      },
      {
        id: 'page',
        name: 'Page',
        entries: [
          { protocol: 'tcp', ports: [443, 443] },
          { protocol: 'tcp', ports: [22, 22] },
        ],
      },
      {
        id: 'names',
        name: 'Names',
        entries: [
          { protocol: 'udp', ports: [53, 53] },
          { protocol: 'tcp', ports: [53, 53] },
        ],
      },
      {
        id: 'echo',
        name: 'Echo',
        entries: [
          { protocol: 'icmp', types: [8] },
          { protocol: 'icmpv6', types: [128] },
        ],
      },
    ],
    permits: [
      { id: 'hall-out', from: { zone: 'hall' }, to: { zone: 'outside' } },
      { id: 'guests-web', from: { zone: 'guests' }, to: { zone: 'outside' }, services: ['web'] },
      { id: 'reading', from: { zone: 'guests' }, to: { zone: 'hall', addresses: ['archive'] } },
      {
        id: 'hall-page',
        from: { zone: 'hall' },
        to: { zone: 'gate' },
        services: ['page', 'names', 'echo'],
        log: true,
      },
      { id: 'guest-names', from: { zone: 'guests' }, to: { zone: 'gate' }, services: ['names'] },
      { id: 'gate-out', from: { zone: 'gate' }, to: { zone: 'outside' } },
    ],
    forwards: [
      { id: 'scans', name: 'scans page', protocol: 'tcp', ports: [8080, 8082], to: '10.0.0.20', toPort: 80 },
    ],
  },
  networks: PLAN_NETWORKS,
});

/** Loads a plan's rules, and answers what the kernel then says it has. */
function loaded(gate: GateRig, plan: GatePlan, networks: readonly Network[]) {
  const ruleset = compileGate(plan, networks);
  gate.load(writeNft(ruleset, plan));
  const listed = readNftJson(gate.in('nft', ['-j', 'list', 'table', 'inet', 'gate']));
  return { ruleset, listed };
}

/** Ranges in a line, for whoever reads a failure. */
const spoken = (spans: object): string =>
  JSON.stringify(spans, (_, v: unknown) => (typeof v === 'bigint' ? String(v) : v));

const plans: [string, GatePlan, Network[]][] = [
  ['the hall', HALL.gate, HALL.networks],
  ...Array.from({ length: ALL ? 30 : 3 }, (_, i): [string, GatePlan, Network[]] => [
    `a plan at random, ${i + 1}`,
    planAtRandom(upTo(2 ** 31)),
    PLAN_NETWORKS,
  ]),
];

describe('rules of a plan, in the kernel', () => {
  it.each(plans)('let through what was told: %s', async (_, plan, networks) => {
    const topology = topologyOf(plan, networks);
    rig = gateRig(topology);
    const { ruleset, listed } = loaded(rig, plan, networks);
    expect(listed.unknown).toEqual([]);
    // What the kernel lists, read back, decides no packet otherwise than the plan.
    const compared = compareRules({ ruleset, topology }, { ruleset: listed.ruleset, topology });
    expect(
      compared.changed.map((c) => `${c.iif.join()} ${c.was.code} ${c.is.code} ${spoken(c.spans)}`),
    ).toEqual([]);
    const packets = tagged(packetsFor(ruleset, topology, ALL ? 3000 : 700));
    expect(packets.length).toBeGreaterThanOrEqual(400);
    expect(await differences(rig, ruleset, topology, packets)).toEqual([]);
  });
});

describe('rules somebody else wrote, read from the kernel', () => {
  it.each(HOSTILE)('let through what was told: $name', async ({ topology, text }) => {
    rig = gateRig(topology);
    rig.load(text);
    const listed = JSON.parse(rig.in('nft', ['-j', 'list', 'ruleset'])) as {
      nftables: Record<string, { table?: string; name?: string }>[];
    };
    const theirs = listed.nftables.filter((i) =>
      Object.values(i).every((v) => v.table !== 'watch' && v.name !== 'watch'),
    );
    const { ruleset, unknown } = readNftJson(JSON.stringify({ nftables: theirs }));
    expect(unknown).toEqual([]);
    expect(ruleset.strange).toEqual([]);
    const packets = tagged(packetsFor(ruleset, topology, ALL ? 3000 : 700));
    expect(await differences(rig, ruleset, topology, packets)).toEqual([]);
  });
});

/** Loose rules under which every conversation begins, so that its answers are known when the real ones come. */
const LOOSE =
  'table inet loose { chain f { type filter hook forward priority 0; ct state new accept; }; chain i { type filter hook input priority 0; ct state new accept; }; }';

describe('packets of conversations', () => {
  it('that are known, that are errors about known ones, and that belong to none', async () => {
    const { gate: plan, networks } = HALL;
    const topology = topologyOf(plan, networks);
    const routes = routesOf(topology);
    rig = gateRig(topology);
    rig.in('sysctl', ['-q', '-w', 'net.netfilter.nf_conntrack_tcp_be_liberal=1']);
    rig.load(LOOSE);
    const ruleset = compileGate(plan, networks);
    const begun = packetsFor(ruleset, topology, 900).filter((p) => {
      const behind = routes.behind.get(p.iif);
      const back = [...routes.behind].find(([, s]) => inSpans(s, p.daddr))?.[0];
      // Both ends honest, and through the gate from one port to another.
      return behind && inSpans(behind, p.saddr) && back !== undefined && back !== p.iif && p.state === 'new';
    });
    const first = tagged(begun);
    const seen = await rig.send(first.map(({ packet, wire }) => ({ at: packet.iif, wire })));
    const known = first.filter(({ wire }) => seen.out.has(wire.tag)).slice(0, 300);
    expect(known.length).toBeGreaterThan(100);
    rig.load(writeNft(ruleset, plan));
    let tag = 2000;
    const next: { packet: NumberedPacket; wire: Wire }[] = [];
    const add = (packet: NumberedPacket, more: Partial<Wire> = {}): void => {
      tag += 1;
      next.push({ packet, wire: { ...wireOf(packet, tag), ...more } });
    };
    for (const { packet: p, wire } of known) {
      const far = [...routes.behind].find(([, s]) => inSpans(s, p.daddr))?.[0] ?? '';
      const about = { ...p, iif: far, saddr: p.daddr, daddr: p.saddr };
      if (p.proto === 6 || p.proto === 17) {
        add(
          { ...about, sport: p.dport, dport: p.sport, state: 'established' },
          { flags: 0x12, acknowledges: 2 },
        );
        add(
          {
            ...about,
            proto: familyAt(p.saddr) === 4 ? 1 : 58,
            sport: 0,
            dport: familyAt(p.saddr) === 4 ? 3 * 256 + 3 : 256,
            state: 'related',
          },
          { quotes: packetBytes(wire) },
        );
        // An error about a conversation nobody had.
        add(
          {
            ...about,
            proto: familyAt(p.saddr) === 4 ? 1 : 58,
            sport: 0,
            dport: familyAt(p.saddr) === 4 ? 3 * 256 + 3 : 256,
            state: 'invalid',
          },
          { quotes: packetBytes({ ...wire, sport: wire.sport ^ 0x55 || 1, dport: wire.dport ^ 0x2a || 1 }) },
        );
      }
    }
    expect(new Set(next.map((n) => n.packet.state)).size).toBe(3);
    expect(next.length).toBeGreaterThanOrEqual(400);
    expect(await differences(rig, ruleset, topology, next)).toEqual([]);
  });

  it('above a rate are stopped, and below it let through', async () => {
    const { networks } = HALL;
    const plan = gateFileSchema.parse({
      gate: {
        ...HALL.gate,
        permits: [
          {
            id: 'few',
            from: { zone: 'hall' },
            to: { zone: 'outside' },
            services: ['web'],
            rate: { count: 1, per: 'hour', burst: 3 },
          },
        ],
      },
      networks,
    }).gate;
    const topology = topologyOf(plan, networks);
    rig = gateRig(topology);
    const ruleset = compileGate(plan, networks);
    rig.load(writeNft(ruleset, plan));
    const packets = Array.from({ length: 20 }, (_, i): { packet: NumberedPacket; wire: Wire } => {
      const packet: NumberedPacket = {
        iif: 'hall',
        saddr: addressSpans(['10.0.0.50'])[0]?.[0] ?? 0n,
        daddr: addressSpans(['8.9.10.11'])[0]?.[0] ?? 0n,
        proto: 6,
        sport: 30_000 + i,
        dport: 443,
        state: 'new',
        day: 3,
        second: 1,
        over: new Set(i < 3 ? [] : ['permit few.1', 'permit few.2']),
        matches: new Set(),
      };
      return { packet, wire: wireOf(packet, i + 1) };
    });
    expect(await differences(rig, ruleset, topology, packets)).toEqual([]);
  });
});

describe('the script with a way back', () => {
  const { networks } = HALL;
  const FIRST = 'table inet before { chain i { type filter hook input priority 0; policy accept; }; }';
  const pause = (s: number): Promise<void> => new Promise((r) => setTimeout(r, s * 1000));
  /** The hall's plan, with a seat or without a way from it to the page. */
  const planWith = (permits: GatePlan['permits']): GatePlan => ({
    ...HALL.gate,
    permits,
    confirmSeconds: 60,
  });
  const reaches = async (gate: GateRig, tag: number): Promise<boolean> => {
    const packet = { saddr: '10.0.0.50', daddr: '10.0.0.1' };
    const at = (a: string): bigint => addressSpans([a])[0]?.[0] ?? 0n;
    const wire: Wire = {
      saddr: at(packet.saddr),
      daddr: at(packet.daddr),
      proto: 6,
      sport: 20_000 + tag,
      dport: 443,
      tag,
    };
    return (await gate.send([{ at: 'hall', wire }])).atGate.has(tag);
  };
  const script = (
    gate: GateRig,
    plan: GatePlan,
    keep: string,
    act: string,
  ): { status: number | null; out: string } =>
    gate.tried('sh', [
      '-c',
      `WAIT=2 KEEP=${keep} LIVE=${keep}/live.conf sh -s ${act} <<'SCRIPT'\n${rollbackScript(compileGate(plan, networks), plan)}SCRIPT\n`,
    ]);

  it('comes back by itself where whoever loaded it is locked out', async () => {
    rig = gateRig(topologyOf(HALL.gate, networks));
    rig.load(FIRST);
    expect(await reaches(rig, 11)).toBe(true);
    const locked = planWith([]);
    const room = scratch();
    expect(script(rig, locked, room.dir, 'load').status).toBe(0);
    expect(await reaches(rig, 12)).toBe(false);
    await pause(2.5);
    expect(await reaches(rig, 13)).toBe(true);
    expect(rig.in('nft', ['list', 'tables'])).toContain('before');
    expect(existsSync(room.path('live.conf'))).toBe(false);
    room.clear();
  });

  it('stays where somebody confirms it, and is written for the next start', async () => {
    rig = gateRig(topologyOf(HALL.gate, networks));
    rig.load(FIRST);
    const room = scratch();
    expect(script(rig, HALL.gate, room.dir, 'load').status).toBe(0);
    expect(await reaches(rig, 21)).toBe(true);
    // A second load while one waits would lose the rules from before.
    expect(script(rig, HALL.gate, room.dir, 'load').status).toBe(1);
    expect(script(rig, HALL.gate, room.dir, 'confirm').status).toBe(0);
    await pause(2.5);
    expect(rig.in('nft', ['list', 'tables'])).toContain('table inet gate');
    rig.in('nft', ['-c', '-f', room.path('live.conf')]);
    expect(script(rig, HALL.gate, room.dir, 'confirm').status).toBe(1);
    room.clear();
  });
});

describe('what else the gate is given', () => {
  it('is taken by dnsmasq and by sysctl', () => {
    const plan = hallGate();
    const { networks, hosts } = saltmarshHall();
    rig = gateRig(topologyOf(HALL.gate, HALL.networks));
    const room = scratch();
    const conf = room.path('names.conf');
    writeFileSync(conf, writeGate('dnsmasq', plan, networks, hosts));
    expect(rig.tried('dnsmasq', ['--test', '-C', conf]).out).toContain('syntax check OK');
    const settings = room.path('gate.conf');
    writeFileSync(settings, writeGate('sysctl', HALL.gate, HALL.networks, []));
    expect(rig.tried('sysctl', ['-p', settings])).toMatchObject({ status: 0 });
    expect(rig.in('cat', ['/proc/sys/net/ipv6/conf/wan/accept_ra']).trim()).toBe('2');
    writeFileSync(room.path('demo.nft'), writeGate('nft', plan, networks, hosts));
    expect(rig.tried('nft', ['-c', '-f', room.path('demo.nft')]).status).toBe(0);
    room.clear();
  });

  it('names are answered inside, with their addresses, and not outside', async () => {
    const { gate: plan, networks } = HALL;
    const named = networks.map((n) => (n.id === 'n0' ? { ...n, domain: 'hall.home.arpa' } : n));
    const hosts = [
      hostSchema.parse({
        id: 'h',
        name: 'Archive',
        networkId: 'n0',
        manner: 'fixed',
        address: '10.0.0.20',
        address6: 'fd00:0:0:1::14',
        label: 'archive',
      }),
    ];
    rig = gateRig(topologyOf(plan, networks));
    const room = scratch();
    const conf = room.path('names.conf');
    writeFileSync(conf, writeGate('dnsmasq', plan, named, hosts));
    const server = spawn(
      'ip',
      [
        'netns',
        'exec',
        rig.ns,
        'dnsmasq',
        '-k',
        '-C',
        conf,
        `--dhcp-leasefile=${room.path('l')}`,
        `--pid-file=${room.path('p')}`,
        '--user=root',
      ],
      { stdio: 'ignore' },
    );
    await new Promise((r) => setTimeout(r, 800));
    const listening = rig.in('ss', ['-lun']);
    expect(rig.tried('busybox', ['nslookup', 'archive.hall.home.arpa', '10.0.0.1']).out).toContain(
      '10.0.0.20',
    );
    expect(listening).toMatch(/10\.0\.0\.1:53/);
    expect(listening).not.toMatch(/100\.72\.16\.9:53/);
    server.kill('SIGKILL');
    room.clear();
  });
});
