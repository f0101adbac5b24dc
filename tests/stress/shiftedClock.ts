/** A layer under the server: its clock goes wrong by as many milliseconds as a message says. Only the stress test loads it. */
import { z } from 'zod';

const messageSchema = z.object({ shift: z.number() });
const RealDate = Date;
let shift = 0;

class ShiftedDate extends RealDate {
  constructor(...given: unknown[]) {
    if (given.length === 0) super(RealDate.now() + shift);
    else super(...(given as [number]));
  }
  static override now(): number {
    return RealDate.now() + shift;
  }
}
globalThis.Date = ShiftedDate as DateConstructor;

process.on('message', (message) => {
  const { data } = messageSchema.safeParse(message);
  if (!data) return;
  shift = data.shift;
  process.send?.({ shifted: shift });
});
process.channel?.unref();
