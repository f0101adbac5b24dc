/**
 * Prefixes that never go in the open: of the special-purpose registries those whose “Forwardable” or “Globally Reachable” is
 * False (RFC 6890 §2.2.2 and §2.2.3 as updated by RFC 8190; from memory). What lies behind the gate's own ports is left out
 * where it is used, because an outside may itself be a private network.
 */
export const BOGONS: readonly string[] = [
  '0.0.0.0/8',
  '10.0.0.0/8',
  '100.64.0.0/10',
  '127.0.0.0/8',
  '169.254.0.0/16',
  '172.16.0.0/12',
  '192.0.0.0/24',
  '192.0.2.0/24',
  '192.168.0.0/16',
  '198.18.0.0/15',
  '198.51.100.0/24',
  '203.0.113.0/24',
  '224.0.0.0/4',
  '240.0.0.0/4',
  '::/128',
  '::1/128',
  '::ffff:0:0/96',
  '100::/64',
  '2001:2::/48',
  '2001:db8::/32',
  'fc00::/7',
  'ff00::/8',
];

/** Destinations that no router sends on, whoever asks (RFC 6890, “Forwardable” False); link-local and multicast end at the gate anyway. */
export const NEVER_SENT_ON: readonly string[] = [
  '0.0.0.0/8',
  '127.0.0.0/8',
  '169.254.0.0/16',
  '192.0.2.0/24',
  '198.51.100.0/24',
  '203.0.113.0/24',
  '240.0.0.0/4',
  '::ffff:0:0/96',
  '2001:db8::/32',
];

/**
 * ICMPv6 types a gate must answer or hear itself (RFC 4890 §4.4.1): errors 1–4, echo 128–129, neighbours and routers 133–136,
 * inverse neighbours 141–142, listeners 130–132 and 143, certificates 148–149, multicast routers 151–153.
 */
export const HEARD_BY_THE_GATE: readonly (readonly [number, number])[] = [
  [1, 4],
  [128, 136],
  [141, 143],
  [148, 149],
  [151, 153],
];

/** ICMPv6 errors that must pass through (RFC 4890 §4.3.1). */
export const ERRORS_THROUGH: readonly (readonly [number, number])[] = [[1, 4]];
