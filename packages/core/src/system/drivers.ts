/**
 * Kinds of drivers in the order in which they go in: what others hang on first, the amplifier before the codec that looks for
 * it. Common practice, no source.
 */
export const driverOrder = [
  'chipset',
  'network',
  'graphics',
  'card reader',
  'bluetooth',
  'audio amplifier',
  'audio codec',
] as const;
/** One of them. */
export type DriverKind = (typeof driverOrder)[number];

const LIKE: Record<DriverKind, RegExp> = {
  chipset: /chipset|chip set|\bbus\b/i,
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
      : driverOrder.slice(0, Math.min(driverOrder.indexOf(kind), 4));

/** Those of some drivers that have to be in before one of them goes in, by name. */
export function driversBefore(name: string, among: readonly string[]): string[] {
  const kind = driverKind(name);
  const before = kind ? kindsBefore(kind) : [];
  return among.filter((other) => {
    const k = driverKind(other);
    return other !== name && k !== undefined && before.includes(k);
  });
}

/** Drivers by name in the order in which they go in; what is of no known kind comes last, as it was named. */
export function driversInOrder(names: readonly string[]): string[] {
  const place = (name: string): number => {
    const kind = driverKind(name);
    return kind === undefined ? driverOrder.length : driverOrder.indexOf(kind);
  };
  return [...names].sort((a, b) => place(a) - place(b));
}
