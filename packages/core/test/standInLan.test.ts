/** The stand-in network: the same for the same seed, and read by the same readers as real output. */
import fc from 'fast-check';
import { blankHost, blankNetwork, type Network } from '@zb/core/model/network';
import { otherServersIn } from '@zb/core/network/otherServer';
import { lanStateSchema, lanTexts, type LanEvent } from '@zb/core/model/standInLan';
import { checkPlan } from '@zb/core/network/check';
import { readNetworkText } from '@zb/core/network/read/read';
import { beginLan, lanAfter, lanAnswers, lanText } from '@zb/core/demo/standInLan';
import { takeReading } from '@zb/core/network/take';
import { runs } from './runs';

const NOW = 1_800_000_000;
const ids = beginLan(1).hosts.map((h) => h.id);
const events = fc.array(
  fc.oneof(
    fc.constant<LanEvent>({ kind: 'cut' }),
    fc
      .constantFrom(...ids)
      .chain((host) =>
        fc.constantFrom<LanEvent>(
          { kind: 'restart', host },
          { kind: 'unplug', host },
          { kind: 'plug in', host },
        ),
      ),
    fc.boolean().map((there): LanEvent => ({ kind: 'second router', there })),
  ),
  { maxLength: 12 },
);

test('whatever happens: the same for the same seed, nobody at two addresses, nobody added', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 1000 }), events, (seed, all) => {
      const play = () => all.reduce((s, e, i) => lanAfter(s, e, NOW + i), beginLan(seed));
      const state = play();
      expect(play()).toEqual(state);
      expect(lanStateSchema.parse(JSON.parse(JSON.stringify(state)))).toEqual(state);
      expect(state.hosts.map((h) => h.id)).toEqual(ids);
      const pooled = state.hosts.filter((h) => h.plugged && h.address !== null).map((h) => h.address);
      expect(new Set(pooled).size).toBe(pooled.length);
      for (const h of state.hosts) if (h.manner === 'fixed') expect(h.address).toBe(h.set);
      // A text in the middle of a cut is still what the tool prints.
      for (const what of lanTexts) {
        const text = lanText(state, what, NOW + 100);
        // A router that gave nothing away has an empty list.
        if (text !== '') expect(readNetworkText(text).form).toBe(what === 'look' ? 'look report' : what);
      }
    }),
    { numRuns: runs(120) },
  );
});

test('a look finds who was set by hand, and nobody wrote down', () => {
  const state = beginLan(7);
  const reading = readNetworkText(lanText(state, 'look', NOW));
  let n = 0;
  const taken = takeReading(
    { ...blankNetwork('n', 'Hall'), pool: { from: '10.44.8.120', to: '10.44.8.199' } },
    [],
    reading,
    { id: () => `h${(n += 1)}`, at: '', by: '' },
  );
  expect(taken.network).toMatchObject({
    prefix: '10.44.8.0/24',
    gateway: '10.44.8.1',
    nameServers: ['10.44.8.1'],
  });
  const found = checkPlan({ networks: [taken.network], hosts: taken.hosts });
  expect(found.filter((f) => f.fault.code === 'nobody wrote it down').length).toBeGreaterThanOrEqual(2);
});

const HALL: Network = {
  ...blankNetwork('n', 'Hall'),
  prefix: '10.44.8.0/24',
  gateway: '10.44.8.1',
  pool: { from: '10.44.8.120', to: '10.44.8.199' },
};
const signs = (text: string): string[] =>
  otherServersIn(HALL, readNetworkText(text)).map((o) => `${o.sign} ${o.address}`);

