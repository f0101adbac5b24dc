/**
 * What we write for others, taken by them: `dnsmasq --test`, `dhcpd -t`, `kea-dhcp4 -t`, `netplan generate`, `ifup --no-act`,
 * `nmcli --offline`. And what others print, read by us: real output of every tool named, made in namespaces in this run.
 */
import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createHash } from 'node:crypto';
import { demoHosts, demoNetworks } from '@zb/core/demo/network';
import { blankNetwork, hostSchema, type Host, type Network } from '@zb/core/model/network';
import { hostKeyFingerprint } from '@zb/core/network/hostKey';
import { LOOK_SCRIPT } from '@zb/core/network/look';
import { readNetworkText } from '@zb/core/network/read/read';
import { dnsmasqConfig, hostsFile, iscConfig, keaConfig, networkCsv } from '@zb/core/network/write/servers';
import {
  ifupdownFile,
  netplanFile,
  networkdFile,
  networkManagerFile,
  staticPlan,
  type StaticPlan,
} from '@zb/core/network/write/static';
import { run, scratch } from './files';
import { lan, type Lan } from './lan';

jest.setTimeout(300_000);
const room = scratch();
let wire: Lan;
afterAll(() => room.clear());
beforeEach(() => {
  wire = lan();
});
afterEach(() => wire.clear());
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

const file = (name: string, text: string, mode = 0o644): string => {
  const path = room.path(name);
  writeFileSync(path, text, { mode });
  return path;
};
/** Ends with 0, or the test fails with what it said. */
function takes(command: string, args: string[], env: Record<string, string> = {}): string {
  const done = spawnSync(command, args, {
    encoding: 'utf8',
    env: { ...process.env, PATH: `${process.env.PATH ?? ''}:/usr/sbin:/sbin`, ...env },
  });
  if (done.status !== 0) throw new Error(`${command} ${args.join(' ')}: ${done.stdout}${done.stderr}`);
  return done.stdout + done.stderr;
}

const WRITTEN: [string, Network, Host[]][] = [
  ['the hall', demoNetworks[0] as Network, demoHosts],
  ['guests', demoNetworks[1] as Network, demoHosts],
  [
    'nothing handed out, no domain',
    { ...blankNetwork('bare', 'Bare'), prefix: '172.20.4.0/22', gateway: '172.20.4.1' },
    [
      hostSchema.parse({
        id: 'Müller’s box 1',
        name: 'Müller’s box',
        networkId: 'bare',
        hardware: '02-11-22-33-44-55',
        manner: 'reservation',
        address: '172.20.5.9',
      }),
    ],
  ],
];

test.each(WRITTEN)('servers take what we write: %s', (_, network, hosts) => {
  takes('dnsmasq', ['--test', '-C', file('a.conf', dnsmasqConfig(network, hosts))]);
  takes('dhcpd', ['-t', '-cf', file('b.conf', iscConfig(network, hosts))]);
  takes('kea-dhcp4', ['-t', file('c.json', keaConfig(network, hosts))], { KEA_LOCKFILE_DIR: 'none' });
});

const PLANS: [string, StaticPlan][] = [
  [
    'both families',
    staticPlan(
      demoNetworks[0] as Network,
      demoHosts.find((h) => h.id === 'host-archive') as Host,
    ) as StaticPlan,
  ],
  [
    'IPv4 alone, no card known',
    staticPlan(
      {
        ...blankNetwork('n', 'N'),
        prefix: '192.168.7.0/25',
        gateway: '192.168.7.1',
        nameServers: ['192.168.7.1', 'fd00::53'],
      },
      hostSchema.parse({
        id: 'x',
        name: 'x',
        networkId: 'n',
        manner: 'fixed',
        address: '192.168.7.9',
        port: 'enp3s0',
      }),
    ) as StaticPlan,
  ],
];

