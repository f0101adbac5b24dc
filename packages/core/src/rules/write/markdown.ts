import { GATE, interfaceOf, type GatePlan } from '../../model/gate';
import type { Network } from '../../model/network';
import { sidesOf } from '../matrix';
import { codeSpan, markdownTable } from '../../formats/writer/markdown';

/** The plan as a page that somebody else can read: ports, who may begin what with whom, what is forwarded. */
export function gateMarkdown(plan: GatePlan, networks: readonly Network[]): string {
  const name = (id: string): string =>
    id === GATE ? 'the gate' : (plan.zones.find((z) => z.id === id)?.name ?? id);
  const set = (id: string): string => plan.addresses.find((a) => a.id === id)?.name ?? id;
  const services = (ids: readonly string[]): string =>
    ids.length === 0
      ? 'everything'
      : ids.map((i) => plan.services.find((s) => s.id === i)?.name ?? i).join(', ');
  const side = (s: { zone: string; addresses: readonly string[] }): string =>
    [name(s.zone), ...(s.addresses.length > 0 ? [`(${s.addresses.map(set).join(', ')})`] : [])].join(' ');
  const lines = [
    '# Rules of the gate',
    '',
    ...markdownTable(
      ['port', 'zone', 'network', 'socket'],
      plan.ports.map((p) => {
        const network = networks.find((n) => n.id === p.networkId);
        return [
          codeSpan(interfaceOf(p)),
          name(p.zoneId),
          [network?.prefix, network?.prefix6].filter((t) => typeof t === 'string').join(', '),
          p.socket,
        ];
      }),
    ),
    '',
    '## Who may begin what',
    '',
    ...markdownTable(
      ['who', 'with whom', 'for', 'does'],
      sidesOf(plan).flatMap((z) =>
        plan.permits
          .filter((p) => p.on && p.from.zone === z)
          .map((p) => [side(p.from), side(p.to), services(p.services), p.does]),
      ),
    ),
    '',
    'Everything else is kept out. Answers go back.',
    '',
  ];
  const led = plan.forwards.filter((f) => f.on);
  if (led.length > 0)
    lines.push(
      '## Led in from outside',
      '',
      ...markdownTable(
        ['what', 'port outside', 'to'],
        led.map((f) => [
          f.name,
          `${f.protocol} ${f.ports[0] === f.ports[1] ? f.ports[0] : f.ports.join('-')}`,
          `${f.to}${f.toPort === null ? '' : ` port ${f.toPort}`}`,
        ]),
      ),
      '',
    );
  return lines.join('\n');
}
