import { follows } from '../../units/grammar';
import { canonicalIp } from '../../units/ip';
import { readIpAddr, readIpNeigh, readIpRoute } from './ip';
import { emptyReading, NetworkReadError, type NetworkReading } from './sighting';
import { isArp, readArp } from './tables';

const HEAD = /^==== ([\w-]+) ====$/;

/** Sections of a report by their names. */
function sectionsOf(text: string): Map<string, string> {
  const out = new Map<string, string>();
  let name: string | undefined;
  for (const line of text.split(/\r?\n/)) {
    const head = HEAD.exec(line)?.[1];
    if (head !== undefined) out.set((name = head), '');
    else if (name !== undefined) out.set(name, `${out.get(name) ?? ''}${line}\n`);
  }
  return out;
}

/** Whether a text is a report of the look script. */
export const isLook = (text: string): boolean => /^==== zb-look ====$/m.test(text);

/** The name servers a machine asks (resolv.conf(5)). */
export const nameServersIn = (text: string): string[] =>
  [...text.matchAll(/^[ \t]*nameserver[ \t]+(\S+)/gm)].flatMap(
    ([, server = '']) => canonicalIp(server) ?? [],
  );

const CERTIFICATE = /^certificate (\S+) sha256 Fingerprint=([\dA-Fa-f:]+) (?:notAfter=(.*))?$/;
const KEY = /^hostkey (\S+) (\S+) (\S+)$/;

function shownIn(text: string, out: NetworkReading): void {
  text.split(/\r?\n/).forEach((line) => {
    const [, host = '', print = '', after = ''] = CERTIFICATE.exec(line) ?? [];
    const fingerprint = print.replaceAll(':', '').toLowerCase();
    if (host !== '' && fingerprint.length === 64) {
      const ends = Date.parse(after);
      const expires = Number.isNaN(ends) ? null : new Date(ends).toISOString().slice(0, 10);
      out.shown.push({ what: 'certificate', host, fingerprint, expires });
    }
    const [, of = '', type = '', key = ''] = KEY.exec(line) ?? [];
    if (of !== '' && follows('keyType', type) && follows('base64', key))
      out.shown.push({ what: 'host key', host: of, type, key });
  });
}

/** A report of the look script, in all its parts or none. Throws NetworkReadError. */
export function readLook(text: string): NetworkReading {
  const parts = sectionsOf(text);
  const out = emptyReading('look report');
  const take = (name: string, read: (part: string) => NetworkReading): void => {
    const part = parts.get(name)?.trim() ?? '';
    if (part === '') return;
    const found = read(part);
    out.sightings.push(...found.sightings);
    out.gateways.push(...found.gateways);
    out.prefixes.push(...found.prefixes);
    out.passed += found.passed;
  };
  take('addr', readIpAddr);
  take('route', readIpRoute);
  take('route6', readIpRoute);
  take('neigh', readIpNeigh);
  const arp = parts.get('arp')?.trim() ?? '';
  if (arp !== '' && isArp(arp.split('\n'))) take('arp', readArp);
  out.nameServers.push(...nameServersIn(parts.get('resolv') ?? ''));
  shownIn(parts.get('shown') ?? '', out);
  out.prefixes = [...new Set(out.prefixes)];
  out.gateways = [...new Set(out.gateways)];
  out.nameServers = [...new Set(out.nameServers)];
  if (!parts.has('end'))
    throw new NetworkReadError({ code: 'not as printed', form: 'look report', words: 'its end is missing' });
  return out;
}
