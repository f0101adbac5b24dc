import type { LanEvent, LanHost, LanState, LanText } from '../model/standInLan';
import { formatIp, parseIp } from '../units/ip';
import { randomFrom } from '../units/random';
import { allot } from '../network/allot';
import { demoCard } from './make';

/** The routers: the one that belongs there, and the one that somebody plugs in by mistake. */
const ROUTERS = {
  first: { gateway: '10.44.8.1', from: '10.44.8.120', to: '10.44.8.199' },
  second: { gateway: '192.168.70.1', from: '192.168.70.20', to: '192.168.70.60' },
} as const;
const LEASE_SECONDS = 28_800;
/** A host is back after so many seconds at least, and at most. */
const BACK = { least: 6, most: 20 };
/** Where the one who looks stands. */
const LOOKS = 'clerk';

const host = (id: string, name: string, card: string, more: Partial<LanHost> = {}): LanHost => ({
  id,
  name,
  hardware: demoCard(card, 0),
  manner: 'pool',
  set: null,
  bits: 24,
  asksAgain: false,
  plugged: true,
  backAt: 0,
  address: null,
  from: 'nobody',
  ...more,
});

/** The same cards as on the demo bench: a look at the one finds the hosts of the other. */
const HOSTS: readonly LanHost[] = [
  host('clerk', 'Clerk', 'clerk', { manner: 'reservation', set: '10.44.8.30' }),
  host('archive', 'Archive', 'old-oak', { manner: 'reservation', set: '10.44.8.20' }),
  // Set by hand, and nobody wrote it down.
  host('printer', 'Printer', 'printer', { manner: 'fixed', set: '10.44.8.90' }),
  host('clock', 'Hall clock', 'hall-clock', { manner: 'fixed', set: '10.44.8.91', bits: 16 }),
  host('till', 'Till', 'till', { asksAgain: true }),
  host('desk', 'Booking desk laptop', 'desk'),
];

const number = (address: string): number => Number(parseIp(address)?.value ?? 0n);
const text = (value: number): string => formatIp({ family: 4, value: BigInt(value) });

/** Chance that goes on where a state left off. */
function chance(state: LanState): { next: () => number; drawn: () => number } {
  const from = randomFrom(state.seed);
  for (let i = 0; i < state.drawn; i += 1) from();
  let { drawn } = state;
  return {
    next: () => {
      drawn += 1;
      return from();
    },
    drawn: () => drawn,
  };
}

/** What a router gives to a host that asks now, with what the others have from it. */
function ask(
  state: LanState,
  asking: LanHost,
  router: 'first' | 'second',
  lost: ReadonlySet<string>,
): LanHost {
  const { from, to } = ROUTERS[router];
  if (router === 'first' && asking.manner === 'reservation')
    return { ...asking, address: asking.set, from: 'first' };
  const busy = new Set(
    state.hosts.flatMap((h) =>
      h.id !== asking.id && h.address !== null && !lost.has(h.id) && h.plugged ? [number(h.address)] : [],
    ),
  );
  const kept = new Set(
    HOSTS.flatMap((h) => (h.manner === 'reservation' && h.set !== null ? [number(h.set)] : [])),
  );
  const had = asking.address === null ? undefined : number(asking.address);
  const inside = had !== undefined && had >= number(from) && had <= number(to);
  const again = asking.asksAgain && inside && !busy.has(had) && !kept.has(had) ? had : undefined;
  const given =
    again ??
    allot(
      { from: number(from), to: number(to), manner: 'by hardware address', kept },
      asking.hardware,
      busy,
      undefined,
    );
  return given === undefined
    ? { ...asking, address: null, from: 'nobody' }
    : { ...asking, address: text(given), from: router };
}

/** A host comes up and gets its address, of whichever router answers first. */
function comesUp(state: LanState, id: string, draw: () => number, lost: ReadonlySet<string>): LanState {
  return {
    ...state,
    hosts: state.hosts.map((h) => {
      if (h.id !== id) return h;
      if (h.manner === 'fixed') return { ...h, address: h.set, from: 'nobody' };
      return ask(state, h, state.second && draw() < 0.5 ? 'second' : 'first', lost);
    }),
  };
}

/** The network as it was set up, everybody there. The same seed gives the same network. */
export function beginLan(seed: number): LanState {
  let state: LanState = { seed, drawn: 0, second: false, hosts: HOSTS.map((h) => ({ ...h })) };
  for (const h of HOSTS) state = comesUp(state, h.id, () => 1, new Set());
  return state;
}

