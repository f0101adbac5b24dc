import type { Family } from '../units/ip';
import type { Spans } from '../units/spans';

/** Fields of a packet that a rule may look at, as ranges of numbers. Second: of the day. Destination port: for ICMP type × 256 + code. */
export const fields = ['daddr', 'proto', 'dport', 'saddr', 'sport', 'day', 'second'] as const;
/** One of them. */
export type Field = (typeof fields)[number];

/** What a connection tracker knows of the conversation a packet belongs to (conntrack states, nft(8)). */
export const packetStates = ['new', 'established', 'related', 'invalid', 'untracked'] as const;
/** One of them. */
export type PacketState = (typeof packetStates)[number];

/** Interfaces by name; a name may end in *. */
export interface Names {
  names: readonly string[];
  /** All but these. */
  not: boolean;
}

/** A rate in packets; a rule with one matches only below it, or with `over` only above. */
export interface Rate {
  over?: boolean;
  count: number;
  per: 'second' | 'minute' | 'hour' | 'day';
  burst: number;
}

/** What a packet must be to meet a rule: all of it at once. */
export interface Clause {
  iif?: Names;
  oif?: Names;
  states?: readonly PacketState[];
  /** Its destination was translated. */
  translated?: boolean;
  spans: Partial<Record<Field, Spans>>;
  /** Named sets that ranges come from, by their field; `local`: every address of the gate. */
  named?: Partial<Record<Field, string>>;
  rate?: Rate;
  /** A part nobody here understands; it may match or not. */
  unknown?: string;
}

/** What becomes of a packet that meets a rule (nft(8), “Verdict statement”, “NAT statements”). */
export type RuleVerdict =
  | { kind: 'accept' }
  | { kind: 'drop' }
  | { kind: 'reject' }
  | { kind: 'jump' | 'goto'; chain: string }
  | { kind: 'return' }
  /** It counts or logs, and goes on. */
  | { kind: 'continue' }
  /** Translated to this address and port; null keeps what the packet has. */
  | { kind: 'dnat'; to: string | null; port: number | null }
  /** To the gate itself. */
  | { kind: 'redirect'; port: number | null }
  | { kind: 'snat'; to: string }
  | { kind: 'masquerade' }
  | { kind: 'unknown'; what: string };

/** What of a plan a rule comes from. */
export type RuleSource =
  { what: 'permit' | 'forward' | 'zone'; id: string } | { what: 'usual'; code: UsualRule };

/** Rules that every gate of ours has. */
export type UsualRule =
  | 'known conversations'
  | 'belongs to none'
  | 'the gate to itself'
  | 'asks for an address'
  | 'gets an address'
  | 'gives addresses'
  | 'neighbours'
  | 'no address yet'
  | 'strange source'
  | 'never in the open'
  | 'way to a crossing'
  | 'leaves as the gate';

/** One rule. */
export interface Rule {
  id: string;
  when: readonly Clause[];
  verdict: RuleVerdict;
  from: RuleSource | null;
  comment: string;
  /** What it writes to the log; null: nothing. */
  log: string | null;
  /** Packets it counted so far; null where it does not count. */
  counted: number | null;
}

/** Where packets pass a chain (nft(8), “Chains”). */
export const hooks = ['prerouting', 'input', 'forward', 'output', 'postrouting'] as const;
/** One of them. */
export type Hook = (typeof hooks)[number];

/** A list of rules; one without a hook is gone to by a rule. */
export interface Chain {
  /** Table and name. */
  id: string;
  table: string;
  name: string;
  /** Both families, or one. */
  family: Family | null;
  hook: { at: Hook; type: 'filter' | 'nat'; priority: number; policy: 'accept' | 'drop' } | null;
  rules: readonly Rule[];
}

/** All rules of a gate. */
export interface Ruleset {
  chains: readonly Chain[];
  /** Whole parts that nobody here understands, and which may drop anything. */
  strange: readonly string[];
}

/** One interface of a gate: what it is called, its own addresses, what lies behind it. */
export interface GatePort {
  name: string;
  /** Addresses of the gate there; null of a family: the line gives it. */
  own: readonly string[];
  /** It takes its addresses from the line. */
  fromLine: boolean;
  prefixes: readonly string[];
  /** Whatever lies behind no other interface lies behind this. */
  outside: boolean;
}

/** Every interface of a gate. */
export interface Topology {
  ports: readonly GatePort[];
  /** An IPv4 packet is dropped where its answer would leave by another interface: `rp_filter` 1 (RFC 3704 §2.2, strict). */
  reversePath: boolean;
}