test('a second DHCP server is found by what it did, or where it answers on the same wire', () => {
  const state = beginLan(7);
  expect(signs(lanText(state, 'look', NOW))).toEqual([]);
  const second = lanAfter(state, { kind: 'second router', there: true }, NOW);
  expect(signs(lanText(second, 'look', NOW))).toEqual(['answers here 192.168.70.1']);
  // Cut until the machine that looks took its offer.
  let cut = second;
  for (let i = 0; i < 60 && cut.hosts.find((h) => h.id === 'clerk')?.from !== 'second'; i += 1)
    cut = lanAfter(cut, { kind: 'cut' }, NOW);
  const text = lanText(cut, 'look', NOW + 60);
  const own = cut.hosts.find((h) => h.id === 'clerk')?.address ?? '';
  expect(signs(text)).toEqual(expect.arrayContaining([`gave an address ${own}`, 'leads out 192.168.70.1']));
});

test('a tunnel and a bridge of the machine itself are no second server', () => {
  const addr = JSON.stringify([
    {
      ifindex: 2,
      ifname: 'eth0',
      address: '02:00:00:00:00:01',
      addr_info: [{ family: 'inet', local: '10.44.8.130', prefixlen: 24, dynamic: true }],
    },
    {
      ifindex: 3,
      ifname: 'tun0',
      addr_info: [{ family: 'inet', local: '10.8.0.2', prefixlen: 24, dynamic: true }],
    },
    {
      ifindex: 4,
      ifname: 'virbr0',
      address: '02:00:00:00:00:02',
      addr_info: [{ family: 'inet', local: '192.168.122.1', prefixlen: 24 }],
    },
  ]);
  const route = JSON.stringify([
    { dst: 'default', gateway: '10.8.0.1', dev: 'tun0' },
    { dst: 'default', gateway: '10.44.8.1', dev: 'eth0' },
  ]);
  const neigh = JSON.stringify([
    { dst: '192.168.122.50', dev: 'virbr0', lladdr: '02:00:00:00:00:03', state: ['REACHABLE'] },
    { dst: '10.44.8.1', dev: 'eth0', lladdr: '02:00:00:00:00:04', state: ['REACHABLE'] },
  ]);
  expect(
    signs(
      `==== zb-look ====\n1\n==== addr ====\n${addr}\n==== route ====\n${route}\n==== neigh ====\n${neigh}\n==== end ====\n`,
    ),
  ).toEqual([]);
});

test('a lease outside the range is told, inside it is not', () => {
  const host = (address: string) => ({
    ...blankHost(address, address, 'n'),
    manner: 'pool' as const,
    address,
  });
  const found = checkPlan({ networks: [HALL], hosts: [host('10.44.8.150'), host('10.44.8.30')] });
  expect(found.filter((f) => f.fault.code === 'lease outside the range').map((f) => f.hosts)).toEqual([
    ['10.44.8.30'],
  ]);
});

test('after a cut hosts come back one after the other, and the watch sees it', () => {
  const state = lanAfter(beginLan(7), { kind: 'cut' }, NOW);
  expect(lanAnswers(state, '10.44.8.20', NOW)).toBe(false);
  expect(lanAnswers(state, '10.44.8.20', NOW + 60)).toBe(true);
  expect(lanAnswers(state, '10.44.8.1', NOW)).toBe(true);
  // A clock that was set back by a day keeps nobody away for a day.
  expect(lanAnswers(state, '10.44.8.20', NOW - 86_400)).toBe(true);
  expect(lanAnswers(state, '10.44.8.250', NOW + 60)).toBe(false);
  const gone = lanAfter(state, { kind: 'unplug', host: 'archive' }, NOW + 60);
  expect(lanAnswers(gone, '10.44.8.20', NOW + 600)).toBe(false);
});

test('with a second router by mistake some get an address of another network', () => {
  const wrong = [...Array(20).keys()].some((seed) => {
    const state = lanAfter(
      lanAfter(beginLan(seed), { kind: 'second router', there: true }, NOW),
      { kind: 'cut' },
      NOW,
    );
    return state.hosts.some((h) => h.from === 'second' && h.address?.startsWith('192.168.70.'));
  });
  expect(wrong).toBe(true);
});
