import type { GatePlan } from '../model/gate';
import type { Host } from '../model/network';
import type { PaceLine } from '../rules/pace';
import type { PromiseVerdict } from '../rules/answers';
import type { Caveat } from '../rules/caveats';
import type { Kept } from '../rules/promises';
import type { Mend } from '../rules/repair';
import type { Ruleset } from '../rules/ruleset';
import type { Unused } from '../rules/unused';
import type { GateReport } from '../rules/report';
import type { NumberedPacket, Walk } from '../rules/walk';
import type { GateForm } from '../rules/write/forms';
import { formatPlace } from '../units/addressLine';
import { servicesWords, promiseWords, permitWords } from './gatePlan';
import { kindWords, fromWords, ruleWords } from './packet';
import { list, plural } from './text';

const VERDICTS: Record<PromiseVerdict, string> = {
  holds: 'holds',
  fails: 'fails',
  limited: 'holds below a rate',
  'cannot say': 'cannot say',
  'about nothing': 'about nothing',
};

/** What a verdict is called. */
export const promiseVerdictWords = (v: PromiseVerdict): string => VERDICTS[v];

/** Why nothing certain can be said of a promise. */
export const unsureWords = (because: readonly string[]): string =>
  because.length === 0 ? '' : `It depends on what is not understood here: ${because.join('; ')}`;

const CAVEATS: Record<Caveat, string> = {
  'no ports under masquerading':
    'Behind one outside address, two machines cannot use a protocol without ports (such as an ESP or GRE tunnel) to one destination at once.',
  'full connection table':
    '“Always reached” does not cover a full table of connections: while it is full, nothing new begins.',
  'one wire':
    '“Nothing begins” does not cover two machines on one switch or one Wi-Fi: their packets do not come to the firewall.',
  'kernel settings':
    'A verdict counts on the kernel settings of this plan: load its sysctl file with the rules.',
};
/** What a verdict does not cover. */
export const caveatWords = (c: Caveat): string => CAVEATS[c];

/** A change that mends a promise, as what is pressed. */
export function mendWords(plan: GatePlan, m: Mend): string {
  const name = (id: string): string => {
    const p = plan.permits.find((q) => q.id === id);
    return p ? p.name || permitWords(plan, p) : id;
  };
  switch (m.kind) {
    case 'permit off':
      return `Let it no longer: ${name(m.permit)}`;
    case 'permit narrowed':
      return `Name what for: ${servicesWords(plan, m.services)}`;
    case 'permit added':
      return `Let it in: ${permitWords(plan, m.permit)}`;
    case 'forward off':
      return `Forward it no longer: ${plan.forwards.find((f) => f.id === m.forward)?.name ?? m.forward}`;
    case 'sources checked':
      return 'Drop addresses that cannot be where they come from';
  }
}

/** The finding at the head of the sheet. */
export function gateHeadline(
  plan: GatePlan,
  box: string,
  kept: readonly Kept[] | null,
  hosts: readonly Host[] = [],
): string {
  if (plan.zones.length === 0) return `What may talk to what through ${box}?`;
  if (!kept) return `Rules of ${box}`;
  const broken = kept.filter((k) => k.verdict === 'fails');
  const [first] = broken;
  if (first)
    return broken.length === 1
      ? `One promise fails: ${first.packet && first.walk ? brokenWords(plan, first.packet, first.walk, hosts) : lower(promiseWords(plan, first.promise))}`
      : `${broken.length} promises fail`;
  const open = kept.filter((k) => k.verdict === 'cannot say').length;
  if (open > 0) return `Of ${plural(open, 'promise')} nothing can be said`;
  if (kept.length === 0) return 'Nothing is promised yet';
  return kept.length === 1
    ? 'The promise holds'
    : `All ${kept.length} promises hold, over every packet there can be`;
}

/** What a packet that breaks a promise does, by the names of hosts. */
function brokenWords(plan: GatePlan, p: NumberedPacket, walk: Walk, hosts: readonly Host[]): string {
  const to = formatPlace(walk.translated?.daddr ?? p.daddr);
  const name = hosts.find((h) => h.address === to || h.address6 === to)?.name ?? to;
  const through = walk.end === 'passes' ? 'gets through' : 'is kept out';
  return `${kindWords(p)} from ${fromWords(plan, p.iif)} to ${name} ${through}`;
}

const lower = (t: string): string => t.charAt(0).toLowerCase() + t.slice(1);

const FORMS: Record<GateForm, string> = {
  rollback: 'a script that loads them, with a way back',
  nft: 'rules for nftables',
  dnsmasq: 'names and addresses for dnsmasq',
  sysctl: 'settings of the kernel',
  md: 'a page to read',
};

/** What a form is for. */
export const gateFormWords = (f: GateForm): string => FORMS[f];

/** How many packets a line of pace stands for. */
export const paceLineWords = (l: PaceLine): string =>
  `${l.packetBytes > 1000 ? 'Full packets' : 'Small packets'}, ${l.packetBytes} bytes${l.encrypted ? ', enciphered' : ''}`;

const BOUNDS: Record<PaceLine['bound'], string> = {
  wire: 'the wire holds it back',
  processor: 'the processor may hold it back',
  'not known': 'processor or port not known',
};

/** What holds it back. */
export const boundWords = (b: PaceLine['bound']): string => BOUNDS[b];

/** Bits a second as they are said: Mb/s up to a thousand. */
export const bitsWords = (bits: number): string =>
  bits >= 1e9 ? `${(bits / 1e9).toFixed(bits >= 1e10 ? 0 : 2)} Gb/s` : `${Math.round(bits / 1e6)} Mb/s`;

const READS: Record<'not JSON' | 'no ruleset' | 'too large', string> = {
  'not JSON':
    'That is not JSON. Let the gate print its rules with: nft -j list ruleset. Nothing was changed here.',
  'no ruleset': 'That is JSON, and not what “nft -j list ruleset” prints. Nothing was changed here.',
  'too large': 'That is more than 64 MiB. Nothing was changed here.',
};

/** Why rules of a gate could not be read. */
export const nftReadWords = (why: 'not JSON' | 'no ruleset' | 'too large'): string => READS[why];

/** How one finds out which socket is which: what to do, and what to type (ethtool(8), ip-link(8)). */
export function socketSteps(plan: GatePlan): { says: string; types: string }[] {
  const devices = [...new Set(plan.ports.map((p) => p.device))];
  return [
    {
      says: 'Many sockets blink when they are asked to:',
      types: devices.map((d) => `ethtool -p ${d} 10`).join('; '),
    },
    { says: 'Else leave one cable in, and see which has a carrier:', types: 'ip -br link' },
    {
      says: 'Write it down before the next cable goes in, with the hardware address that stands there.',
      types: '',
    },
  ];
}

/** What is noted when rules were given away. */
export const givenWords = (r: GateReport): string =>
  `rules given to the gate; ${r.kept.filter((k) => k.verdict === 'holds').length} of ${plural(r.kept.length, 'promise')} hold over every packet`;

/** Why a rule has nothing to do. */
export function unusedWords(plan: GatePlan, u: Unused, ruleset: Ruleset): string {
  if (u.why === 'meets nothing') return 'no packet is like that';
  if (u.why === 'not so far') return 'it could meet packets, and counted none so far';
  const before = [...new Set(u.before.map((b) => ruleWords(plan, b, ruleset)))];
  const who = before.length > 2 ? `${list(before.slice(0, 2))} and others` : list(before);
  return u.alike ? `said already by: ${who}` : `never acts: its packets are taken by ${who}`;
}
