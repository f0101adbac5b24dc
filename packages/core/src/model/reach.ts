import { z } from 'zod';
import { keyBytesSchema, keyTypeSchema } from './named';
import { ipSchema } from './network';

/** What SHA-256 makes of a certificate or a key, in hexadecimal. */
const fingerprint = z.string().regex(/^[\da-f]{64}$/, 'must be 64 hexadecimal digits');

/** How a box is reached once nobody sits before it: its page, its shell, and what was seen before its address was taken. */
export const reachSchema = z.object({
  /** The certificate its page showed when it was first opened; null where its page has none, or nobody noted it. */
  page: z
    .object({
      fingerprint,
      at: z.string(),
      /** The last day of its certificate (ISO 8601); null where nobody looked. */
      expires: z.iso.date().nullable(),
    })
    .nullable()
    .default(null),
  /** Whether a remote shell is on; null where nobody said. */
  shell: z.enum(['on', 'off', 'not there']).nullable().default(null),
  /** Keys its shell shows: type and key as in known_hosts (OpenSSH sshd(8)). */
  hostKeys: z
    .array(z.object({ type: keyTypeSchema, key: keyBytesSchema }))
    .max(10)
    .default([]),
  /** The user it came with no longer exists, or never did. */
  defaultUserGone: z.boolean().default(false),
  /** What a probe of its address found before it was taken. */
  probed: z
    .object({ address: ipSchema(), at: z.string(), answered: z.boolean(), by: z.string().max(200) })
    .nullable()
    .default(null),
});
export type Reach = z.infer<typeof reachSchema>;

/** Nothing noted yet. */
export const noReach = (): Reach => reachSchema.parse({});
