import type { OtherServer, OtherServerSign } from '../network/otherServer';
import type { BeforeLine } from '../network/before';
import type { Cut, HostCut } from '../network/cut';
import type { AddressSchool, Gone } from '../network/forBox';
import type { NetworkReadFault, NetworkReading } from '../network/read/sighting';
import type { Stretch } from '../network/street';
import type { HostManner, PoolManner, Scheme } from '../model/network';
import { formatMoment } from '../units/date';
import { counted, plural } from './text';

const MANNER: Record<HostManner, string> = {
  reservation: 'reserved',
  fixed: 'set by hand',
  pool: 'from the pool',
  'not known': 'nobody knows how',
};
/** How a host has its address. */
export const mannerWords = (manner: HostManner): string => MANNER[manner];

/** How a server chooses. */
export const poolMannerWords: Record<PoolManner, string> = {
  'by hardware address': 'by each card’s own address',
  'in order': 'one after the other',
  'not known': 'nobody knows; both are played',
};
/** By which scheme boxes get theirs. */
export const schemeWords: Record<Scheme, string> = {
  dense: 'the next one free',
  'by purpose': 'ten for each purpose',
  'by place': 'ten for each room or rack',
};

/** A bigint with its thousands apart. */
const big = (n: bigint): string => n.toLocaleString('en');

/** What a power cut does to one host, short. */
export function cutWords(cut: HostCut, worlds: bigint | null): { word: string; sub: string } {
  // Orders of return are not equally likely: a count is no odds.
  const of = (n: bigint | null): string =>
    n === null || worlds === null
      ? ''
      : n === worlds
        ? 'in every order of return'
        : 'depends on who comes back first';
  switch (cut.fate) {
    case 'same':
      return { word: 'same', sub: '' };
    case 'may move':
      if (cut.moved === null) return { word: 'may move', sub: 'an order was found that moves it' };
      return cut.none !== null && cut.none > 0n && cut.moved === 0n
        ? { word: 'may get none', sub: of(cut.none) }
        : { word: 'may move', sub: of((cut.moved ?? 0n) + (cut.none ?? 0n)) };
    case 'shared':
      return { word: 'may be shared', sub: of(cut.shared) };
    case 'perhaps':
      return { word: 'not told', sub: 'too many to count, and no argument either way' };
    case 'not told':
      return { word: 'not told', sub: 'nobody knows how it has its address' };
  }
}

/** How it comes to it: a shortest order of returns, by names. */
export function illOrderWords(cut: HostCut, nameOf: (id: string) => string): string {
  const order = cut.ill;
  if (!order || order.length === 0) return '';
  const others = order.slice(0, -1).map(nameOf);
  const last = nameOf(order[order.length - 1] ?? '');
  return others.length === 0
    ? 'whoever is back before it: it asks anew'
    : `${others.join(', then ')} before ${last}`;
}

const OPEN: Record<Cut['open'][number], string> = {
  'how the server chooses': 'how the server chooses',
  'whether the server remembers': 'whether it remembers its leases',
  'whether hosts ask again': 'which hosts ask for their old address',
};

/** What a cut came to, as a headline; `nameOf` names hosts. */
export function cutHeadline(cut: Cut, nameOf: (id: string) => string): string {
  const gone = cut.hosts.filter((h) => h.fate === 'may move' || h.fate === 'shared');
  const [first] = gone;
  if (!first)
    return cut.hosts.some((h) => h.fate === 'not told')
      ? 'After a power cut: not all is known'
      : 'After a power cut everything is where it was';
  const others = gone.length - 1;
  return `After a power cut ${nameOf(first.id)}${others > 0 ? ` and ${plural(others, 'other')}` : ''} may be gone`;
}

/** What was played, in a line. */
export function cutPlayedWords(cut: Cut): string {
  const open =
    cut.open.length > 0
      ? `; not known, and played both ways: ${cut.open.map((o) => OPEN[o]).join(', ')}`
      : '';
  if (cut.returning === 0) return 'Nobody asks for an address here: there is no order that matters.';
  return cut.worlds === null
    ? `${plural(cut.returning, 'host')} come back in more orders than can be counted: what stays is argued, what moves was found${open}.`
    : `${plural(cut.returning, 'host')} come back in every order, ${big(cut.worlds)} ${cut.worlds === 1n ? 'scenario' : 'scenarios, not equally likely'}${open}.`;
}

/** A way of finding out whether an address is free: who was asked, and what it says. */
export function beforeWords(
  line: BeforeLine,
  address: string,
  nameOf: (id: string) => string,
): { by: string; says: string } {
  const at = line.at === null ? '' : `, last ${formatMoment(line.at)}`;
  switch (line.by) {
    case 'leases':
      return {
        by: 'the lease list',
        says: line.host
          ? `${address} is given to ${nameOf(line.host)}`
          : line.looked === 0
            ? 'nobody has read the router’s leases'
            : `no lease names it (${line.looked} seen${at})`,
      };
    case 'neighbours':
      return {
        by: 'neighbours',
        says: line.host
          ? `${nameOf(line.host)} is there`
          : line.looked === 0
            ? 'nobody has looked yet'
            : `nobody there (${line.looked} seen${at})`,
      };
    case 'probe':
      return {
        by: 'a probe',
        says:
          line.says === 'ask'
            ? 'ask it now: three probes, 4–7 s'
            : line.says === 'free'
              ? `nobody answered${at.replace(', last', ',')}`
              : `somebody answered${at.replace(', last', ',')}`,
      };
  }
}