test.each(PLANS)('hosts that set their own take what we write: %s', (name, plan) => {
  const root = room.path(`netplan-${name.length}`);
  mkdirSync(join(root, 'etc/netplan'), { recursive: true });
  writeFileSync(join(root, 'etc/netplan/60-box.yaml'), netplanFile(plan), { mode: 0o600 });
  takes('netplan', ['generate', '--root-dir', root]);
  // What another program makes of the same plan says the same as our own file for it.
  const folder = join(root, 'run/systemd/network');
  const made = readdirSync(folder)
    .filter((f) => f.endsWith('.network'))
    .map((f) => readFileSync(join(folder, f), 'utf8'))
    .join('\n');
  const settings = (text: string): string[] =>
    text
      .split('\n')
      .filter((l) => /^(Address|Gateway|DNS|Domains)=/.test(l))
      .sort();
  expect(settings(made)).toEqual(settings(networkdFile(plan)));

  const said = takes('ifup', [
    '--no-act',
    '-v',
    '-i',
    file('interfaces', ifupdownFile(plan)),
    '-a',
    '--force',
  ]);
  expect(said).toContain(plan.four?.split('/')[0] ?? plan.six ?? '');

  const nm = spawnSync('nmcli', ['--offline', 'connection', 'modify', 'connection.autoconnect', 'yes'], {
    input: networkManagerFile(plan),
    encoding: 'utf8',
  });
  expect({ status: nm.status, stderr: nm.stderr }).toEqual({ status: 0, stderr: '' });
  const kept = (key: string): string | undefined => new RegExp(`^${key}=(.*)$`, 'm').exec(nm.stdout)?.[1];
  expect(kept('address1')).toBe(`${plan.four}${plan.gateway === null ? '' : `,${plan.gateway}`}`);
  if (plan.hardware !== null) expect(kept('mac-address')).toBe(plan.hardware.toUpperCase());
});

test('names and lists are read back as they were written', () => {
  const [hall] = demoNetworks as [Network];
  // getent reads our file as the machine’s own would be read (hosts(5)).
  const hosts = hostsFile(hall, demoHosts);
  const found = run(
    'python3',
    ['-c', 'import sys\nfor l in sys.stdin:\n  p=l.split("#")[0].split()\n  p and print(p[0],p[1])'],
    hosts,
  );
  const named = demoHosts.filter((h) => h.networkId === 'hall' && h.label !== null);
  for (const h of named) expect(found).toContain(`${h.address} ${h.label}.hall.home.arpa\n`);
  expect(readNetworkText(hosts).sightings.map((s) => s.address)).toEqual(
    found
      .trim()
      .split('\n')
      .map((l) => l.split(' ')[0]),
  );
  const rows = JSON.parse(
    run(
      'python3',
      ['-c', 'import csv,json,sys\njson.dump(list(csv.reader(sys.stdin)),sys.stdout)'],
      networkCsv(hall, demoHosts),
    ),
  ) as string[][];
  expect(rows.length).toBe(1 + demoHosts.filter((h) => h.networkId === 'hall').length);
  expect(new Set(rows.map((r) => r.length))).toEqual(new Set([6]));
  const back = readNetworkText(networkCsv(hall, demoHosts));
  expect(back.form).toBe('list of a router');
  expect(back.sightings.find((s) => s.name === 'Archive')).toMatchObject({
    seen: 'reservation',
    address: '10.44.8.20',
  });
});

const PLAIN: Network = {
  ...blankNetwork('n', 'Test'),
  prefix: '10.78.6.0/24',
  gateway: '10.78.6.1',
  pool: { from: '10.78.6.100', to: '10.78.6.120' },
  leaseSeconds: 3600,
};
const CARD = '02:5a:aa:bb:cc:01';
/** A client asks, with a name. */
function ask(name: string, says: string): void {
  wire.tried(name, 'busybox', [
    'udhcpc',
    '-i',
    'eth0',
    '-n',
    '-q',
    '-f',
    '-t',
    '4',
    '-T',
    '2',
    '-s',
    '/bin/true',
    '-x',
    `hostname:${says}`,
  ]);
}
const soon = (until: string | null): number =>
  until === null ? Number.NaN : (Date.parse(until) - Date.now()) / 1000;

