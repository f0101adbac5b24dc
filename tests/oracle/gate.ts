/**
 * A gate with a machine on each of its ports, in network namespaces: rules are loaded into its kernel, packets sent at one port
 * and heard at the others. nftables, iproute2, Python's raw sockets; as root.
 */
import { spawn, spawnSync } from 'node:child_process';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import type { Topology } from '@zb/core/rules/ruleset';
import { grouped } from '@zb/core/units/group';
import { SELF } from '@zb/core/rules/flatten';
import { formatPlace } from '@zb/core/units/addressLine';
import { run } from './files';
import { heardOf, hex, packetBytes, type Heard, type Wire } from './frames';

const PACKETS = fileURLToPath(new URL('packets.py', import.meta.url));
const PYTHON = '/usr/bin/python3';
let made = 0;

/** What was seen of a packet: where it came out and as what, or that it came to the gate. */
export interface Seen {
  out: Map<number, { port: string; heard: Heard }>;
  atGate: Set<number>;
}

export interface GateRig {
  /** Runs a command in the gate. */
  in: (command: string, args: string[], input?: string) => string;
  tried: (command: string, args: string[], input?: string) => { status: number | null; out: string };
  /** Runs a command in the machine behind a port. */
  behind: (
    port: string,
    command: string,
    args: string[],
    input?: string,
  ) => { status: number | null; out: string };
  ns: string;
  /** Loads rules beside what is watched with. */
  load: (text: string) => void;
  /** Sends packets, each at its port, and answers what was seen of them. */
  send: (packets: readonly { at: string; wire: Wire }[]) => Promise<Seen>;
  clear: () => void;
}

const WATCH = `table inet watch {
	set four { typeof ip id . ip saddr; size 65535; flags dynamic; }
	set six { typeof ip6 flowlabel . ip6 saddr; size 65535; flags dynamic; }
	chain heard {
		type filter hook input priority 400;
		iifname "lo" return
		meta nfproto ipv4 add @four { ip id . ip saddr }
		meta nfproto ipv6 add @six { ip6 flowlabel . ip6 saddr }
	}
}
`;

