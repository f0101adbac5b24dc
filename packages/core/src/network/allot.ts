import { hardwareBytes } from '../units/hardware';

/** What a server hands out, as numbers of addresses, and how it chooses. */
export interface Pool {
  from: number;
  to: number;
  manner: 'by hardware address' | 'in order';
  /** Addresses it never gives away: kept for somebody by name, or its own. */
  kept: ReadonlySet<number>;
}

/** The hash by which a common server chooses where to begin (sdbm; dnsmasq 2.89, address_allocate, from memory). */
export function hardwareHash(hardware: string): number {
  let hash = 0;
  for (const byte of hardwareBytes(hardware)) hash = (byte + (hash << 6) + (hash << 16) - hash) >>> 0;
  return hash === 0 ? 1 : hash;
}

/** Addresses that end in 0 or 255 are not handed out in ranges that once were class C: some hosts would not take them (ibid.). */
const avoided = (address: number): boolean =>
  address >>> 29 === 0b110 && ((address & 0xff) === 0 || (address & 0xff) === 0xff);

/**
 * The address that a server gives to a card it does not know: from a place that the card's own address leads to, or from the
 * last one given, onwards and around, the first that is free. Undefined where none is. `busy` are those given or answering.
 */
export function allot(
  pool: Pool,
  hardware: string | null,
  busy: ReadonlySet<number>,
  last: number | undefined,
): number | undefined {
  const size = pool.to - pool.from + 1;
  const begin =
    pool.manner === 'by hardware address'
      ? pool.from + (hardwareHash(hardware ?? '00:00:00:00:00:00') % size)
      : (last ?? pool.from);
  for (let i = 0; i < size; i += 1) {
    const address = pool.from + ((begin - pool.from + i) % size);
    if (!busy.has(address) && !pool.kept.has(address) && !avoided(address)) return address;
  }
  return undefined;
}