/** What the network is after something happened to it. `now`: seconds since 1970. */
export function lanAfter(state: LanState, event: LanEvent, now: number): LanState {
  if (event.kind === 'begin anew') return beginLan(event.seed);
  if (event.kind === 'second router') return { ...state, second: event.there };
  const { next, drawn } = chance(state);
  const back = (): number => now + BACK.least + next() * (BACK.most - BACK.least);
  const done = (after: LanState): LanState => ({ ...after, drawn: drawn() });
  if (event.kind === 'unplug')
    return done({
      ...state,
      hosts: state.hosts.map((h) => (h.id === event.host ? { ...h, plugged: false } : h)),
    });
  if (event.kind === 'plug in' || event.kind === 'restart') {
    const backAt = back();
    const hosts = state.hosts.map((h) => (h.id === event.host ? { ...h, plugged: true, backAt } : h));
    return done(comesUp({ ...state, hosts }, event.host, next, new Set()));
  }
  // A cut: all are gone, the router forgets, and they return in an order that is drawn.
  const order = state.hosts.map((h) => ({ id: h.id, at: back() })).sort((a, b) => a.at - b.at);
  const lost = new Set(order.map((o) => o.id));
  let after = state;
  for (const { id, at } of order) {
    after = comesUp(after, id, next, lost);
    lost.delete(id);
    after = { ...after, hosts: after.hosts.map((h) => (h.id === id ? { ...h, backAt: at } : h)) };
  }
  return done(after);
}

/** A moment of return that is further off than any is drawn: the clock was set back since, and it is there. */
const isBack = ({ backAt }: LanHost, now: number): boolean => backAt <= now || backAt > now + BACK.most;

/** Whether a host answers. */
export const lanAnswers = (state: LanState, address: string, now: number): boolean =>
  address === ROUTERS.first.gateway ||
  (state.second && address === ROUTERS.second.gateway) ||
  state.hosts.some((h) => h.address === address && h.plugged && isBack(h, now));

const there = (state: LanState, now: number): LanHost[] =>
  state.hosts.filter((h) => h.plugged && isBack(h, now) && h.address !== null);

function addr(state: LanState): unknown[] {
  const me = state.hosts.find((h) => h.id === LOOKS);
  return [
    {
      ifindex: 1,
      ifname: 'lo',
      address: '00:00:00:00:00:00',
      addr_info: [{ family: 'inet', local: '127.0.0.1', prefixlen: 8, scope: 'host' }],
    },
    {
      ifindex: 2,
      ifname: 'eth0',
      address: me?.hardware,
      addr_info:
        me?.address == null
          ? []
          : [{ family: 'inet', local: me.address, prefixlen: me.bits, scope: 'global', dynamic: true }],
    },
  ];
}

function route(state: LanState): unknown[] {
  const me = state.hosts.find((h) => h.id === LOOKS);
  const router = ROUTERS[me?.from === 'second' ? 'second' : 'first'];
  const net = `${router.gateway.split('.').slice(0, 3).join('.')}.0/24`;
  return [
    { dst: 'default', gateway: router.gateway, dev: 'eth0', protocol: 'dhcp', flags: [] },
    { dst: net, dev: 'eth0', protocol: 'kernel', scope: 'link', prefsrc: me?.address, flags: [] },
  ];
}

const routersThere = (state: LanState): { address: string; hardware: string }[] => [
  { address: ROUTERS.first.gateway, hardware: demoCard('hall-router', 0) },
  ...(state.second ? [{ address: ROUTERS.second.gateway, hardware: demoCard('second-router', 0) }] : []),
];

const neighbours = (state: LanState, now: number): { address: string; hardware: string }[] => [
  ...routersThere(state),
  ...there(state, now).flatMap((h) =>
    h.id === LOOKS || h.address === null ? [] : [{ address: h.address, hardware: h.hardware }],
  ),
];

/** What a tool prints of the network, in its own format, as Clerk sees it. */
export function lanText(state: LanState, what: LanText, now: number): string {
  switch (what) {
    case 'ip addr':
      return JSON.stringify(addr(state));
    case 'ip route':
      return JSON.stringify(route(state));
    case 'ip neigh':
      return JSON.stringify(
        neighbours(state, now).map((n) => ({
          dst: n.address,
          dev: 'eth0',
          lladdr: n.hardware,
          state: ['REACHABLE'],
        })),
      );
    case 'arp':
      return neighbours(state, now)
        .map((n) => `? (${n.address}) at ${n.hardware} [ether] on eth0\n`)
        .join('');
    case 'dnsmasq leases':
      return state.hosts
        .flatMap((h) =>
          h.from === 'first' && h.address !== null
            ? [
                `${Math.round(Math.max(h.backAt, now - LEASE_SECONDS / 4)) + LEASE_SECONDS} ${h.hardware} ${h.address} ${h.id} 01:${h.hardware}\n`,
              ]
            : [],
        )
        .join('');
    case 'look': {
      const part = (name: string, body: string): string => `\n==== ${name} ====\n${body}\n`;
      return [
        part('zb-look', '1'),
        part('addr', lanText(state, 'ip addr', now)),
        part('route', lanText(state, 'ip route', now)),
        part('neigh', lanText(state, 'ip neigh', now)),
        part('resolv', `nameserver ${ROUTERS.first.gateway}`),
        part('shown', ''),
        part('end', ''),
      ].join('');
    }
  }
}