/** A gate with these ports. Neighbours are not asked for: every address of a port lies on its wire. */
export function gateRig(topology: Topology): GateRig {
  const tag = `zbg${process.pid % 10_000}n${(made += 1)}`;
  const ns = `${tag}-gate`;
  const spaces = [ns];
  run('ip', ['netns', 'add', ns]);
  const inside = (where: string, command: string, args: string[]): string[] => [
    'netns',
    'exec',
    where,
    command,
    ...args,
  ];
  const tried = (where: string, command: string, args: string[], input?: string) => {
    const done = spawnSync('ip', inside(where, command, args), {
      // Hours of rules are read by the clock of whoever loads them.
      env: { ...process.env, TZ: 'UTC' },
      encoding: 'utf8',
      input,
      maxBuffer: 64 << 20,
    });
    return { status: done.status, out: `${done.stdout}${done.stderr}` };
  };
  const must = (where: string, command: string, args: string[], input?: string): string => {
    const done = tried(where, command, args, input);
    if (done.status !== 0) throw new Error(`${command} ${args.join(' ')}: ${done.out}`);
    return done.out;
  };
  const sysctl = (...lines: string[]): string => must(ns, 'sysctl', ['-q', '-w', ...lines]);
  sysctl(
    'net.ipv4.ip_forward=1',
    'net.ipv6.conf.all.forwarding=1',
    'net.ipv6.conf.default.accept_dad=0',
    'net.ipv6.conf.default.accept_ra=0',
    'net.ipv4.conf.default.rp_filter=0',
    `net.ipv4.conf.all.rp_filter=${topology.reversePath ? 1 : 0}`,
  );
  must(ns, 'ip', ['link', 'set', 'lo', 'up']);
  const macs = new Map<string, string>();
  const space = new Map<string, string>();
  topology.ports.forEach((p, i) => {
    const far = `${tag}-z${i}`;
    spaces.push(far);
    space.set(p.name, far);
    run('ip', ['netns', 'add', far]);
    must(far, 'sysctl', ['-q', '-w', 'net.ipv6.conf.default.disable_ipv6=1']);
    run('ip', ['link', 'add', p.name, 'netns', ns, 'type', 'veth', 'peer', 'name', 'eth0', 'netns', far]);
    must(far, 'ip', ['link', 'set', 'eth0', 'up']);
    must(ns, 'ip', ['link', 'set', p.name, 'arp', 'off', 'up']);
    for (const own of p.own) {
      const bits =
        p.prefixes.find((t) => t.includes(':') === own.includes(':'))?.split('/')[1] ??
        (own.includes(':') ? '128' : '32');
      must(ns, 'ip', [
        'addr',
        'add',
        `${own}/${bits}`,
        'dev',
        p.name,
        ...(own.includes(':') ? ['nodad'] : ['brd', '+']),
      ]);
    }
    for (const prefix of p.prefixes)
      tried(ns, 'ip', [...(prefix.includes(':') ? ['-6'] : []), 'route', 'add', prefix, 'dev', p.name]);
    if (p.outside) {
      must(ns, 'ip', ['route', 'add', 'default', 'dev', p.name]);
      must(ns, 'ip', ['-6', 'route', 'add', 'default', 'dev', p.name]);
    }
    macs.set(
      p.name,
      must(ns, 'cat', [`/sys/class/net/${p.name}/address`])
        .trim()
        .replaceAll(':', ''),
    );
  });
  must(ns, 'nft', ['-f', '-'], WATCH);
  const listen = (port: string) => {
    const child = spawn('ip', inside(space.get(port) ?? '', PYTHON, [PACKETS, 'hear', 'eth0']), {
      stdio: ['pipe', 'pipe', 'inherit'],
    });
    const lines: string[] = [];
    const ready = new Promise<void>((resolve) => {
      createInterface({ input: child.stdout }).on('line', (l) => (l === 'ready' ? resolve() : lines.push(l)));
    });
    const ended = new Promise<void>((resolve) => child.on('close', () => resolve()));
    return { port, ready, lines, end: () => (child.stdin.end(), ended) };
  };
  /** Numbers with the sources they came from: what somebody else sent bears a number of ours by chance. */
  const elements = (set: string): string[] => {
    const found = JSON.parse(must(ns, 'nft', ['-j', 'list', 'set', 'inet', 'watch', set])) as {
      nftables: { set?: { elem?: { concat: [number, string] }[] } }[];
    };
    return found.nftables.flatMap((i) => i.set?.elem ?? []).map((e) => e.concat.join(' '));
  };
  return {
    ns,
    in: (command, args, input) => must(ns, command, args, input),
    tried: (command, args, input) => tried(ns, command, args, input),
    behind: (port, command, args, input) => tried(space.get(port) ?? '', command, args, input),
    load(text) {
      must(ns, 'nft', ['flush', 'ruleset']);
      must(ns, 'nft', ['-f', '-'], WATCH);
      must(ns, 'nft', ['-f', '-'], text);
    },
    async send(packets) {
      must(ns, 'nft', ['flush', 'set', 'inet', 'watch', 'four']);
      must(ns, 'nft', ['flush', 'set', 'inet', 'watch', 'six']);
      const ears = topology.ports.map((p) => listen(p.name));
      await Promise.all(ears.map((e) => e.ready));
      const byPort = grouped(packets, (p) => p.at);
      for (const [at, list] of byPort) {
        if (at === SELF) {
          const done = tried(
            ns,
            PYTHON,
            [PACKETS, 'own'],
            `${list.map((p) => hex(packetBytes(p.wire))).join('\n')}\n`,
          );
          if (done.status !== 0) throw new Error(done.out);
          continue;
        }
        const lines = list.map(({ wire }) => {
          const bytes = packetBytes(wire);
          return `${macs.get(at) ?? ''}020000000001${(bytes[0] ?? 0) >> 4 === 4 ? '0800' : '86dd'}${hex(bytes)}`;
        });
        const done = tried(space.get(at) ?? '', PYTHON, [PACKETS, 'send', 'eth0'], `${lines.join('\n')}\n`);
        if (done.status !== 0) throw new Error(done.out);
      }
      await new Promise((r) => setTimeout(r, 300));
      await Promise.all(ears.map((e) => e.end()));
      const byTag = new Map(packets.map((p) => [p.wire.tag, p.wire]));
      const out: Seen['out'] = new Map();
      for (const { port, lines } of ears)
        for (const line of lines) {
          const heard = heardOf(line);
          const wire = byTag.get(heard.tag);
          // What the gate says of its own accord bears numbers by chance: an error of ICMP is of another type, a reset has other ports.
          const ours =
            wire?.proto === heard.proto &&
            (heard.proto === 1 || heard.proto === 58
              ? heard.dport === wire.dport
              : heard.sport === wire.sport);
          if (ours) out.set(heard.tag, { port, heard });
        }
      const there = new Set([...elements('four'), ...elements('six')]);
      const came = packets.filter(({ wire }) => there.has(`${wire.tag} ${formatPlace(wire.saddr)}`));
      return { out, atGate: new Set(came.map(({ wire }) => wire.tag)) };
    },
    clear() {
      for (const s of spaces) spawnSync('ip', ['netns', 'del', s]);
    },
  };
}
