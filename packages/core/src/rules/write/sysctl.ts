import type { GatePlan } from '../../model/gate';
import { comment, plainTemplate } from '../../formats/writer/lines';
import { linesOf, type Written } from '../../formats/writer/template';
import { interfaceOf } from '../../model/gate';

const sysctl = plainTemplate('sysctl');

/** Settings of the kernel that make a machine a gate (Linux, Documentation/networking/ip-sysctl.rst), each with its reason. */
export function sysctlLines(plan: GatePlan): string {
  const outside = plan.ports.filter((p) => plan.zones.find((z) => z.id === p.zoneId)?.kind === 'outside');
  const lines: [Written<'sysctl'>, string][] = [
    [sysctl`net.ipv4.ip_forward = 1`, 'packets go through'],
    [sysctl`net.ipv6.conf.all.forwarding = 1`, 'and those of IPv6'],
    ...outside.map((p): [Written<'sysctl'>, string] => [
      // A slash where the name of an interface has a dot (sysctl(8)).
      sysctl`net.ipv6.conf.${interfaceOf(p).replaceAll('.', '/')}.accept_ra = 2`,
      'still takes its own IPv6 address from the line',
    ]),
    [sysctl`net.ipv4.conf.all.rp_filter = 1`, 'a packet comes in where its answer would go out (RFC 3704)'],
    [sysctl`net.ipv4.conf.all.accept_redirects = 0`, 'nobody tells the gate another way'],
    [sysctl`net.ipv6.conf.all.accept_redirects = 0`, ''],
    [sysctl`net.ipv4.conf.all.send_redirects = 0`, ''],
    [sysctl`net.ipv4.conf.all.accept_source_route = 0`, 'a packet does not choose its way'],
    [sysctl`net.ipv4.icmp_echo_ignore_broadcasts = 1`, 'one echo does not make many (RFC 2644)'],
    [sysctl`net.ipv4.tcp_syncookies = 1`, 'a flood of beginnings fills no table'],
  ];
  return linesOf(lines.flatMap(([line, why]) => (why === '' ? [line] : [comment('sysctl', why), line])));
}
