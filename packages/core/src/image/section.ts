import type { ImageReading, ImageRegion, Loader } from '../model/inspection';

/** One stretch on a true scale: top and height as shares of the whole, 0 to 1. */
export interface TrueStretch {
  top: number;
  height: number;
}

/** Where every stretch stands on a scale that is true to its bytes; the end is the last byte any stretch reaches. */
export function trueScale(regions: readonly Pick<ImageRegion, 'start' | 'bytes'>[]): TrueStretch[] {
  const end = Math.max(1, ...regions.map((r) => r.start + r.bytes));
  return regions.map((r) => ({ top: r.start / end, height: r.bytes / end }));
}

/** A loader in a stretch: how far down it stands in it (0 to 1), and what Secure Boot says of it. */
export interface LoaderMark {
  loader: Loader;
  at: number;
  secure: 'accepts it' | 'refuses it' | 'accepts it if it trusts the key' | null;
}

const SECURE = { yes: 'accepts it', no: 'refuses it', unknown: 'accepts it if it trusts the key' } as const;

/** Loaders that live in a stretch, in the order they stand; those that firmware finds by itself first. */
export function loadersIn(reading: ImageReading, region: Pick<ImageRegion, 'start' | 'bytes'>): LoaderMark[] {
  return reading.loaders
    .filter((l) => l.offset >= region.start && l.offset < region.start + region.bytes)
    .sort((a, b) => Number(b.removable) - Number(a.removable) || a.offset - b.offset)
    .map((loader) => {
      const row = reading.outcomes.find(
        (o) => o.firmware === `uefi-${loader.machine}` && o.secureBoot !== null,
      );
      const secure = row?.secureBoot && loader.removable ? SECURE[row.secureBoot.starts] : null;
      return { loader, at: (loader.offset - region.start) / region.bytes, secure };
    });
}

/** A line of bytes to be shown: its offset, digits, and printable letters. */
export interface HexLine {
  offset: number;
  hex: string;
  text: string;
}

/** Bytes in lines of eight, as offset, digits and letters; a dot stands for what is no printable ASCII letter. */
export function hexLines(hex: string, start: number): HexLine[] {
  const bytes = hex.split(' ').filter((b) => b !== '');
  return Array.from({ length: Math.ceil(bytes.length / 8) }, (_, i) => {
    const line = bytes.slice(8 * i, 8 * i + 8);
    return {
      offset: start + 8 * i,
      hex: line.join(' '),
      text: line
        .map((b) => parseInt(b, 16))
        .map((c) => (c >= 32 && c < 127 ? String.fromCharCode(c) : '·'))
        .join(''),
    };
  });
}
