import type { Store } from '../model/shelf';

/** An M.2 socket. Keys and lengths: PCI Express M.2 Specification, type codes and connector keys. */
export interface M2Slot {
  key: 'B' | 'M';
  /** Module lengths it has a fixing for, in mm as in the type code. */
  lengths: string[];
  protocols: ('nvme' | 'sata')[];
  lanes: number;
}

const LENGTHS = ['2230', '2242', '2260', '2280', '22110'];

/**
 * Reads one slot as people note it: key, lengths, protocols and lanes in any order, such as “M 2280 nvme x4” or
 * “B 2242/2280 sata”. Undefined where key or length is missing.
 */
export function parseSlot(text: string): M2Slot | undefined {
  const words = text
    .toLowerCase()
    .split(/[\s,/+]+/)
    .filter(Boolean);
  const key = words.find((w) => w === 'm' || w === 'b')?.toUpperCase();
  const lengths = words.filter((w) => LENGTHS.includes(w));
  const protocols = (['nvme', 'sata'] as const).filter((p) => words.includes(p));
  const lanes = Number(words.map((w) => /^[x×]?([124])$/.exec(w)?.[1]).find((n) => n !== undefined));
  const known = (w: string): boolean =>
    w === 'm' ||
    w === 'b' ||
    w === 'key' ||
    LENGTHS.includes(w) ||
    w === 'nvme' ||
    w === 'sata' ||
    w === 'pcie' ||
    /^[x×]?[124]$/.test(w);
  if ((key !== 'M' && key !== 'B') || lengths.length === 0 || !words.every(known)) return undefined;
  return {
    key,
    lengths,
    protocols: protocols.length > 0 ? protocols : key === 'M' ? ['nvme'] : ['sata'],
    lanes: Number.isNaN(lanes) ? (key === 'M' ? 4 : 2) : lanes,
  };
}

/** A slot in the one notation the sheet shows. */
export const slotText = (s: M2Slot): string =>
  `${s.key} ${s.lengths.join('/')} ${s.protocols.join('/')} x${s.lanes}`;

/** The slots of a fact's value; what cannot be read is left out. */
export const slotsOf = (value: unknown): M2Slot[] =>
  Array.isArray(value) ? value.flatMap((t) => (typeof t === 'string' ? (parseSlot(t) ?? []) : [])) : [];

/** Does this drive go into this slot and speak its language? Fewer lanes only slow it down. */
export function m2Fits(m2: NonNullable<Store['m2']>, protocol: 'nvme' | 'sata', slot: M2Slot): boolean {
  return (
    slot.lengths.includes(m2.length) &&
    (m2.key === 'B+M' || m2.key === slot.key) &&
    slot.protocols.includes(protocol)
  );
}