test('lease files of three servers, each written by a real exchange', async () => {
  wire.add('router', '02:00:00:00:00:01');
  wire.add('till', CARD);
  wire.in('router', 'ip', ['addr', 'add', '10.78.6.1/24', 'dev', 'eth0']);
  const servers: [string, string, (leases: string) => [string, string[]]][] = [
    [
      'dnsmasq leases',
      'd.leases',
      (l) => [
        'dnsmasq',
        [
          '-k',
          '-C',
          file('d.conf', dnsmasqConfig(PLAIN, [])),
          '--port=0',
          '--bind-interfaces',
          '--interface=eth0',
          `--dhcp-leasefile=${l}`,
          '--user=root',
          '--no-ping',
        ],
      ],
    ],
    [
      'ISC leases',
      'i.leases',
      (l) => [
        'dhcpd',
        [
          '-4',
          '-f',
          '-q',
          '-user',
          'root',
          '-group',
          'root',
          '-cf',
          file('i.conf', iscConfig(PLAIN, [])),
          '-lf',
          l,
          '--no-pid',
          'eth0',
        ],
      ],
    ],
    [
      'Kea leases',
      'k.csv',
      (l) => {
        const json = JSON.parse(keaConfig(PLAIN, [], 'eth0')) as { Dhcp4: Record<string, unknown> };
        json.Dhcp4['lease-database'] = { type: 'memfile', persist: true, name: l };
        json.Dhcp4.loggers = [{ name: 'kea-dhcp4', severity: 'FATAL' }];
        return ['kea-dhcp4', ['-c', file('k.json', JSON.stringify(json))]];
      },
    ],
  ];
  process.env.KEA_LOCKFILE_DIR = 'none';
  process.env.KEA_PIDFILE_DIR = room.dir;
  for (const [form, name, start] of servers) {
    const leases = file(name, '');
    const [command, args] = start(leases);
    if (form === 'Kea leases') run('rm', ['-f', leases]);
    const server = wire.serve('router', command, args);
    await pause(form === 'Kea leases' ? 2500 : 1200);
    ask('till', 'till');
    if (form !== 'dnsmasq leases') ask('till', 'till');
    await pause(400);
    const text = readFileSync(leases, 'utf8');
    await wire.end(server);
    const reading = readNetworkText(text);
    expect(reading.form).toBe(form);
    expect(reading.sightings).toHaveLength(1);
    const [one] = reading.sightings;
    expect(one).toMatchObject({ hardware: CARD, name: 'till', seen: 'lease', dynamic: true });
    expect(one?.address).toMatch(/^10\.78\.6\.1(0\d|1\d|20)$/);
    expect(soon(one?.until ?? null)).toBeGreaterThan(3400);
    expect(soon(one?.until ?? null)).toBeLessThan(3700);
  }
});

