import { formatNumber } from './number';

/**
 * Byte counts in the two families of units that people mix up.
 * SI (kB, MB, GB: powers of 1000) is what drive makers print; IEC (KiB, MiB, GiB: powers of 1024) is what
 * most systems count in. Source: IEC 80000-13:2008, clause 4 (binary prefixes).
 */
const SI = ['B', 'kB', 'MB', 'GB', 'TB', 'PB'] as const;
const IEC = ['B', 'KiB', 'MiB', 'GiB', 'TiB', 'PiB'] as const;

export const KIB = 1024;
export const MIB = 1024 ** 2;
export const GIB = 1024 ** 3;

function scale(bytes: number, base: number, units: readonly string[]): string {
  let value = Math.abs(bytes);
  let index = 0;
  while (value >= base && index < units.length - 1) {
    value /= base;
    index += 1;
  }
  // Rounding can carry into the next unit (1023.96 KiB must not read "1024 KiB").
  const rounded = value >= 100 ? Math.round(value) : Number(value.toPrecision(3));
  if (index > 0 && rounded >= base && index < units.length - 1) {
    value /= base;
    index += 1;
  }
  const text = index === 0 ? String(value) : value >= 100 ? value.toFixed(0) : value.toPrecision(3);
  return `${bytes < 0 ? '−' : ''}${text} ${units[index]}`;
}

/** Bytes in makers' units, three significant figures: 15 980 000 000 → "16.0 GB". */
export const formatSi = (bytes: number): string => scale(bytes, 1000, SI);

/** Bytes in binary units, three significant figures: 16 642 998 272 → "15.5 GiB". */
export const formatIec = (bytes: number): string => scale(bytes, 1024, IEC);

/** The exact count with thin groups: 15 980 000 256 → "15 980 000 256 bytes". */
export function formatExact(bytes: number): string {
  return `${formatNumber(Math.trunc(bytes))} bytes`;
}

/** Both families at once, for places where a maker's figure meets a system's. */
export const formatBoth = (bytes: number): string => `${formatIec(bytes)} (${formatSi(bytes)})`;

/**
 * A number as people write it: "16 008", "1,000", "1.000.000", "1,000.5", "1.000,5", "1,5". Where both signs stand, the last
 * is the decimal one; a comma before every three digits groups them, any other single comma is a decimal one. Undefined
 * for anything that is neither. Common practice, no source.
 */
function numberFrom(written: string): number | undefined {
  const text = written.replace(/[\s\u202f]/g, '');
  const comma = text.lastIndexOf(',');
  const dot = text.lastIndexOf('.');
  const [groups, decimal] =
    comma < 0 || dot < 0
      ? /^[1-9]\d{0,2}(,\d{3})+$/.test(text)
        ? [',', '.']
        : text.split('.').length > 2
          ? ['.', ',']
          : ['', comma < 0 ? '.' : ',']
      : comma > dot
        ? ['.', ',']
        : [',', '.'];
  const [whole = '', part, ...more] = text.split(decimal);
  const sound = groups === '' || new RegExp(`^[1-9]\\d{0,2}(\\${groups}\\d{3})*$`).test(whole);
  if (!sound || more.length > 0 || text === '') return undefined;
  const value = Number(`${groups === '' ? whole : whole.replaceAll(groups, '')}.${part ?? '0'}`);
  return Number.isFinite(value) ? value : undefined;
}

/**
 * Reads "16 GB", "14.9GiB", "512" (bytes) into bytes; whole bytes, rounded.
 * A bare K, M, G or T is refused as ambiguous. Returns undefined for anything unreadable.
 */
export function parseBytes(text: string): number | undefined {
  // No size is longer; what is would only cost time.
  if (text.length > 80) return undefined;
  const match = /^\s*([\d.,\s\u202f]+?)\s*(B|bytes?|[kKMGTP]i?B)?\s*$/i.exec(text);
  if (!match) return undefined;
  const value = numberFrom(match[1] ?? '');
  if (value === undefined) return undefined;
  const unit = (match[2] ?? 'B').toLowerCase();
  if (unit.startsWith('b')) return Math.round(value);
  const power = 'kmgtp'.indexOf(unit.charAt(0)) + 1;
  return Math.round(value * (unit.includes('i') ? 1024 : 1000) ** power);
}
