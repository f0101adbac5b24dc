/**
 * The arithmetic of addresses against Python's `ipaddress` (standard library) and `ipcalc`, on prefixes and addresses by dice,
 * of both families.
 */
import fc from 'fast-check';
import { rangeOf } from '@zb/core/network/ranges';
import { formatIp, parseIp, type Ip } from '@zb/core/units/ip';
import { ownAddress6 } from '@zb/core/units/hardware';
import {
  bitsOfMask,
  formatPrefix,
  holds,
  isHostAddress,
  lastOf,
  maskOf,
  overlap,
  prefixAround,
  reservedEnds,
  sizeOf,
} from '@zb/core/units/prefix';
import { run } from './files';
import { seedOfRun } from './damage';

const ALL = process.env.ZB_NETWORK === 'all';
const COUNT = ALL ? 4000 : 600;

const ip4 = fc.bigInt({ min: 0n, max: (1n << 32n) - 1n }).map((value): Ip => ({ family: 4, value }));
// Long runs of zeros are what the short form is about.
const ip6 = fc
  .array(fc.oneof(fc.constant(0), fc.integer({ min: 0, max: 0xffff })), { minLength: 8, maxLength: 8 })
  .map((groups): Ip => ({ family: 6, value: groups.reduce((sum, g) => (sum << 16n) | BigInt(g), 0n) }));
const one = fc.oneof(
  fc.tuple(ip4, fc.integer({ min: 0, max: 32 })),
  fc.tuple(ip6, fc.integer({ min: 0, max: 128 })),
);

const PYTHON = `
import ipaddress, json, sys
out = []
for a, abits, b, bbits in json.load(sys.stdin):
    n = ipaddress.ip_interface(f"{a}/{abits}").network
    m = ipaddress.ip_interface(f"{b}/{bbits}").network
    x = ipaddress.ip_address(b)
    out.append({
        "text": str(ipaddress.ip_address(a)), "network": str(n), "last": str(n.broadcast_address),
        "size": str(n.num_addresses), "mask": str(n.netmask),
        "holds": x in n if x.version == n.version else False,
        "overlaps": n.overlaps(m) if n.version == m.version else False,
        "loopback": x.is_loopback, "multicast": x.is_multicast, "link": x.is_link_local,
        "hosts": [str(h) for h in n.hosts()] if n.num_addresses <= 16 else None,
    })
json.dump(out, sys.stdout)
`;

interface Truth {
  text: string;
  network: string;
  last: string;
  size: string;
  mask: string;
  holds: boolean;
  overlaps: boolean;
  loopback: boolean;
  multicast: boolean;
  link: boolean;
  hosts: string[] | null;
}

// A second address near the first, so that prefixes hold it often enough.
const near = (ip: Ip, by: bigint): Ip => {
  const most = (1n << (ip.family === 4 ? 32n : 128n)) - 1n;
  return { family: ip.family, value: (ip.value ^ by) & most };
};
const cases = fc
  .sample(fc.tuple(one, fc.bigInt({ min: 0n, max: 1n << 20n }), one, fc.boolean()), {
    numRuns: COUNT,
    seed: seedOfRun(),
  })
  .map(([[a, abits], by, [c, cbits], far]) =>
    far || a.family !== c.family
      ? { a, abits, b: c, bbits: cbits }
      : { a, abits, b: near(a, by), bbits: cbits },
  );
const SPECIAL = [
  '127.9.9.9',
  '169.254.3.4',
  '224.0.0.251',
  '239.1.2.3',
  'fe80::7',
  'ff02::1',
  '::1',
  '10.0.0.0',
];
for (const text of SPECIAL) {
  const b = parseIp(text);
  if (b) cases.push({ a: b, abits: b.family === 4 ? 8 : 10, b, bbits: b.family === 4 ? 24 : 64 });
}

const truths = JSON.parse(
  run(
    'python3',
    ['-c', PYTHON],
    JSON.stringify(cases.map((c) => [formatIp(c.a), c.abits, formatIp(c.b), c.bbits])),
  ),
) as Truth[];

