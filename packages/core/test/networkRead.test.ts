/**
 * Texts of tools and routers: what their manuals say and no tool here prints, and texts that are cut or spoilt. Real output is
 * read in tests/oracle/networkFiles.oracle.ts.
 */
import fc from 'fast-check';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { beginLan, lanText } from '@zb/core/demo/standInLan';
import { benchFromText, benchToText } from '@zb/core/model/file';
import { lanTexts } from '@zb/core/model/standInLan';
import { readNetworkText } from '@zb/core/network/read/read';
import { NetworkReadError, type NetworkReading } from '@zb/core/network/read/sighting';
import { iscConfig, networkCsv } from '@zb/core/network/write/servers';
import { networkReadWords, readingWords } from '@zb/core/words/lan';
import { runs } from './runs';

const short = (r: NetworkReading) => r.sightings.map((s) => [s.seen, s.address, s.hardware, s.name]);
const faultOf = (text: string) => {
  try {
    readNetworkText(text);
    return undefined;
  } catch (error) {
    return error instanceof NetworkReadError ? error.fault : error;
  }
};

test('arp as the BSDs print it, with zeros left out', () => {
  const r = readNetworkText(
    '? (10.0.0.1) at 0:16:3e:a:b:c on en0 ifscope [ethernet]\nprinter.home.arpa (10.0.0.9) at (incomplete) on en0 ifscope [ethernet]\n',
  );
  expect(short(r)).toEqual([['neighbour', '10.0.0.1', '00:16:3e:0a:0b:0c', null]]);
  expect(r.passed).toBe(1);
});

test('dnsmasq leases: for ever, without a name, and of IPv6 behind the server’s own mark', () => {
  const r = readNetworkText(
    '0 00:16:3e:00:00:01 10.0.0.5 till *\n1900000000 00:16:3e:00:00:02 10.0.0.6 * 01:00:16:3e:00:00:02\nduid 00:01:00:01\n1900000000 12345 fd00::5 desk 00:01\n',
  );
  expect(short(r)).toEqual([
    ['lease', '10.0.0.5', '00:16:3e:00:00:01', 'till'],
    ['lease', '10.0.0.6', '00:16:3e:00:00:02', null],
    ['lease', 'fd00::5', null, 'desk'],
  ]);
  expect(r.sightings.map((s) => s.until)).toEqual([
    null,
    '2030-03-17T17:46:40.000Z',
    '2030-03-17T17:46:40.000Z',
  ]);
});

test('ISC leases (dhcpd.leases(5)): the last entry of an address counts, what is free is passed over, hosts are reservations', () => {
  const r = readNetworkText(`# written by hand; } in a comment
authoring-byte-order little-endian;
lease 10.0.0.5 { starts 4 2030/11/26 10:00:00; ends 4 2030/11/26 12:00:00; binding state active; hardware ethernet 00:16:3e:00:00:01; client-hostname "old } name"; }
lease 10.0.0.6 { ends never; binding state free; hardware ethernet 00:16:3e:00:00:02; }
lease 10.0.0.5 { starts 4 2030/11/26 12:00:00; ends epoch 1921932000; binding state active; hardware ethernet 00:16:3e:00:00:03; client-hostname "new"; }
host archive { dynamic; hardware ethernet 00:16:3e:00:00:04; fixed-address 10.0.0.20; }
`);
  expect(short(r)).toEqual([
    ['lease', '10.0.0.5', '00:16:3e:00:00:03', 'new'],
    ['reservation', '10.0.0.20', '00:16:3e:00:00:04', 'archive'],
  ]);
  expect(r.sightings[0]?.until).toBe(new Date(1_921_932_000_000).toISOString());
  expect(r.passed).toBe(1);
  const [hall] = saltmarshHall().networks;
  if (!hall) throw new Error('the demo has a hall');
  expect(
    short(readNetworkText(iscConfig(hall, saltmarshHall().hosts))).every(([seen]) => seen === 'reservation'),
  ).toBe(true);
});

test('Kea leases: declined and given back are passed over, the last row of an address counts', () => {
  const head =
    'address,hwaddr,client_id,valid_lifetime,expire,subnet_id,fqdn_fwd,fqdn_rev,hostname,state,user_context';
  const r = readNetworkText(`${head}
10.0.0.5,00:16:3e:00:00:01,,3600,1900000000,1,0,0,a&#x2cb,0,
10.0.0.6,00:16:3e:00:00:02,,3600,1900000000,1,0,0,x,1,
10.0.0.5,00:16:3e:00:00:03,,3600,1900000000,1,0,0,till.,0,
10.0.0.7,00:16:3e:00:00:04,,0,1900000000,1,0,0,,0,
`);
  expect(short(r)).toEqual([['lease', '10.0.0.5', '00:16:3e:00:00:03', 'till']]);
  expect(r.passed).toBe(2);
  expect(faultOf(`${head}\nnowhere,00:16:3e:00:00:01\n`)).toMatchObject({ code: 'bad line', line: 2 });
});

