import type { NetworkFault } from '../network/finding';
import type { NameFault } from '../network/names';
import type { RangeKind } from '../network/ranges';
import { list, plural } from './text';

/** What is wrong with a name, and what to do. */
export function nameFaultWords(fault: NameFault): string {
  switch (fault.code) {
    case 'empty':
      return 'A part of the name is empty.';
    case 'label too long':
      return `“${fault.label}” has more than 63 letters.`;
    case 'name too long':
      return `The whole name has ${fault.octets} letters; 253 are the most.`;
    case 'odd letters':
      return `“${fault.label}” has something else than letters, digits and hyphens.`;
    case 'hyphen at an end':
      return `“${fault.label}” begins or ends with a hyphen.`;
    case 'all digits':
      return `“${fault.label}” is digits alone: programs take it for an address.`;
    case 'multicast domain':
      return 'Names under .local are asked of everybody at once and not of a name server: use home.arpa.';
    case 'set aside':
      return `.${fault.domain} is set aside for tests and examples: use home.arpa.`;
    case 'invented top level':
      return `Nobody gave out .${fault.top}: one day somebody may, and your names lead there. Use home.arpa, or a domain of your own.`;
    case 'real top level':
      return `.${fault.top} is given out: unless the domain is registered to you, its names are somebody else’s.`;
  }
}

const KIND: Record<RangeKind, string> = {
  'this host': '“this host” alone',
  loopback: 'the machine itself',
  private: 'networks of one’s own',
  carrier: 'providers, between them and their customers',
  'link-local': 'hosts that found no server',
  'unique local': 'networks of one’s own',
  documentation: 'examples in texts',
  benchmark: 'measuring',
  multicast: 'many at once',
  reserved: 'nobody yet',
};
/** What a range of addresses is set aside for. */
export const rangeWords = (kind: RangeKind): string => KIND[kind];

/** Who is concerned, by name. */
interface Sides {
  hosts: readonly string[];
  networks: readonly string[];
}

/** What is wrong in a network, with both sides named and what to do. */
export function networkFaultWords(fault: NetworkFault, { hosts, networks }: Sides): string {
  const who = hosts[0] ?? '';
  const where = networks[0] ?? '';
  const both = hosts.slice(0, 3).join(' and ') + (hosts.length > 3 ? ` and ${hosts.length - 3} more` : '');
  switch (fault.code) {
    case 'same address':
      return `${both} claim ${fault.address}: whoever comes second is gone, and at times the first too. Give one of them another.`;
    case 'same hardware':
      return `${both} have the card ${fault.hardware}: they are one machine, or one was written down wrong.`;
    case 'same name':
      return `${both} are both called ${fault.name}: a name leads to one of them only.`;
    case 'network address':
      return `${who} cannot have ${fault.address}: it is the address of ${where} itself.`;
    case 'broadcast address':
      return `${who} cannot have ${fault.address}: it means everybody in ${where}.`;
    case 'gateway address':
      return `${who} would sit at ${fault.address}, the way out of ${where}: nobody would get out any more.`;
    case 'outside its network':
      return `${who} has ${fault.address}, which lies outside of ${where} (${fault.prefix}): it reaches nobody there.`;
    case 'wrong mask':
      return fault.beyond === 'sees too little'
        ? `${who} was told /${fault.told} where ${where} is ${fault.prefix}: it takes neighbours for strangers and sends to the router what is next to it.`
        : `${who} was told /${fault.told} where ${where} is ${fault.prefix}: it takes strangers for neighbours and never reaches them.`;
    case 'fixed in the pool':
      return `${who} was set by hand to ${fault.address}, which the server of ${where} hands out: one day somebody else has it too. Move it out of the pool, or reserve it.`;
    case 'reserved in the pool':
      return `${fault.address} of ${who} lies in the pool: some servers want kept addresses outside of it.`;
    case 'nobody wrote it down':
      return `${who} was set by hand to ${fault.address}, and nobody wrote it down: it will be given away one day.`;
    case 'reservation without hardware':
      return `The address of ${who} cannot be reserved before the address of its card is known.`;
    case 'hardware may change':
      return `${who} has the card address ${fault.hardware}, which software made up: when it makes up another, the reservation is lost. Turn that off for this network.`;
    case 'no address yet':
      return `${who} is to have ${fault.manner === 'fixed' ? 'a fixed address' : 'a reserved one'}, and has none yet.`;
    case 'found no server':
      return `${who} was seen at ${fault.address}: it asked for an address and nobody answered.`;
    case 'lease outside the range':
      return `${who} got ${fault.address}, which lies outside the DHCP range of ${where}. Either a second DHCP server hands out addresses, or the range is written down wrongly. Compare it with the router’s page.`;
    case 'serves from the pool':
      return `${who} is not reserved: after a power cut it may be gone${fault.address === null ? '' : ` from ${fault.address}`}.`;
    case 'serves by radio':
      return `${who} serves others and hangs on a radio: give it a wire.`;
    case 'slower than it could be':
      return `The port of ${who} does ${fault.port} Mb/s; what it is for wants ${fault.link}.`;
    case 'bad name':
      return `The name of ${who}: ${nameFaultWords(fault.fault)}`;
    case 'bad domain':
      return `${where} is called ${fault.domain}. ${nameFaultWords(fault.fault)}`;
    case 'pool runs backwards':
      return `The pool of ${where} ends before it begins.`;
    case 'pool outside':
      return `The pool of ${where} lies outside of ${fault.prefix}.`;
    case 'pool holds':
      return `The pool of ${where} holds ${fault.address}, the ${fault.what}.`;
    case 'pool too small':
      return `The pool of ${where} has ${plural(fault.size, 'address', 'addresses')} for ${plural(fault.clients, 'host')}: who comes last gets none.`;
    case 'gateway is no host':
      return `${fault.gateway} is the ${fault.what} of the network: no router can have it. Enter the router’s own address.`;
    case 'gateway outside':
      return `The gateway ${fault.gateway} lies outside of ${where} (${fault.prefix}): nobody there reaches it.`;
    case 'networks overlap':
      return `${list(networks)} overlap (${fault.prefix} and ${fault.other}): what is meant for one never leaves the other.`;
    case 'inside is outside':
      return `${where} (${fault.prefix}) has the same addresses as the far side of its gateway (${fault.outside}): nothing gets out. Take another prefix inside.`;
    case 'outside is carrier':
      return `The far side of ${where} is ${fault.outside}, which providers share among customers: nobody reaches it from outside, whatever is forwarded.`;
    case 'outside is private':
      return `The far side of ${where} is ${fault.outside}, a network of somebody’s own: a second router stands between it and the world.`;
    case 'addresses of others':
      return `${where} uses ${fault.prefix}, which belongs to others: these cannot be reached from inside.`;
    case 'range for something else':
      return `${where} uses ${fault.prefix}, which is set aside for ${KIND[fault.kind]}.`;
    case 'same VLAN':
      return `${list(networks)} have the same number ${fault.vlan} on the wire: they are one network there.`;
    case 'not a /64':
      return `${where} has ${fault.prefix} for IPv6: hosts make their own addresses in a /64 alone.`;
  }
}
