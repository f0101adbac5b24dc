import { sumsFor, type ChecksumList } from '../formats/checksumList';
import type { FirstRecord } from '../model/firstStart';
import { driverKind } from '../system/drivers';

/** A file that was picked or found in a folder: bytes, and its SHA-256 in hexadecimal. */
export interface DriverFile {
  file: string;
  bytes: number;
  sha256: string;
}

/** The driver of a system that a file is of, by its name; undefined where no name tells. */
export function driverOf(file: string, drivers: readonly string[]): string | undefined {
  const plain = (t: string): string => t.toLowerCase().replace(/[^\da-z]+/g, '');
  const named = drivers.find((d) => plain(file).includes(plain(d)));
  const kind = driverKind(file.replace(/[-_.]+/g, ' '));
  return named ?? drivers.find((d) => kind !== undefined && driverKind(d) === kind);
}

/** Files of a folder as the bundle of a box, held against a published list where there is one. */
export function bundleFrom(
  files: readonly DriverFile[],
  drivers: readonly string[],
  list: ChecksumList | undefined,
): FirstRecord['bundle'] {
  return files.map(({ file, bytes, sha256 }) => {
    const sums = list ? sumsFor(list, file).filter((s) => s.algorithm === 'sha256') : [];
    return {
      driver: driverOf(file, drivers) ?? '',
      file,
      bytes,
      sha256,
      matches: sums.length === 0 ? null : sums.some((s) => s.hex === sha256),
    };
  });
}
