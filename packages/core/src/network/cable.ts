/** Twisted pairs and what they carry over 100 m (IEEE 802.3 clauses 25, 40, 55, 126: 100BASE-TX, 1000BASE-T, 2.5G/5GBASE-T, 10GBASE-T; from memory). Mb/s. */
const CABLES = [
  { mbps: 100, cable: 'Cat 5' },
  { mbps: 1000, cable: 'Cat 5e' },
  { mbps: 2500, cable: 'Cat 5e' },
  { mbps: 5000, cable: 'Cat 6' },
  { mbps: 10_000, cable: 'Cat 6A' },
] as const;

/** The least cable that carries so much over 100 m; undefined where none of copper does. */
export const cableFor = (mbps: number): string | undefined => CABLES.find((c) => c.mbps >= mbps)?.cable;
