import type { Permit } from '../model/gate';

/** A permit of a crossing with nothing said yet: it lets everything in. */
export const blankPermit = (id: string, from: string, to: string): Permit => ({
  id,
  name: '',
  from: { zone: from, addresses: [] },
  to: { zone: to, addresses: [] },
  services: [],
  does: 'let in',
  family: null,
  hours: null,
  rate: null,
  log: false,
  on: true,
});

/** Permits with one moved so many places within its crossing; where it would leave it, nothing changes. */
export function movedPermit(permits: readonly Permit[], id: string, by: -1 | 1): Permit[] {
  const out = [...permits];
  const at = out.findIndex((p) => p.id === id);
  const one = out[at];
  if (!one) return out;
  const same = (p: Permit): boolean => p.from.zone === one.from.zone && p.to.zone === one.to.zone;
  let to = at + by;
  while (out[to] && !same(out[to] as Permit)) to += by;
  const other = out[to];
  if (!other) return out;
  out[at] = other;
  out[to] = one;
  return out;
}
