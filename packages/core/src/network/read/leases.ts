import Papa from 'papaparse';
import { canonicalIp } from '../../units/ip';
import { cardOf } from './ip';
import {
  emptyReading,
  NetworkReadError,
  sighting,
  type NetworkForm,
  type NetworkReading,
  type Sighting,
} from './sighting';

/** The last day that a JavaScript date can tell; ends beyond it never come. */
const LAST_SECOND = 8.64e12;

/** Seconds since 1970 as ISO 8601; null where they mean that nothing ends. */
const moment = (seconds: number): string | null =>
  seconds > 0 && seconds < LAST_SECOND && seconds !== 0xffff_ffff
    ? new Date(seconds * 1000).toISOString()
    : null;

const DNSMASQ = /^(\d+) (\S+) (\S+) (\S+)(?: (\S+))?$/;

/** Whether a text reads as a lease file of dnsmasq. */
export const isDnsmasqLeases = (lines: readonly string[]): boolean => {
  const full = lines.filter((l) => l.trim() !== '' && !l.startsWith('duid '));
  return (
    full.length > 0 && full.every((l) => DNSMASQ.test(l) && canonicalIp(l.split(' ')[2] ?? '') !== undefined)
  );
};

/** dnsmasq's lease file: until when (0: for ever), whose card, address, name, client (dnsmasq(8), --dhcp-leasefile, and its source from memory). */
export function readDnsmasqLeases(text: string): NetworkReading {
  const out = emptyReading('dnsmasq leases');
  text.split(/\r?\n/).forEach((line, i) => {
    if (line.trim() === '' || line.startsWith('duid ')) return;
    const [, until = '', who = '', where = '', name = ''] = DNSMASQ.exec(line) ?? [];
    const address = canonicalIp(where);
    if (address === undefined)
      throw new NetworkReadError({ code: 'bad line', form: 'dnsmasq leases', line: i + 1 });
    out.sightings.push(
      sighting('lease', {
        address,
        // Of IPv6 a number of the interface stands there.
        hardware: cardOf(who.replace(/^\d{2}-/, '')),
        name: name === '*' || name === '' ? null : name,
        until: moment(Number(until)),
        dynamic: true,
      }),
    );
  });
  return out;
}

/** A reading with what counts last of each address; undefined is passed over. */
function withLast(out: NetworkReading, last: ReadonlyMap<string, Sighting | undefined>): NetworkReading {
  for (const one of last.values())
    if (one) out.sightings.push(one);
    else out.passed += 1;
  return out;
}

/** Words, strings and signs of a file of the ISC server (dhcpd.leases(5)); comments are left out. */
function* tokens(text: string): Generator<{ text: string; line: number; quoted: boolean }> {
  const sign = /#[^\n]*|"((?:[^"\\]|\\.)*)"|[{};]|[^\s{};"#]+|\n/g;
  let line = 1;
  for (const found of text.matchAll(sign)) {
    const [whole, quoted] = found;
    if (whole === '\n') line += 1;
    else if (!whole.startsWith('#')) yield { text: quoted ?? whole, line, quoted: quoted !== undefined };
  }
}

interface Block {
  kind: string;
  name: string;
  statements: string[][];
  line: number;
}

/** Blocks of leases and hosts, at whatever depth, each with its statements. Throws NetworkReadError. */
function blocksOf(text: string): Block[] {
  const out: Block[] = [];
  const open: (Block | undefined)[] = [];
  let words: string[] = [];
  let line = 0;
  for (const token of tokens(text)) {
    line = token.line;
    if (!token.quoted && token.text === '{') {
      const [kind = '', name = ''] = words;
      const block = /^(lease|host)$/.test(kind) ? { kind, name, statements: [], line } : undefined;
      if (block) out.push(block);
      open.push(block);
      words = [];
    } else if (!token.quoted && (token.text === ';' || token.text === '}')) {
      if (words.length > 0) open.at(-1)?.statements.push(words);
      words = [];
      if (token.text === '}' && open.length === 0)
        throw new NetworkReadError({ code: 'bad line', form: 'ISC leases', line });
      if (token.text === '}') open.pop();
    } else words.push(token.text);
  }
  if (open.length > 0) throw new NetworkReadError({ code: 'bad line', form: 'ISC leases', line });
  return out;
}

