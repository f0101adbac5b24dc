import { z } from 'zod';
import { packetSchema, type Packet } from './gate';
import { HOUR, trimmed } from './typedFields';

/** A packet as it is typed. */
export interface PacketDraft {
  from: string;
  source: string;
  destination: string;
  protocol: string;
  /** A port, or a type of ICMP. */
  port: string;
  sourcePort: string;
  state: string;
  hour: string;
}

const number = (most: number) =>
  z
    .string()
    .trim()
    .regex(/^\d+$/, `is a whole number from 0 to ${most}`)
    .transform(Number)
    .refine((n) => n <= most, `is a whole number from 0 to ${most}`);

/** Reads a packet from its form; today's day of the week, because a day is rarely asked about. */
export const packetOfDraft: z.ZodType<Packet, PacketDraft> = z
  .object({
    from: z.string(),
    source: trimmed,
    destination: trimmed,
    protocol: z.string(),
    port: number(65_535),
    sourcePort: number(65_535),
    state: z.string(),
    hour: z.string().regex(HOUR, 'is an hour such as 12:00'),
  })
  .transform((d, ctx): Packet => {
    const icmp = d.protocol.startsWith('icmp');
    const [h = 0, m = 0] = d.hour.split(':').map(Number);
    const found = packetSchema.safeParse({
      from: d.from,
      source: d.source,
      destination: d.destination,
      protocol: d.protocol,
      sourcePort: icmp ? 0 : d.sourcePort,
      destinationPort: icmp ? 0 : d.port,
      type: icmp ? d.port : 0,
      state: d.state === '' ? null : d.state,
      second: h * 3600 + m * 60,
    });
    if (found.success) return found.data;
    for (const issue of found.error.issues)
      ctx.addIssue({
        code: 'custom',
        message: issue.code === 'invalid_union' ? 'is an address' : issue.message,
        path: [
          issue.path[0] === 'destinationPort' || issue.path[0] === 'type'
            ? 'port'
            : (issue.path[0] ?? 'from'),
        ],
      });
    return z.NEVER;
  });
