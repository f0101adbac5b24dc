import { blankNetwork, hostSchema, type Host, type Network } from '../model/network';
import type { Reach } from '../model/reach';
import { noFirst, type FirstRecord } from '../model/firstStart';
import { noReach } from '../model/reach';
import { demoCard, moment } from './make';

/** The hall's networks. All of it is made up. */
export const demoNetworks: Network[] = [
  {
    ...blankNetwork('hall', 'Hall'),
    prefix: '10.44.8.0/24',
    prefix6: 'fd3c:71a4:9e02:8::/64',
    gateway: '10.44.8.1',
    nameServers: ['10.44.8.1'],
    pool: { from: '10.44.8.120', to: '10.44.8.199' },
    leaseSeconds: 28_800,
    manner: 'by hardware address',
    remembers: false,
    domain: 'hall.home.arpa',
    outside: '100.72.16.0/20',
    scheme: 'by purpose',
    notes: 'The router in the cupboard under the stage.',
  },
  {
    ...blankNetwork('guests', 'Guests'),
    vlan: 30,
    prefix: '10.44.30.0/24',
    gateway: '10.44.30.1',
    nameServers: ['10.44.30.1'],
    pool: { from: '10.44.30.20', to: '10.44.30.250' },
    leaseSeconds: 3600,
    domain: 'guests.hall.home.arpa',
  },
];

const host = (id: string, name: string, more: Partial<Host>): Host => ({
  ...hostSchema.parse({ id, name, networkId: 'hall', hardware: demoCard(id, 0) }),
  link: 'wired',
  ...more,
});
const seen = (address: string, minute: number): Host['seen'] => ({
  address,
  at: moment(8, minute),
  by: 'a look from Clerk',
});
const lodger = (id: string, name: string, last: number, minute: number, more: Partial<Host> = {}): Host =>
  host(id, name, {
    manner: 'pool',
    address: `10.44.8.${last}`,
    seen: seen(`10.44.8.${last}`, minute),
    leaseUntil: moment(8, minute + 480),
    ...more,
  });

/** Who lives in them. */
export const demoHosts: Host[] = [
  host('hall-router', 'Router', {
    manner: 'fixed',
    address: '10.44.8.1',
    address6: 'fd3c:71a4:9e02:8::1',
    manner6: 'fixed',
    label: 'router',
    seen: seen('10.44.8.1', 0),
  }),
  host('host-archive', 'Archive', {
    boxId: 'archive',
    hardware: demoCard('old-oak', 0),
    manner: 'reservation',
    address: '10.44.8.20',
    address6: 'fd3c:71a4:9e02:8::14',
    manner6: 'fixed',
    label: 'archive',
    port: 'eth0',
    seen: seen('10.44.8.20', 0),
  }),
  host('host-film', 'Film night', {
    boxId: 'film-night',
    hardware: demoCard('tern', 0),
    manner: 'reservation',
    address: '10.44.8.50',
    label: 'film',
    port: 'eth0',
  }),
  host('printer', 'Printer', {
    manner: 'fixed',
    address: '10.44.8.90',
    known: false,
    seen: seen('10.44.8.90', 1),
  }),
  host('weather-mast', 'Weather mast', {
    manner: 'fixed',
    address: '10.44.8.131',
    known: true,
    notes: 'Set by hand years ago.',
    seen: seen('10.44.8.131', 1),
  }),
  host('hall-clock', 'Hall clock', {
    manner: 'fixed',
    address: '10.44.8.91',
    bits: 16,
    seen: seen('10.44.8.91', 2),
  }),
  lodger('till', 'Till', 139, 3, { asksAgain: true }),
  lodger('desk', 'Booking desk laptop', 156, 4),
  lodger('tea-radio', 'Tea-room radio', 131 + 37, 5, { asksAgain: false }),
  lodger('choir-tablet', 'Choir’s tablet', 177, 6, { link: 'wireless' }),
  host('guest-gate-inside', 'Guest gate', {
    networkId: 'guests',
    boxId: 'guest-gate',
    hardware: demoCard('pebble', 1),
    manner: 'fixed',
    address: '10.44.30.1',
    label: 'gate',
    port: 'eth1',
  }),
];

/** What was done and measured at the archive’s first start. */
export const archiveFirst = (): FirstRecord => ({
  ...noFirst(),
  done: ['memory test', 'first start', 'language', 'zone', 'keyboard', 'user', 'network', 'updates', 'shell'],
  left: ['screen sheet'],
  set: { keyboard: 'as printed on the keys', network: 'the wire by the stage' },
  began: moment(3, 84),
  seconds: 660,
  rounds: [
    { at: moment(3, 96), seconds: 420, offered: 61 },
    { at: moment(3, 103), seconds: 150, offered: 4 },
    { at: moment(3, 106), seconds: 40, offered: 0 },
  ],
  password: {
    kept: 'the green book in the vestry',
    knows: 'the two who keep the archive',
    replaced: true,
    at: moment(3, 92),
  },
});

/** What was noted of the archive's page and shell when it was set up. */
export const archiveReach = (): Reach => ({
  ...noReach(),
  page: {
    fingerprint: '4b1d8e0772c3a95f60e1bb0d94a2f7385ce61049d7b8233fae90c5d1168f7a02',
    at: moment(3, 110),
    expires: '2027-05-18',
  },
  shell: 'on',
  hostKeys: [
    {
      type: 'ssh-ed25519',
      key: 'AAAAC3NzaC1lZDI1NTE5AAAAIEdyZXlTYWx0bWFyc2hIYWxsTWFkZVVwS2V5MDAwMDAx',
    },
  ],
  defaultUserGone: true,
  probed: { address: '10.44.8.20', at: moment(3, 104), answered: false, by: 'arping from Clerk' },
});
