import { z } from 'zod';

/*
 * The stand-in network: what the server keeps of it, and what the page may do to it. Times are seconds since 1970.
 */

const id = z.string().min(1).max(40);

/** A host of the stand-in network. */
export const lanHostSchema = z.object({
  id,
  name: z.string().max(80),
  hardware: z.string(),
  manner: z.enum(['reservation', 'fixed', 'pool']),
  /** What it was set to, or what is kept for it; null where a server chooses. */
  set: z.string().nullable(),
  /** The prefix length it was told. */
  bits: z.number().int(),
  asksAgain: z.boolean(),
  plugged: z.boolean(),
  /** When it answers again; what lies in the past is over. */
  backAt: z.number(),
  /** The address it has, or had last. */
  address: z.string().nullable(),
  /** Which router gave it that. */
  from: z.enum(['first', 'second', 'nobody']),
});
export type LanHost = z.infer<typeof lanHostSchema>;

export const lanStateSchema = z.object({
  seed: z.number().int().nonnegative(),
  /** How often something was drawn: a state goes on where it was. */
  drawn: z.number().int().nonnegative(),
  /** A second router that somebody plugged in by mistake, and that hands out too. */
  second: z.boolean(),
  hosts: z.array(lanHostSchema).max(12),
});
export type LanState = z.infer<typeof lanStateSchema>;

/** What can happen to it. */
export const lanEventSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('cut') }),
  z.object({ kind: z.literal('restart'), host: id }),
  z.object({ kind: z.literal('unplug'), host: id }),
  z.object({ kind: z.literal('plug in'), host: id }),
  z.object({ kind: z.literal('second router'), there: z.boolean() }),
  z.object({ kind: z.literal('begin anew'), seed: z.number().int().min(0).max(1_000_000) }),
]);
export type LanEvent = z.infer<typeof lanEventSchema>;

/** What a look at it can print, in the formats of the tools themselves. */
export const lanTexts = ['look', 'ip addr', 'ip route', 'ip neigh', 'arp', 'dnsmasq leases'] as const;
/** One of them. */
export type LanText = (typeof lanTexts)[number];

/** Whether somebody answered when asked. */
export const answerSchema = z.object({ answers: z.boolean(), millis: z.number().nullable() });
export type Answer = z.infer<typeof answerSchema>;
