/** How an address was come across. */
export type Seen =
  /** It is the address of the machine that was asked. */
  | 'own'
  /** Somebody answers there, or did a moment ago. */
  | 'neighbour'
  /** A server gave it away. */
  | 'lease'
  /** A server keeps it for somebody. */
  | 'reservation'
  /** It stands in a list of names. */
  | 'written'
  /** A router's page lists it. */
  | 'listed';

/** One address with who has it, as a text told it. */
export interface Sighting {
  address: string | null;
  hardware: string | null;
  name: string | null;
  seen: Seen;
  /** Until when it may be used (ISO 8601, UTC); null where nothing ends it, or nobody said. */
  until: string | null;
  /** Told whether it came from a server; null where the text does not say. */
  dynamic: boolean | null;
  /** Prefix length it was told; null where the text does not say. */
  bits: number | null;
  /** The interface of the machine that was asked. */
  port: string | null;
}

/** What a host showed when it was asked by name: a certificate, or a key of its remote shell. */
export type Shown =
  | { what: 'certificate'; host: string; fingerprint: string; expires: string | null }
  | { what: 'host key'; host: string; type: string; key: string };

/** Texts that are understood. */
export const networkForms = [
  'ip addr',
  'ip route',
  'ip neigh',
  'arp',
  'dnsmasq leases',
  'ISC leases',
  'Kea leases',
  'hosts file',
  'list of a router',
  'look report',
] as const;
/** One of them. */
export type NetworkForm = (typeof networkForms)[number];

/** All that a text told of a network. Addresses and prefixes are in their canonical form. */
export interface NetworkReading {
  form: NetworkForm;
  sightings: Sighting[];
  /** Ways out of the network. */
  gateways: string[];
  nameServers: string[];
  /** Networks that the machine which was asked stands in. */
  prefixes: string[];
  shown: Shown[];
  /** Entries that name nobody: asked for and not answered, given back, or over. */
  passed: number;
}

/** A reading of which nothing is told yet. */
export const emptyReading = (form: NetworkForm): NetworkReading => ({
  form,
  sightings: [],
  gateways: [],
  nameServers: [],
  prefixes: [],
  shown: [],
  passed: 0,
});

/** A sighting of which only the manner is said. */
export const sighting = (seen: Seen, told: Partial<Omit<Sighting, 'seen'>>): Sighting => ({
  address: null,
  hardware: null,
  name: null,
  until: null,
  dynamic: null,
  bits: null,
  port: null,
  ...told,
  seen,
});

/** Why a text tells nothing of a network that can be taken. Nothing is changed by it. */
export type NetworkReadFault =
  | { code: 'nothing known' }
  | { code: 'not JSON'; part: NetworkForm }
  | { code: 'not as printed'; form: NetworkForm; words: string }
  | { code: 'bad line'; form: NetworkForm; line: number }
  | { code: 'no rows'; form: NetworkForm }
  | { code: 'too much'; most: number };

/** A text that tells nothing; `fault` says why. */
export class NetworkReadError extends Error {
  override readonly name = 'NetworkReadError';
  constructor(readonly fault: NetworkReadFault) {
    super(fault.code);
  }
}
