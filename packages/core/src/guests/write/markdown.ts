import type { GuestPlan } from '../../model/guests';
import { formatIec } from '../../units/bytes';
import type { Pot } from '../pot';
import { memorySum, poolSums } from '../sums';
import { markdownTable } from '../../formats/writer/markdown';

/** The guests as a page that somebody else can read, with what is left. */
export function guestsMarkdown(plan: GuestPlan, pot: Pot): string {
  const memory = memorySum(plan, pot);
  return [
    '# Guests of the host',
    '',
    ...markdownTable(
      ['guest', 'for', 'runs', 'cores', 'memory', 'disks', 'networks', 'starts'],
      plan.guests.map((g) => [
        g.name,
        g.purpose,
        g.on ? 'yes' : 'no',
        String(g.cores),
        `${formatIec(g.memoryBytes)}${g.floorBytes === null ? '' : `, down to ${formatIec(g.floorBytes)}`}`,
        g.disks
          .map(
            (d) =>
              `${formatIec(d.bytes)}${d.thin ? ' thin' : ''} on ${plan.pools.find((p) => p.id === d.poolId)?.name ?? d.poolId}`,
          )
          .join('; '),
        g.nics.map((n) => plan.nets.find((x) => x.id === n.netId)?.name ?? n.netId).join(', '),
        g.autostart ? `${g.order}, then ${g.delaySeconds} s` : 'by hand',
      ]),
    ),
    '',
    ...(memory
      ? [
          `Memory: ${formatIec(memory.has)}, of it ${formatIec(memory.base + memory.cache + memory.overhead)} the host’s own, ${formatIec(memory.most)} the guests’, ${memory.free < 0 ? `${formatIec(-memory.free)} missing` : `${formatIec(memory.free)} free`}.`,
          '',
        ]
      : []),
    ...markdownTable(
      ['pool', 'room', 'taken', 'promised', 'free'],
      poolSums(plan).map((s) => [
        s.pool.name,
        formatIec(s.has),
        formatIec(s.thick + s.written),
        formatIec(s.promised),
        s.free < 0 ? `${formatIec(-s.free)} missing` : formatIec(s.free),
      ]),
    ),
    '',
  ].join('\n');
}
