/** When a lease is asked for again, seconds after it was given: of whoever gave it, then of anybody, then it is over. */
export interface LeaseClock {
  renew: number;
  rebind: number;
  ends: number;
}

/** The clock of a lease: T1 is half of it, T2 seven eighths (RFC 2131 §4.4.5). Seconds. */
export const leaseClock = (leaseSeconds: number): LeaseClock => ({
  renew: leaseSeconds * 0.5,
  rebind: leaseSeconds * 0.875,
  ends: leaseSeconds,
});

/** Seconds that a probe of an address takes before it counts as free (RFC 5227 §1.1: up to 1 s, two gaps of 1 to 2 s, 2 s of listening). */
export const PROBE_SECONDS = { low: 4, high: 7 };
/** How many probes that are (RFC 5227 §1.1, PROBE_NUM). */
export const PROBES = 3;
