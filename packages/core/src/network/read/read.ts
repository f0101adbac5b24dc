import { ipFormOf, readIpAddr, readIpNeigh, readIpRoute } from './ip';
import {
  isDnsmasqLeases,
  isIscLeases,
  isKeaLeases,
  readDnsmasqLeases,
  readIscLeases,
  readKeaLeases,
} from './leases';
import { isLook, readLook } from './look';
import { NetworkReadError, type NetworkReading } from './sighting';
import { isArp, isHostsFile, readArp, readHostsFile, readRouterList, rowsOfList } from './tables';

/** More characters than any table of a small network has. */
const MOST = 8_000_000;

const JSON_READERS = { 'ip addr': readIpAddr, 'ip route': readIpRoute, 'ip neigh': readIpNeigh };

/**
 * What a text tells of a network, whichever tool printed it: which one is told by the text itself. All of it is taken or
 * nothing. Throws NetworkReadError.
 */
export function readNetworkText(text: string): NetworkReading {
  if (text.length > MOST) throw new NetworkReadError({ code: 'too much', most: MOST });
  const lines = text.split(/\r?\n/).map((l) => l.trimEnd());
  while (lines.at(-1) === '') lines.pop();
  while (lines[0] === '') lines.shift();
  const plain = lines.join('\n');
  if (plain === '') throw new NetworkReadError({ code: 'nothing known' });
  if (isLook(plain)) return readLook(plain);
  if (plain.trimStart().startsWith('[')) {
    const form = ipFormOf(plain);
    if (form !== undefined && form in JSON_READERS)
      return JSON_READERS[form as keyof typeof JSON_READERS](plain);
    throw new NetworkReadError({ code: 'nothing known' });
  }
  if (isKeaLeases(lines)) return readKeaLeases(plain);
  if (isIscLeases(plain)) return readIscLeases(plain);
  if (isDnsmasqLeases(lines)) return readDnsmasqLeases(plain);
  if (isArp(lines)) return readArp(plain);
  if (isHostsFile(lines)) return readHostsFile(plain);
  if (rowsOfList(plain)) return readRouterList(plain);
  throw new NetworkReadError({ code: 'nothing known' });
}