test('addresses, routes and neighbours as tools print them, and our own look', async () => {
  wire.add('router', '02:00:00:00:00:01');
  wire.add('clerk', CARD);
  wire.add('mast', '02:00:00:00:00:99');
  wire.in('router', 'ip', ['addr', 'add', '10.78.6.1/24', 'dev', 'eth0']);
  wire.in('clerk', 'ip', ['addr', 'add', '10.78.6.11/24', 'dev', 'eth0']);
  wire.in('clerk', 'ip', ['addr', 'add', 'fd00:78::11/64', 'dev', 'eth0', 'nodad']);
  wire.in('clerk', 'ip', ['route', 'add', 'default', 'via', '10.78.6.1']);
  wire.in('mast', 'ip', ['addr', 'add', '10.78.6.90/24', 'dev', 'eth0']);
  wire.tried('clerk', 'ping', ['-c', '1', '-W', '1', '10.78.6.90']);
  wire.tried('clerk', 'arping', ['-c', '1', '-I', 'eth0', '10.78.6.90']);
  wire.tried('clerk', 'busybox', ['ping', '-c', '1', '-W', '1', '10.78.6.90']);
  wire.tried('clerk', 'busybox', ['ping', '-c', '1', '-W', '1', '10.78.6.77']);
  const addr = readNetworkText(wire.in('clerk', 'ip', ['-j', 'addr']));
  expect(addr).toMatchObject({
    form: 'ip addr',
    prefixes: expect.arrayContaining(['10.78.6.0/24', 'fd00:78::/64']) as unknown,
  });
  expect(addr.sightings).toEqual(
    expect.arrayContaining([
      expect.objectContaining({
        seen: 'own',
        address: '10.78.6.11',
        hardware: CARD,
        dynamic: false,
        bits: 24,
        port: 'eth0',
      }),
    ]),
  );
  expect(addr.sightings.map((s) => s.address)).not.toContain('127.0.0.1');
  const route = readNetworkText(wire.in('clerk', 'ip', ['-j', 'route']));
  expect(route).toMatchObject({ form: 'ip route', gateways: ['10.78.6.1'], prefixes: ['10.78.6.0/24'] });
  const mast = { seen: 'neighbour', address: '10.78.6.90', hardware: '02:00:00:00:00:99' };
  for (const [command, args, form] of [
    ['ip', ['-j', 'neigh'], 'ip neigh'],
    ['arp', ['-an'], 'arp'],
    ['busybox', ['arp', '-an'], 'arp'],
  ] as const) {
    const reading = readNetworkText(wire.in('clerk', command, [...args]));
    expect(reading.form).toBe(form);
    expect(reading.sightings.filter((s) => s.address === '10.78.6.90')).toEqual([
      expect.objectContaining(mast),
    ]);
    expect(reading.sightings.map((s) => s.address)).not.toContain('10.78.6.77');
  }

  // A page with a certificate of its own, and a shell, on the mast: only who is named is asked.
  const key = room.path('page.key');
  const pem = room.path('page.pem');
  run('openssl', [
    'req',
    '-x509',
    '-newkey',
    'rsa:2048',
    '-nodes',
    '-days',
    '90',
    '-subj',
    '/CN=mast',
    '-keyout',
    key,
    '-out',
    pem,
  ]);
  const page = wire.serve('mast', 'openssl', [
    's_server',
    '-quiet',
    '-accept',
    '8443',
    '-cert',
    pem,
    '-key',
    key,
    '-www',
  ]);
  run('ssh-keygen', ['-q', '-t', 'ed25519', '-N', '', '-f', room.path('hostkey')]);
  mkdirSync('/run/sshd', { recursive: true, mode: 0o755 });
  const shell = wire.serve('mast', '/usr/sbin/sshd', [
    '-D',
    '-E',
    '/dev/null',
    '-f',
    '/dev/null',
    '-h',
    room.path('hostkey'),
    '-p',
    '22',
    '-o',
    'PidFile=none',
  ]);
  await pause(900);
  const script = file('look.sh', LOOK_SCRIPT);
  for (const sh of [['dash'], ['busybox', 'sh']]) {
    const [command = '', ...args] = sh;
    const text = wire.in('clerk', command, [...args, script, 'https:10.78.6.90:8443', 'ssh:10.78.6.90']);
    const look = readNetworkText(text);
    expect(look.form).toBe('look report');
    expect(look.gateways).toEqual(['10.78.6.1']);
    expect(look.sightings).toEqual(expect.arrayContaining([expect.objectContaining(mast)]));
    const der = Buffer.from(readFileSync(pem, 'utf8').replace(/-----[^-]+-----|\s/g, ''), 'base64');
    const day = new Date(Date.now() + 90 * 86_400_000).toISOString().slice(0, 10);
    const [type, base64] = readFileSync(room.path('hostkey.pub'), 'utf8').split(' ');
    expect(look.shown).toEqual([
      {
        what: 'certificate',
        host: '10.78.6.90:8443',
        fingerprint: createHash('sha256').update(der).digest('hex'),
        expires: day,
      },
      { what: 'host key', host: '10.78.6.90', type, key: base64 },
    ]);
    // Told as the shell itself tells it (ssh-keygen -l).
    expect(run('ssh-keygen', ['-lf', room.path('hostkey.pub')])).toContain(
      await hostKeyFingerprint(base64 ?? ''),
    );
    expect(await hostKeyFingerprint('no key!')).toBeUndefined();
    // Asked of nobody, it shows nothing.
    expect(readNetworkText(wire.in('clerk', command, [...args, script])).shown).toEqual([]);
  }
  await wire.end(page);
  await wire.end(shell);
});