const WANTS: Record<AddressSchool['wants'][number], string> = {
  'a network': 'which addresses the network has is not known',
  'a hardware address': 'the address of its card is not known',
  'a free address': 'no address is free for it',
  'a pool': 'nothing is handed out here',
};

/** A way of having an address: each side's case, and what it means here. `fate` is what a cut does to it so. */
export function schoolWords(
  school: AddressSchool,
  fate: HostCut['fate'] | undefined,
  leaseHours: number | null,
): {
  title: string;
  means: string;
} {
  const wants = school.wants.map((w) => WANTS[w]).join('; ');
  const at = school.address === null ? '' : ` ${school.address}`;
  const need = wants === '' ? '' : ` Not yet: ${wants}.`;
  switch (school.manner) {
    case 'reservation':
      return {
        title: `Reserved on the router${at === '' ? '' : `:${at}`}`,
        means: `The router knows its card and always gives it the same; one list for all. A new card or a new router loses it.${need}`,
      };
    case 'fixed':
      return {
        title: `Set by hand${at === '' ? '' : `:${at}`}`,
        means: `Works with the router off or exchanged. Nobody else knows of it: write it down, outside of what is handed out.${need}`,
      };
    case 'pool':
      return {
        title: 'Whatever the pool gives',
        means: `Nothing to do${leaseHours === null ? '' : `, a lease of ${leaseHours} h`}. ${
          fate === 'same'
            ? 'Here it keeps its address through a cut.'
            : fate === undefined
              ? 'Good for what nobody looks for.'
              : 'Here it may be gone after a cut.'
        }${need}`,
      };
  }
}

/** What a stretch of addresses is for. */
export function stretchWords(s: Stretch, leases: number): string {
  switch (s.kind) {
    case 'network':
      return 'the network itself';
    case 'broadcast':
      return 'everybody';
    case 'gateway':
      return 'the way out';
    case 'host':
      return '';
    case 'pool':
      return `handed out, ${counted(s.count)}${leases > 0 ? `, ${leases} seen` : ''}`;
    case 'kept for boxes':
      return `for boxes, ${counted(s.count)} left`;
    case 'free':
      return `free, ${counted(s.count)}`;
  }
}

/** Why a text was not taken; nothing was changed. */
export function networkReadWords(fault: NetworkReadFault): string {
  switch (fault.code) {
    case 'nothing known':
      return 'Nothing of a network was found in this text. Nothing was changed. It takes what ip -j, arp -an and the look script print, lease files, /etc/hosts and the list of a router’s page.';
    case 'not JSON':
      return `The part “${fault.part}” is cut or changed: it is no JSON. Nothing was changed; run it once more.`;
    case 'not as printed':
      return `This is not what “${fault.form}” prints${fault.words === '' ? '' : ` (${fault.words})`}. Nothing was changed.`;
    case 'bad line':
      return `Line ${fault.line} is not what “${fault.form}” has. Nothing was changed.`;
    case 'no rows':
      return `“${fault.form}” has no lines. Nothing was changed.`;
    case 'too much':
      return `The text has more than ${counted(fault.most)} characters: it must be something else. Nothing was changed.`;
  }
}

/** What a reading holds, short. */
export function readingWords(reading: NetworkReading): string {
  const parts = [
    plural(reading.sightings.length, 'address', 'addresses'),
    ...(reading.gateways.length > 0 ? [`gateway ${reading.gateways.join(', ')}`] : []),
    ...(reading.nameServers.length > 0 ? [plural(reading.nameServers.length, 'name server')] : []),
    ...(reading.shown.length > 0 ? [`${reading.shown.length} shown of themselves`] : []),
    ...(reading.passed > 0 ? [`${reading.passed} passed over`] : []),
  ];
  return `${reading.form}: ${parts.join(', ')}`;
}

/** What would be gone with a host that moved. */
export const goneWords = (gone: readonly Gone[]): string =>
  gone
    .map((g) =>
      g.code === 'page'
        ? `its page ${g.url}`
        : g.code === 'shell'
          ? `its shell at ${g.address}`
          : `every name in ${g.network}`,
    )
    .join(', ');

const SIGNS: Record<OtherServerSign, (address: string) => string> = {
  'gave an address': (a) => `This machine got ${a}, an address of another network`,
  'leads out': (a) => `${a} is told as the way out, and is not this network’s gateway`,
  'answers here': (a) => `${a}, of another network, answers on the same wire`,
};
/** That a second DHCP server seems to be there, and what to do. Nothing where there is no sign of one. */
export const otherServerWords = (found: readonly OtherServer[]): string =>
  found.length === 0
    ? ''
    : `A second DHCP server may be on this wire. ${found.map((f) => SIGNS[f.sign](f.address)).join('. ')}. Each client takes the first offer it hears, so some end up in the wrong network. Find the second router: switch its DHCP server off, or unplug it.`;
