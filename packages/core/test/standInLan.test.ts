/** The stand-in network: the same for the same seed, and read by the same readers as real output. */
import fc from 'fast-check';
import { blankNetwork } from '@zb/core/model/network';
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

test('after a cut hosts come back one after the other, and the watch sees it', () => {
  const state = lanAfter(beginLan(7), { kind: 'cut' }, NOW);
  expect(lanAnswers(state, '10.44.8.20', NOW)).toBe(false);
  expect(lanAnswers(state, '10.44.8.20', NOW + 60)).toBe(true);
  expect(lanAnswers(state, '10.44.8.1', NOW)).toBe(true);
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
