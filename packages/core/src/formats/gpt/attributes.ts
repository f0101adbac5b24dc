/** Bits of the attributes that have names (UEFI 2.10 table 5.8). */
const BITS: Readonly<Record<string, number>> = {
  RequiredPartition: 0,
  NoBlockIOProtocol: 1,
  LegacyBIOSBootable: 2,
};

/** Attributes as sfdisk(8) names them, from the number that a partition's entry holds; bits 48 to 63 belong to its type. */
export function attributesOf(value: bigint): string {
  const names = Object.entries(BITS).flatMap(([name, bit]) => ((value >> BigInt(bit)) & 1n ? [name] : []));
  const own = Array.from({ length: 16 }, (_, i) => 48 + i).filter((bit) => (value >> BigInt(bit)) & 1n);
  return [...names, ...(own.length > 0 ? [`GUID:${own.join(',')}`] : [])].join(' ');
}

/** Attributes by the number that lsblk prints (its manual, PARTFLAGS): empty where it prints none, null where it is no such number. */
export const attributesOfFlags = (flags: string | null): string | null =>
  flags === null ? '' : /^0x[\da-f]{1,16}$/i.test(flags) ? attributesOf(BigInt(flags)) : null;

/** Bits of attributes that are written so. */
export const attributeBits = (attributes: string): number[] =>
  attributes
    .split(/[ ,](?=[A-Z])/)
    .filter((a) => a !== '')
    .flatMap((a) => (a.startsWith('GUID:') ? a.slice(5).split(',').map(Number) : [BITS[a] ?? []].flat()));
