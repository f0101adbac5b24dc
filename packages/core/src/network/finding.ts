import type { NameFault } from './names';
import type { RangeKind } from './ranges';

/** Something about networks and hosts that will not work, may stop working, or is worth knowing. Both sides are named by id. */
export type NetworkFault =
  | { code: 'same address'; address: string }
  | { code: 'same hardware'; hardware: string }
  | { code: 'same name'; name: string }
  | { code: 'network address'; address: string }
  | { code: 'broadcast address'; address: string }
  | { code: 'gateway address'; address: string }
  | { code: 'outside its network'; address: string; prefix: string }
  | { code: 'wrong mask'; told: number; prefix: string; beyond: 'sees too little' | 'sees too much' }
  | { code: 'fixed in the pool'; address: string }
  | { code: 'reserved in the pool'; address: string }
  | { code: 'nobody wrote it down'; address: string }
  | { code: 'reservation without hardware' }
  | { code: 'hardware may change'; hardware: string }
  | { code: 'no address yet'; manner: 'reservation' | 'fixed' }
  | { code: 'found no server'; address: string }
  /** It has a lease that the network’s own server would not give. */
  | { code: 'lease outside the range'; address: string }
  | { code: 'serves from the pool'; address: string | null }
  | { code: 'serves by radio' }
  | { code: 'slower than it could be'; port: number; link: number }
  | { code: 'bad name'; fault: NameFault }
  | { code: 'bad domain'; domain: string; fault: NameFault }
  | { code: 'pool runs backwards' }
  | { code: 'pool outside'; prefix: string }
  | { code: 'pool holds'; what: 'network address' | 'broadcast address' | 'gateway'; address: string }
  | { code: 'pool too small'; size: number; clients: number }
  | { code: 'gateway outside'; gateway: string; prefix: string }
  /** It is the address of the network itself, or the one that reaches all of it. */
  | { code: 'gateway is no host'; gateway: string; what: 'network address' | 'broadcast address' }
  | { code: 'networks overlap'; prefix: string; other: string }
  | { code: 'inside is outside'; prefix: string; outside: string }
  | { code: 'outside is carrier'; outside: string }
  | { code: 'outside is private'; outside: string }
  | { code: 'addresses of others'; prefix: string }
  | { code: 'range for something else'; prefix: string; kind: RangeKind }
  | { code: 'same VLAN'; vlan: number }
  | { code: 'not a /64'; prefix: string };

/** A fault with its grade and who is concerned. */
export interface NetworkFinding {
  fault: NetworkFault;
  grade: 'stop' | 'check' | 'note';
  networks: string[];
  hosts: string[];
}
