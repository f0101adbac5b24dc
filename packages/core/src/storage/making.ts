import { span, type Span } from '../units/duration';
import { membersOf, type PlacedPool } from './placed';
import { writeRateOf } from './poolDrive';
import { givenBy, type PoolRoom } from './room';

/**
 * Seconds until a new pool is whole: rows of the plain manner are written through once, the others only mark themselves.
 * It can be used meanwhile. Common practice, no source.
 */
export function makingOf(pool: PlacedPool, room: PoolRoom): Span {
  const kept = pool.way.manner === 'plain' && pool.rows.some((r) => r.length > 1);
  if (!kept) return span(0, 0);
  const gives = givenBy(room);
  const each = membersOf(pool).map((d) => {
    const bytes = gives.get(d.id) ?? 0;
    const rate = writeRateOf(d);
    return span(bytes / rate.fast, bytes / rate.slow);
  });
  return span(Math.max(...each.map((s) => s.low)), Math.max(...each.map((s) => s.high)));
}