test(`${cases.length} prefixes and addresses, as Python reckons them`, () => {
  expect(truths).toHaveLength(cases.length);
  cases.forEach(({ a, abits, b, bbits }, i) => {
    const truth = truths[i] as Truth;
    const prefix = prefixAround(a, abits);
    const other = prefixAround(b, bbits);
    const kind = rangeOf(b)?.kind;
    const said = {
      text: formatIp(a),
      network: formatPrefix(prefix),
      last: formatIp(lastOf(prefix)),
      size: String(sizeOf(prefix)),
      holds: holds(prefix, b),
      overlaps: overlap(prefix, other),
      loopback: kind === 'loopback',
      multicast: kind === 'multicast',
      link: kind === 'link-local',
    };
    const { mask, hosts, ...rest } = truth;
    expect(said).toEqual(rest);
    if (a.family === 4) {
      expect(maskOf(abits)).toBe(mask);
      expect(bitsOfMask(mask)).toBe(abits);
    }
    // Python’s hosts() leaves out what no host may have.
    if (hosts && prefix.bits < (a.family === 4 ? 32 : 128)) {
      const ours: string[] = [];
      for (let v = prefix.base; v < prefix.base + sizeOf(prefix); v += 1n) {
        const ip: Ip = { family: a.family, value: v };
        if (isHostAddress(prefix, ip)) ours.push(formatIp(ip));
      }
      expect(ours).toEqual(hosts);
    }
  });
});

test('networks and their ends, as ipcalc prints them', () => {
  const four = cases.filter((c) => c.a.family === 4 && c.abits > 0 && c.abits < 31).slice(0, ALL ? 200 : 24);
  expect(four.length).toBeGreaterThan(20);
  for (const { a, abits } of four) {
    const text = run('ipcalc', ['-n', '-b', `${formatIp(a)}/${abits}`]);
    const line = (name: string): string | undefined => new RegExp(`^${name}:\\s+(\\S+)`, 'm').exec(text)?.[1];
    const prefix = prefixAround(a, abits);
    expect(line('Network')).toBe(formatPrefix(prefix));
    expect(line('Netmask')).toBe(maskOf(abits));
    expect(line('Broadcast')).toBe(formatIp(reservedEnds(prefix)?.broadcast as Ip));
  }
});

test('what Python takes for an address is what we take for one', () => {
  const odd = [
    '1.2.3.4',
    '01.2.3.4',
    '1.2.3',
    '1.2.3.4.5',
    '256.1.1.1',
    ' 1.2.3.4',
    '1.2.3.4/24',
    '::',
    ':::',
    '1::2::3',
    '12345::',
    'fe80::1%eth0',
    '::ffff:192.0.2.1',
    '2001:db8::g',
    '0x1.2.3.4',
    '1.2.3.-4',
    '',
    '２.2.3.4',
    '1:2:3:4:5:6:7:8:9',
  ];
  const python = JSON.parse(
    run(
      'python3',
      [
        '-c',
        'import ipaddress,json,sys\ndef f(t):\n  try: return str(ipaddress.ip_address(t.strip()))\n  except ValueError: return None\njson.dump([f(t) for t in json.load(sys.stdin)],sys.stdout)',
      ],
      JSON.stringify(odd),
    ),
  ) as (string | null)[];
  odd.forEach((text, i) => {
    // Python keeps a zone; a host has its address on every link alike.
    if (text.includes('%')) return expect(parseIp(text)).toBeUndefined();
    const found = parseIp(text);
    expect({ text, is: found ? formatIp(found) : null }).toEqual({ text, is: python[i] });
  });
});

test('the address a card makes for itself is the one the kernel makes', () => {
  const dev = `zbeui${process.pid % 1000}`;
  run('ip', ['netns', 'add', dev]);
  try {
    for (const hardware of ['02:5a:10:20:30:40', '00:16:3e:fe:dc:ba', 'fe:ff:ff:00:00:01']) {
      run('ip', ['-n', dev, 'link', 'add', 'd0', 'type', 'veth', 'peer', 'name', 'd1']);
      run('ip', ['-n', dev, 'link', 'set', 'd0', 'address', hardware, 'addrgenmode', 'eui64']);
      run('ip', ['-n', dev, 'link', 'set', 'd1', 'up']);
      run('ip', ['-n', dev, 'link', 'set', 'd0', 'up']);
      const found = /inet6 (fe80::\S+)\/64/.exec(run('ip', ['-n', dev, 'addr', 'show', 'd0']))?.[1];
      const base = prefixAround(parseIp('fe80::') as Ip, 64);
      expect(formatIp(ownAddress6(base, hardware))).toBe(found);
      run('ip', ['-n', dev, 'link', 'del', 'd0']);
    }
  } finally {
    run('ip', ['netns', 'del', dev]);
  }
});
