import type { GuestNet } from '../../model/guests';
import { firstOf, lastOf, maskOf, parsePrefix } from '../../units/prefix';
import { formatIp, ipAfter } from '../../units/ip';
import { xmlText, type Xml } from '../../formats/writer/xml';

/** A network of guests as libvirt takes it (“Network XML format”). One behind the host serves addresses itself, the upper half of its prefix. */
export function networkXml(net: GuestNet): string {
  const prefix = net.prefix === null ? undefined : parsePrefix(net.prefix);
  const own: (Xml | undefined)[] = [];
  if (net.mode !== 'bridge' && prefix) {
    const gateway = ipAfter(firstOf(prefix), 1);
    const half = 1n << BigInt(Math.max(0, 31 - prefix.bits));
    own.push({
      name: 'ip',
      of: { address: formatIp(gateway), netmask: maskOf(prefix.bits) },
      in: [
        {
          name: 'dhcp',
          in: [
            {
              name: 'range',
              of: {
                start: formatIp(ipAfter(firstOf(prefix), half)),
                end: formatIp(ipAfter(lastOf(prefix), -1)),
              },
            },
          ],
        },
      ],
    });
  }
  return xmlText({
    name: 'network',
    in: [
      { name: 'name', in: net.name },
      net.mode === 'bridge' ? { name: 'forward', of: { mode: 'bridge' } } : undefined,
      net.mode === 'behind' ? { name: 'forward', of: { mode: 'nat' } } : undefined,
      { name: 'bridge', of: { name: net.bridge } },
      ...own,
    ],
  });
}
