import { z } from 'zod';

/** The serial of a drive as whoever wipes it types it: the whole of it, as it stands on the drive. */
export const wipeSchema = (serial: string | null): z.ZodType<{ serial: string }, { serial: string }> =>
  z.object({
    serial: z
      .string()
      .trim()
      .refine((typed) => serial !== null && typed.toLowerCase() === serial.toLowerCase(), {
        message: 'is not the serial of this drive; nothing was noted',
      }),
  });
