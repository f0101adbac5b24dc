import Papa from 'papaparse';
import { canonicalHardware } from '../../units/hardware';
import { canonicalIp, parseIp } from '../../units/ip';
import { rangeOf } from '../ranges';
import { cardOf } from './ip';
import { emptyReading, NetworkReadError, sighting, type NetworkReading } from './sighting';

const ARP = /^(\S+) \(([\d.]+)\) at (<?[\da-fA-F:]+>?|<incomplete>|\(incomplete\))\s+(.*)$/;

/** Whether a text reads as what `arp -an` prints. */
export const isArp = (lines: readonly string[]): boolean => {
  const full = lines.filter((l) => l.trim() !== '');
  return full.length > 0 && full.every((l) => ARP.test(l));
};

/** `arp -an`, as Linux, small boards and the BSDs print it. Throws NetworkReadError. */
export function readArp(text: string): NetworkReading {
  const out = emptyReading('arp');
  text.split(/\r?\n/).forEach((line, i) => {
    if (line.trim() === '') return;
    const [, name = '', where = '', who = '', rest = ''] = ARP.exec(line) ?? [];
    const address = canonicalIp(where, 4);
    if (address === undefined) throw new NetworkReadError({ code: 'bad line', form: 'arp', line: i + 1 });
    const hardware = cardOf(who);
    if (hardware === null) out.passed += 1;
    else
      out.sightings.push(
        sighting('neighbour', {
          address,
          hardware,
          name: name === '?' ? null : name,
          port: /\bon (\S+)/.exec(rest)?.[1] ?? null,
        }),
      );
  });
  return out;
}

/** Whether a text reads as /etc/hosts: an address and names in every line. */
export const isHostsFile = (lines: readonly string[]): boolean => {
  const full = lines.map((l) => l.replace(/#.*/, '').trim()).filter((l) => l !== '');
  return (
    full.length > 0 &&
    full.every((l) => {
      const [where = '', ...names] = l.split(/\s+/);
      return parseIp(where.replace(/%.*/, '')) !== undefined && names.length > 0;
    })
  );
};

/** /etc/hosts (hosts(5)): the first name of a line counts; the machine's own and the multicast names are passed over. */
export function readHostsFile(text: string): NetworkReading {
  const out = emptyReading('hosts file');
  for (const line of text.split(/\r?\n/)) {
    const [where = '', name] = line.replace(/#.*/, '').trim().split(/\s+/);
    if (where === '') continue;
    const ip = parseIp(where);
    const kind = ip && rangeOf(ip)?.kind;
    if (!ip || name === undefined || kind === 'loopback' || kind === 'multicast' || kind === 'link-local') {
      out.passed += 1;
      continue;
    }
    out.sightings.push(sighting('written', { address: canonicalIp(where) ?? null, name }));
  }
  return out;
}

type Row = string[];
/** Columns that are looked at; no router’s page has more. */
const MOST_COLUMNS = 64;
/** The column in which most values read as something; undefined where less than half of them do. */
function columnOf(rows: readonly Row[], is: (value: string) => boolean): number | undefined {
  const width = rows.reduce((most, r) => Math.max(most, Math.min(r.length, MOST_COLUMNS)), 0);
  let best: { column: number; count: number } | undefined;
  for (let column = 0; column < width; column += 1) {
    const count = rows.filter((r) => is((r[column] ?? '').trim())).length;
    if (count > (best?.count ?? 0)) best = { column, count };
  }
  return best && best.count * 2 >= rows.length ? best.column : undefined;
}

const NAME_HEAD = /name|host|device|client/i;
/** Words for how a host has its address. Common practice, no source. */
const MANNER =
  /^(static|dynamic|reserv\w*|reservation|fixed|pool|manual|permanent|dhcp|automatic|not known)$/i;
const KEPT = /static|reserv|fixed|manual|permanent/i;

/** Rows of a list with commas, semicolons or tabs, in which addresses or cards stand; undefined where it is none. */
export function rowsOfList(
  text: string,
): { head: Row | undefined; rows: Row[]; ip?: number; card?: number } | undefined {
  const { data } = Papa.parse<Row>(text.trim(), { skipEmptyLines: 'greedy' });
  if (data.length === 0 || data.every((r) => r.length < 2)) return undefined;
  const isIp = (value: string): boolean => canonicalIp(value) !== undefined;
  const isCard = (value: string): boolean => canonicalHardware(value) !== undefined;
  const first = data[0] ?? [];
  const head = first.some((v) => isIp(v) || isCard(v)) ? undefined : first;
  const rows = head ? data.slice(1) : data;
  const ip = columnOf(rows, isIp);
  const card = columnOf(rows, isCard);
  if (ip === undefined && card === undefined) return undefined;
  return { head, rows, ...(ip === undefined ? {} : { ip }), ...(card === undefined ? {} : { card }) };
}

/** The list that a router's page saves: which column is what is told by what stands in it, and by its head. Throws NetworkReadError. */
export function readRouterList(text: string): NetworkReading {
  const out = emptyReading('list of a router');
  const found = rowsOfList(text);
  if (!found) throw new NetworkReadError({ code: 'nothing known' });
  const { head, rows, ip, card } = found;
  const headed = (like: RegExp): number | undefined => {
    const at = head?.findIndex((h, i) => i !== ip && i !== card && like.test(h)) ?? -1;
    return at < 0 ? undefined : at;
  };
  const name = headed(NAME_HEAD) ?? (head ? undefined : rows[0]?.findIndex((_, i) => i !== ip && i !== card));
  const manner = columnOf(rows, (value) => MANNER.test(value));
  const cell = (row: Row, column: number | undefined): string =>
    column === undefined || column < 0 ? '' : (row[column] ?? '').trim();
  rows.forEach((row, i) => {
    const address = canonicalIp(cell(row, ip)) ?? null;
    const hardware = cardOf(cell(row, card));
    if (address === null && hardware === null)
      throw new NetworkReadError({ code: 'bad line', form: out.form, line: i + (head ? 2 : 1) });
    const told = cell(row, manner);
    out.sightings.push(
      sighting(KEPT.test(told) ? 'reservation' : 'listed', {
        address,
        hardware,
        name: cell(row, name) || null,
        dynamic: told === '' ? null : !/^fixed|^manual/i.test(told),
      }),
    );
  });
  return out;
}
