import { ascii } from '../bytes';
import { PRIMARY } from './layout';

/** A date and time of a volume descriptor, seventeen bytes: ECMA-119 §8.4.26.1; empty where it was not set. */
const descriptorDate = (b: Uint8Array, o: number): string => {
  const digits = ascii(b, o, 16);
  return /^\d{16}$/.test(digits) && !/^0+$/.test(digits) ? digits : '';
};

/**
 * What stands in for a UUID on an optical volume: the time of its last change, else of its making (common practice;
 * held against blkid). `descriptor` is where the primary descriptor begins in `b`.
 */
export function volumeSerial(b: Uint8Array, descriptor: number): string | undefined {
  const digits =
    descriptorDate(b, descriptor + PRIMARY.changed) || descriptorDate(b, descriptor + PRIMARY.created);
  return digits === ''
    ? undefined
    : digits.replace(/^(....)(..)(..)(..)(..)(..)(..)$/, '$1-$2-$3-$4-$5-$6-$7');
}
