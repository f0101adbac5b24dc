import { guestSchema, type Guest, type GuestPlan } from '../../model/guests';
import { MIB } from '../../units/bytes';
import { plainName } from '../plainName';
import type { SeenHost } from './tables';

/** A plan with what a running host told: guests by name, with cores, memory and whether they run; what it did not tell stays. */
export function takeSeen(plan: GuestPlan, seen: SeenHost): GuestPlan {
  const guests = [...plan.guests];
  for (const s of seen.guests) {
    const name = plainName(s.name) || 'guest';
    const at = guests.findIndex((g) => g.name === name);
    const before: Guest =
      guests[at] ??
      guestSchema.parse({
        id: `seen-${name}`,
        name,
        cores: s.cores ?? 1,
        memoryBytes: s.memoryBytes ?? 512 * MIB,
      });
    const after: Guest = {
      ...before,
      cores: s.cores ?? before.cores,
      memoryBytes: s.memoryBytes !== null && s.memoryBytes >= 16 * MIB ? s.memoryBytes : before.memoryBytes,
      on: s.running ?? before.on,
    };
    if (at >= 0) guests[at] = after;
    else guests.push(after);
  }
  return {
    ...plan,
    guests,
    pot: {
      ...plan.pot,
      memoryBytes: seen.memoryBytes ?? plan.pot.memoryBytes,
      threads: seen.threads ?? plan.pot.threads,
      cores: seen.cores ?? plan.pot.cores,
      sockets: seen.sockets ?? plan.pot.sockets,
    },
  };
}