/** “4 2026/11/26 18:00:00”, “epoch 1795716000” or “never”, in UTC, as ISO 8601. */
function endOf([first = '', second = '', third = '']: readonly string[]): string | null {
  if (first === 'epoch') return moment(Number(second));
  if (first === 'never') return null;
  const at = Date.parse(`${second.replaceAll('/', '-')}T${third}Z`);
  return Number.isNaN(at) ? null : moment(at / 1000);
}

/** Whether a text reads as a lease file, or a file of hosts, of the ISC server. */
export const isIscLeases = (text: string): boolean =>
  /^[ \t]*(?:lease[ \t]+[\d.]+|host[ \t]+[^\s{]+)\s*\{/m.test(text);

/** The ISC server's lease file: of several entries for one address the last counts (dhcpd.leases(5)); and its hosts with fixed addresses (dhcpd.conf(5)). Throws NetworkReadError. */
export function readIscLeases(text: string): NetworkReading {
  const out = emptyReading('ISC leases');
  const last = new Map<string, Sighting | undefined>();
  for (const block of blocksOf(text)) {
    const said = (...start: string[]): string[] | undefined => {
      const found = block.statements.find((s) => start.every((w, i) => s[i] === w));
      return found?.slice(start.length);
    };
    const hardware = cardOf(said('hardware', 'ethernet')?.[0]);
    if (block.kind === 'host') {
      const address = canonicalIp(said('fixed-address')?.[0]?.replace(/,$/, '') ?? '') ?? null;
      if (address !== null || hardware !== null)
        last.set(
          `host ${block.name}`,
          sighting('reservation', { address, hardware, name: block.name, dynamic: true }),
        );
      continue;
    }
    const address = canonicalIp(block.name);
    if (address === undefined)
      throw new NetworkReadError({ code: 'bad line', form: 'ISC leases', line: block.line });
    const state = said('binding', 'state')?.[0] ?? 'active';
    last.delete(address);
    last.set(
      address,
      state === 'active'
        ? sighting('lease', {
            address,
            hardware,
            name: said('client-hostname')?.[0] ?? null,
            until: endOf(said('ends') ?? ['never']),
            dynamic: true,
          })
        : undefined,
    );
  }
  return withLast(out, last);
}

/** Whether a text reads as Kea's lease file. */
export const isKeaLeases = (lines: readonly string[]): boolean =>
  /^address,(?:hwaddr|duid),/.test(lines[0] ?? '');

/** Kea writes commas within a value so (Kea Administrator Reference Manual, Memfile, from memory). */
const unescaped = (text: string): string => text.replaceAll('&#x2c', ',');

/** Kea's lease file, of IPv4 or IPv6: of several rows for one address the last counts; state 0 is given, others are not. Throws NetworkReadError. */
export function readKeaLeases(text: string): NetworkReading {
  const form: NetworkForm = 'Kea leases';
  const out = emptyReading(form);
  const { data } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
  const last = new Map<string, Sighting | undefined>();
  data.forEach((row, i) => {
    const address = canonicalIp(row.address ?? '');
    if (address === undefined) throw new NetworkReadError({ code: 'bad line', form, line: i + 2 });
    const given = (row.state ?? '0') === '0' && row.valid_lifetime !== '0';
    last.delete(address);
    last.set(
      address,
      given
        ? sighting('lease', {
            address,
            hardware: cardOf(row.hwaddr),
            name: unescaped(row.hostname ?? '').replace(/\.$/, '') || null,
            until: moment(Number(row.expire)),
            dynamic: true,
          })
        : undefined,
    );
  });
  return withLast(out, last);
}
