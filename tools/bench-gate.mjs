// How fast rules of a gate and guests of a host are judged, in the page's own thread for them: 2,000 rules over 10 zones with
// their promises, and 200 guests with the smallest change, each as a ratio to sorting a million numbers in the same run.
import { engine } from './bench-engine.mjs';

const MODULES = `export { gateFileSchema } from './packages/core/src/model/gate';
  export { guestPlanSchema } from './packages/core/src/model/guests';
  export { gateReport } from './packages/core/src/rules/report';
  export { potOf } from './packages/core/src/guests/pot';
  export { checkGuests } from './packages/core/src/guests/check';
  export { mendGuests } from './packages/core/src/guests/repair';
  export { solverFrom } from './packages/core/src/assign/highs';
  export { randomFrom } from './packages/core/src/units/random';`;

const seconds = (work) => {
  const begun = performance.now();
  work();
  return (performance.now() - begun) / 1000;
};
const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

/** Ten zones, their sets and services by dice, and so many permits that 2,000 rules come of them. */
function largeGate(random) {
  const upTo = (n) => Math.floor(random() * n);
  const networks = Array.from({ length: 9 }, (_, i) => ({
    id: `n${i}`,
    name: `n${i}`,
    prefix: `10.${i}.0.0/16`,
    gateway: `10.${i}.0.1`,
    prefix6: `fd00:0:0:${i}::/64`,
    gateway6: `fd00:0:0:${i}::1`,
  }));
  const zones = [
    { id: 'outside', name: 'outside', kind: 'outside' },
    ...networks.map((_, i) => ({ id: `z${i}`, name: `z${i}`, kind: i === 0 ? 'inside' : 'other' })),
  ];
  const ids = zones.map((z) => z.id);
  const services = Array.from({ length: 60 }, (_, i) => ({
    id: `s${i}`,
    name: `s${i}`,
    entries: Array.from({ length: 1 + upTo(3) }, () => {
      const from = upTo(60_000);
      return { protocol: upTo(2) ? 'tcp' : 'udp', ports: [from, from + upTo(200)] };
    }),
  }));
  const addresses = Array.from({ length: 100 }, (_, i) => ({
    id: `a${i}`,
    name: `a${i}`,
    entries: Array.from({ length: 1 + upTo(4) }, () => `10.${upTo(9)}.${upTo(256)}.${upTo(256)}`),
  }));
  const side = (zone, some) => ({ zone, addresses: some ? [] : [`a${upTo(100)}`] });
  const permits = Array.from({ length: 1600 }, (_, i) => {
    const from = ids[upTo(10)];
    const to = ids[upTo(10)];
    return {
      id: `q${i}`,
      from: side(from, upTo(3)),
      to: side(to === from ? 'gate' : to, upTo(2)),
      services: upTo(4) ? [`s${upTo(60)}`] : [],
      does: upTo(4) ? 'let in' : 'refuse',
    };
  });
  const promises = [
    { id: 'answers', kind: 'answers' },
    ...ids
      .slice(1)
      .map((z) => ({ id: `c${z}`, kind: 'closed', from: { zone: 'outside' }, to: [{ zone: z }] })),
    ...ids.map((z) => ({ id: `o${z}`, kind: 'own sources', zone: z })),
  ];
  const ports = [
    { id: 'p', device: 'wan', zoneId: 'outside' },
    ...networks.map((n, i) => ({ id: `p${i}`, device: `lan${i}`, zoneId: `z${i}`, networkId: n.id })),
  ];
  return { gate: { zones, ports, services, addresses, permits, promises, seat: { zone: 'z0' } }, networks };
}

const GIB = 1024 ** 3;
/** 200 guests, some too many, with disks on three pools. */
function largeHost(random) {
  const upTo = (n) => Math.floor(random() * n);
  return {
    pot: { memoryBytes: 512 * GIB, threads: 128 },
    pools: [0, 1, 2].map((i) => ({ id: `p${i}`, name: `p${i}`, bytes: (2 + i) * 1000 * GIB, thin: i > 0 })),
    guests: Array.from({ length: 200 }, (_, i) => ({
      id: `g${i}`,
      name: `g${i}`,
      cores: 1 + upTo(8),
      memoryBytes: (1 + upTo(5)) * GIB,
      leastBytes: upTo(2) ? GIB : null,
      weight: 1 + upTo(10),
      disks: [
        {
          id: 'd',
          bytes: (5 + upTo(50)) * GIB,
          poolId: `p${upTo(3)}`,
          thin: upTo(2) === 0,
          usedBytes: 4 * GIB,
        },
      ],
    })),
  };
}

export async function benchGate() {
  const z = await engine(MODULES);
  const loadHighs = (await import('highs')).default;
  const solve = z.solverFrom(await loadHighs());
  const numbers = Array.from({ length: 1_000_000 }, Math.random);
  const reference = median([1, 2, 3].map(() => seconds(() => [...numbers].sort((a, b) => a - b))));
  const file = z.gateFileSchema.parse(largeGate(z.randomFrom(5)));
  let rules = 0;
  const judged = median(
    [1, 2, 3].map(() => seconds(() => (rules = z.gateReport(file.gate, file.networks).rules))),
  );
  console.log(
    `${rules} rules over 10 zones judged, with promises and rules that never act, in ${judged.toFixed(2)} s: ${(judged / reference).toFixed(1)} times sorting a million numbers (aim: under 2 s)`,
  );
  const plan = z.guestPlanSchema.parse(largeHost(z.randomFrom(7)));
  const pot = z.potOf(plan, { cores: 64, threads: 128, memory: 512 * GIB });
  let code = '';
  const mended = median(
    [1, 2, 3].map(() =>
      seconds(() => {
        z.checkGuests(plan, pot, true);
        code = z.mendGuests(plan, pot, solve).code;
      }),
    ),
  );
  console.log(
    `200 guests checked, and the smallest change found (${code}), in ${mended.toFixed(2)} s: ${(mended / reference).toFixed(1)} times sorting a million numbers (aim: under 2 s)`,
  );
}
