/** Kinds of drivers in the order in which they go in: graphics, network, card reader, Bluetooth, amplifier, codec. Common practice, no source. */
export const driverOrder = [
  'graphics',
  'network',
  'card reader',
  'bluetooth',
  'audio amplifier',
  'audio codec',
] as const;
/** One of them. */
export type DriverKind = (typeof driverOrder)[number];

const LIKE: Record<DriverKind, RegExp> = {
  graphics: /graphic|display|video|gpu/i,
  network: /network|wi-?fi|wireless|ethernet|lan\b/i,
  'card reader': /card ?reader|sd\b/i,
  bluetooth: /bluetooth/i,
  'audio amplifier': /amplifier|\bamp\b/i,
  'audio codec': /codec|audio|sound/i,
};

/** What kind of driver a name is of; undefined where it is of none of these. */
export const driverKind = (name: string): DriverKind | undefined =>
  driverOrder.find((kind) => LIKE[kind].test(name));

/** Kinds that have to be in before one goes in. */
export const kindsBefore = (kind: DriverKind): readonly DriverKind[] =>
  kind === 'audio codec'
    ? ['audio amplifier']
    : kind === 'audio amplifier'
      ? []
      : driverOrder.slice(0, Math.min(driverOrder.indexOf(kind), 3));

/** Those of some drivers that have to be in before one of them goes in, by name. */
export function driversBefore(name: string, among: readonly string[]): string[] {
  const kind = driverKind(name);
  const before = kind ? kindsBefore(kind) : [];
  return among.filter((other) => {
    const k = driverKind(other);
    return other !== name && k !== undefined && before.includes(k);
  });
}