test('lists of routers: whatever their heads, columns are found by what stands in them', () => {
  expect(
    short(
      readNetworkText(
        'Gerät;IP-Adresse;MAC;Art\nKasse;10.0.0.5;00-16-3E-00-00-01;Static\n"Büro; oben";10.0.0.6;00-16-3E-00-00-02;DHCP\n',
      ),
    ),
  ).toEqual([
    ['reservation', '10.0.0.5', '00:16:3e:00:00:01', null],
    ['listed', '10.0.0.6', '00:16:3e:00:00:02', null],
  ]);
  expect(short(readNetworkText('Device name\tMAC\tIP\ntill\t0016.3e00.0001\t10.0.0.5\n'))).toEqual([
    ['listed', '10.0.0.5', '00:16:3e:00:00:01', 'till'],
  ]);
  expect(
    short(readNetworkText('10.0.0.5,00:16:3e:00:00:01,till\n10.0.0.6,00:16:3e:00:00:02,desk\n')),
  ).toEqual([
    ['listed', '10.0.0.5', '00:16:3e:00:00:01', 'till'],
    ['listed', '10.0.0.6', '00:16:3e:00:00:02', 'desk'],
  ]);
});

test('names of a machine itself and of multicast are passed over', () => {
  const r = readNetworkText(
    '127.0.0.1 localhost\n::1 ip6-localhost\nff02::1 ip6-allnodes\n10.0.0.20 archive.hall.home.arpa archive # the tower\n',
  );
  expect(short(r)).toEqual([['written', '10.0.0.20', null, 'archive.hall.home.arpa']]);
  expect(r.passed).toBe(3);
});

test('what is none of them is said, and nothing is taken', () => {
  for (const text of ['', '   \n', 'hello', '{"a":1}', '[]', '[{"x":1}]', 'a,b\nc,d', '\u0000\u0001'])
    expect(faultOf(text)).toEqual({ code: 'nothing known' });
  expect(faultOf('[{"dst":"10.0.0.1","lladdr":5,"state":["REACHABLE"]}]')).toMatchObject({
    code: 'not as printed',
    form: 'ip neigh',
  });
  expect(faultOf('==== zb-look ====\n1\n\n==== addr ====\n[{"ifname"\n==== end ====\n')).toMatchObject({
    code: 'not JSON',
  });
  expect(faultOf('==== zb-look ====\n1\n')).toMatchObject({ code: 'not as printed' });
  expect(faultOf('x'.repeat(8_000_001))).toMatchObject({ code: 'too much' });
});

test('texts that are cut, doubled or spoilt are read or refused in words, and never anything else', () => {
  const [hall] = saltmarshHall().networks;
  if (!hall) throw new Error('the demo has a hall');
  const state = beginLan(3);
  const texts = [
    ...lanTexts.map((t) => lanText(state, t, 1_800_000_000)),
    networkCsv(hall, saltmarshHall().hosts),
    iscConfig(hall, saltmarshHall().hosts),
  ];
  fc.assert(
    fc.property(
      fc.constantFrom(...texts),
      fc.nat(),
      fc.nat(),
      fc.string({ maxLength: 12 }),
      (text, a, b, put) => {
        const [from, to] = [a % (text.length + 1), b % (text.length + 1)].sort((x, y) => x - y) as [
          number,
          number,
        ];
        for (const spoilt of [
          text.slice(0, from),
          text.slice(0, from) + put + text.slice(to),
          text + text.slice(from),
        ]) {
          const fault = faultOf(spoilt);
          if (fault instanceof Error) throw fault;
          if (fault) expect(networkReadWords(fault as never)).not.toMatch(/undefined/);
          else expect(readingWords(readNetworkText(spoilt))).not.toMatch(/undefined/);
        }
      },
    ),
    { numRuns: runs(600) },
  );
});

test('a bench of before there were networks opens, and has none', () => {
  const {
    networks: _n,
    hosts: _h,
    ...old
  } = JSON.parse(benchToText(saltmarshHall())) as Record<string, unknown>;
  const bench = benchFromText(JSON.stringify({ ...old, version: 5 }));
  expect([bench.networks, bench.hosts]).toEqual([[], []]);
  expect(bench.boxes).toHaveLength(saltmarshHall().boxes.length);
});
