import { urlPart } from '../units/url';
import { formatIec } from '../units/bytes';
import { formatDay } from '../units/date';
import { compareIps, parseIp } from '../units/ip';
import { stops, stopTitle } from './stops';
import { boxSchema } from './box';
import { attemptSchema } from './practice';
import { collection } from './collection';
import { logEntrySchema } from './log';
import { hostSchema, networkSchema } from './network';
import { photoSchema } from './photo';
import { profileSchema } from './profile';
import { shelfItemSchema, type ShelfItem } from './shelf';
import { tuneRunSchema } from './tune';
import { wishSchema } from './wish';

const KINDS: readonly ShelfItem['kind'][] = [
  'machine',
  'drive',
  'stick',
  'card',
  'memory',
  'adapter',
  'image',
];

const collator = new Intl.Collator();
/** Addresses in their order as numbers; those that have none come last. */
const byAddress = (a: string | null, b: string | null): number => {
  const [x, y] = [a === null ? undefined : parseIp(a), b === null ? undefined : parseIp(b)];
  return x && y ? compareIps(x, y) : x ? -1 : y ? 1 : 0;
};
const byText = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/**
 * The collections of the bench, in the order in which find-anything asks them. To add one, add it here: changes, bench
 * file, references, normal form, storage and find follow.
 */
export const collections = {
  boxes: collection({
    schema: boxSchema,
    title: { one: 'box', many: 'boxes' },
    order: (a, b) => byText(a.createdAt, b.createdAt),
    references: [
      { field: 'machineId', to: 'items', kind: 'machine', what: 'machine' },
      { field: 'profileId', to: 'profiles', what: 'profile' },
      { field: 'imageId', to: 'items', kind: 'image', what: 'image' },
      { field: 'wishId', to: 'wishes', what: 'wish' },
      { field: 'parts', to: 'items', what: 'part' },
    ],
    find: (b) => [
      { title: b.name, detail: `box, ${b.purpose}`, path: `/box/${b.id}` },
      ...stops.map((s) => ({
        title: `${b.name}: ${stopTitle[s]}`,
        detail: 'stop',
        path: `/box/${b.id}/${s}`,
      })),
    ],
  }),
  items: collection({
    schema: shelfItemSchema,
    title: { one: 'thing on the shelf', many: 'things on the shelf' },
    order: (a, b) => KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind) || collator.compare(a.name, b.name),
    references: [
      { field: 'in', to: 'items', kind: 'machine', what: 'machine' },
      { field: 'bootFirst', to: 'items', what: 'medium' },
      { field: 'portsOff', to: 'items', what: 'medium' },
    ],
    find: (i) => {
      const size = 'bytes' in i ? `, ${formatIec(i.bytes)}` : '';
      const serial = 'serial' in i && i.serial ? `, ${i.serial}` : '';
      const path = i.kind === 'image' ? `/images/${i.id}` : `/shelf/${i.id}`;
      return [{ title: i.name, detail: `${i.kind}${size}${serial}`, path }];
    },
    byKey: ['facts'],
  }),
  profiles: collection({
    schema: profileSchema,
    title: { one: 'system', many: 'systems' },
    order: (a, b) => byText(a.purpose, b.purpose) || collator.compare(a.name, b.name),
    references: [],
    find: (p) => [
      {
        title: p.name,
        detail: `profile, ${p.purpose}, ${p.releases.map((r) => r.version).join(', ')}`,
        path: `/profiles/${urlPart(p.id)}`,
      },
    ],
  }),
  wishes: collection({
    schema: wishSchema,
    title: { one: 'wish', many: 'wishes' },
    order: (a, b) => b.importance - a.importance || collator.compare(a.name, b.name),
    references: [
      { field: 'profileId', to: 'profiles', what: 'profile' },
      { field: 'pinned', to: 'items', kind: 'machine', what: 'machine' },
      { field: 'forbid', to: 'items', kind: 'machine', what: 'machine' },
    ],
    find: () => [],
  }),
  networks: collection({
    schema: networkSchema,
    title: { one: 'network', many: 'networks' },
    order: (a, b) => (a.vlan ?? 0) - (b.vlan ?? 0) || collator.compare(a.name, b.name),
    references: [],
    find: (n) => [
      {
        title: n.name,
        detail: `network${n.prefix === null ? '' : `, ${n.prefix}`}`,
        path: `/network?of=${urlPart(n.id)}`,
      },
    ],
  }),
  hosts: collection({
    schema: hostSchema,
    title: { one: 'host', many: 'hosts' },
    order: (a, b) => byAddress(a.address, b.address) || collator.compare(a.name, b.name),
    references: [
      { field: 'networkId', to: 'networks', what: 'network' },
      { field: 'boxId', to: 'boxes', what: 'box' },
    ],
    find: (h) => [
      {
        title: h.name,
        detail: ['host', h.address, h.hardware].filter(Boolean).join(', '),
        path: `/network${h.networkId === null ? '' : `?of=${urlPart(h.networkId)}`}`,
      },
    ],
  }),
  runs: collection({
    schema: tuneRunSchema,
    title: { one: 'run', many: 'runs' },
    order: (a, b) => byText(a.at, b.at) || a.place - b.place,
    references: [{ field: 'boxId', to: 'boxes', what: 'box' }],
    find: () => [],
  }),
  attempts: collection({
    schema: attemptSchema,
    title: { one: 'attempt', many: 'attempts' },
    order: (a, b) => byText(a.at, b.at),
    references: [{ field: 'boxId', to: 'boxes', what: 'box' }],
    find: () => [],
  }),
  photos: collection({
    schema: photoSchema,
    title: { one: 'photo', many: 'photos' },
    order: (a, b) => byText(a.at, b.at),
    references: [{ field: 'machineId', to: 'items', kind: 'machine', what: 'machine' }],
    find: () => [],
    large: true,
  }),
  log: collection({
    schema: logEntrySchema,
    title: { one: 'line of the log', many: 'lines of the log' },
    order: (a, b) => byText(a.at, b.at),
    references: [
      { field: 'boxId', to: 'boxes', what: 'box' },
      { field: 'photoId', to: 'photos', what: 'photo' },
    ],
    find: (e) => [
      {
        title: e.text,
        detail: `log, ${formatDay(e.at)}`,
        path: e.boxId ? `/box/${e.boxId}/keep` : '/logbook',
      },
    ],
    many: true,
  }),
};
