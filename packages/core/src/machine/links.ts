import type { UsbLink } from '../model/standIns';
import type { Store } from '../model/bench';

/** A way bytes go: what it can carry at most once its coding is paid for. Bytes per second. */
export interface Link {
  name: string;
  bytesPerSecond: number;
  because: string;
}

const link = (name: string, bytesPerSecond: number, because: string): Link => ({
  name,
  bytesPerSecond,
  because,
});
const coded = (bitsPerSecond: number, useful: number, sent: number): number =>
  (bitsPerSecond * useful) / sent / 8;

/** USB 2.0 §5.8.4, table 5-10: at most 13 bulk packets of 512 bytes in each of 8000 microframes a second. */
const usb2 = link(
  'USB 2',
  13 * 512 * 8000,
  '480 Mb/s; 13 bulk packets of 512 bytes in each microframe (USB 2.0 §5.8.4)',
);
/** USB 3.2 §3.1: Gen 1 codes 8 bits in 10, Gen 2 128 in 132; the last has two lanes of Gen 2. */
const usb5 = link('USB 5 Gb/s', coded(5e9, 8, 10), '5 Gb/s, 8 bits coded in 10 (USB 3.2, Gen 1)');
const usb10 = link('USB 10 Gb/s', coded(10e9, 128, 132), '10 Gb/s, 128 bits coded in 132 (USB 3.2, Gen 2)');
const usb20 = link(
  'USB 20 Gb/s',
  coded(20e9, 128, 132),
  'two lanes of 10 Gb/s, 128 bits coded in 132 (USB 3.2, Gen 2×2)',
);

export const usbLinks: Record<UsbLink, Link> = { usb2, usb5, usb10, usb20 };

/** SATA revision 3: 1.5, 3 and 6 Gb/s, 8 bits coded in 10. */
export const sataLink = (gigabits: 1.5 | 3 | 6): Link =>
  link(
    `SATA ${gigabits} Gb/s`,
    coded(gigabits * 1e9, 8, 10),
    `${gigabits} Gb/s, 8 bits coded in 10 (SATA revision 3)`,
  );

/** The link of a machine's SATA ports by their generation; undefined where nobody told it. */
export const sataOfGeneration = (generation: unknown): Link | undefined =>
  generation === '1'
    ? sataLink(1.5)
    : generation === '2'
      ? sataLink(3)
      : generation === '3'
        ? sataLink(6)
        : undefined;

const PCIE = {
  1: { rate: 2.5e9, useful: 8, sent: 10 },
  2: { rate: 5e9, useful: 8, sent: 10 },
  3: { rate: 8e9, useful: 128, sent: 130 },
  4: { rate: 16e9, useful: 128, sent: 130 },
  5: { rate: 32e9, useful: 128, sent: 130 },
} as const;
/** A generation of PCI Express, by its number. */
export type PcieGeneration = keyof typeof PCIE;

/** PCI Express Base Specification 5.0 §4.2: 8 bits in 10 up to 5 GT/s, 128 in 130 from 8 GT/s on; each lane on its own. */
export function nvmeLink(generation: PcieGeneration, lanes: number): Link {
  const { rate, useful, sent } = PCIE[generation];
  return link(
    `NVMe, ${lanes} ${lanes === 1 ? 'lane' : 'lanes'} of generation ${generation}`,
    lanes * coded(rate, useful, sent),
    `${lanes} × ${rate / 1e9} GT/s, ${useful} bits coded in ${sent} (PCI Express 5.0 §4.2)`,
  );
}

/** Bus modes of SD cards: SD Physical Layer Simplified Specification 9.00 §3.4 and §3.9. */
export const cardLinks = {
  'default speed': link('SD, default speed', 12.5e6, '25 MHz, 4 bits (SD Physical Layer §3.4)'),
  'high speed': link('SD, high speed', 25e6, '50 MHz, 4 bits (SD Physical Layer §3.4)'),
  SDR50: link('SD, UHS-I SDR50', 50e6, '100 MHz, 4 bits (SD Physical Layer §3.9)'),
  SDR104: link('SD, UHS-I SDR104', 104e6, '208 MHz, 4 bits (SD Physical Layer §3.9)'),
  'UHS-II': link('SD, UHS-II', 312e6, 'half duplex, two lanes (SD Physical Layer, UHS-II addendum)'),
} as const;

/** Lowest sequential writing that a card's class mark promises, bytes/s: SD Physical Layer §4.13. */
export const cardClassRate = {
  'class 2': 2e6,
  'class 4': 4e6,
  'class 6': 6e6,
  'class 10': 10e6,
  U1: 10e6,
  U3: 30e6,
  V6: 6e6,
  V10: 10e6,
  V30: 30e6,
  V60: 60e6,
  V90: 90e6,
} as const;
/** A speed class of a card, as it is printed on it. */
export type CardClass = keyof typeof cardClassRate;

/** A class mark in what somebody wrote of a card; undefined where there is none. */
export function cardClassIn(text: string): CardClass | undefined {
  const found = /\b(V(?:6|10|30|60|90)|U[13]|class (?:2|4|6|10))\b/i.exec(text)?.[1];
  const name = found && (/^class/i.test(found) ? found.toLowerCase() : found.toUpperCase());
  return name !== undefined && name in cardClassRate ? (name as CardClass) : undefined;
}

/** The link a store itself has, as far as the shelf knows it; what it does not know is taken at its usual best. */
export function linkOfStore(store: Pick<Store, 'kind' | 'transport' | 'm2'>): Link | undefined {
  if (store.transport === 'nvme') return nvmeLink(3, store.m2?.lanes || 4);
  if (store.transport === 'sata') return sataLink(6);
  if (store.transport === 'ide') return link('IDE', 133e6, 'Ultra DMA mode 6 (ATA/ATAPI-7)');
  if (store.transport === 'sas')
    return link('SAS 12 Gb/s', coded(12e9, 8, 10), '12 Gb/s, 8 bits coded in 10 (SAS-3)');
  // Soldered flash has a bus of its own, twice as wide and clocked on both edges.
  if (store.kind === 'drive' && store.transport === 'mmc')
    return link('eMMC, HS400', 400e6, '200 MHz, 8 bits, both edges (JESD84-B51 §6.6.2)');
  if (store.kind === 'card' || store.transport === 'mmc') return cardLinks.SDR104;
  return undefined;
}

/** The slowest of several links in a row; undefined where none is known. */
export const slowest = (links: readonly (Link | undefined)[]): Link | undefined =>
  links
    .filter((l) => l !== undefined)
    .reduce<Link | undefined>(
      (low, l) => (low && low.bytesPerSecond <= l.bytesPerSecond ? low : l),
      undefined,
    );
