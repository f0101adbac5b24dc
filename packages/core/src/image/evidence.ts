import { hexOf } from '../formats/bytes';
import type { ByteSource } from '../formats/source';
import type { Evidence } from '../model/inspection';

/** The most of a field that is shown as bytes. */
const SHOWN = 16;

/** A field of the image as evidence, with the bytes that stand there. */
export async function field(
  source: ByteSource,
  offset: number,
  length: number,
  what: string,
  standard: string,
): Promise<Evidence> {
  const bytes = length > 0 ? await source.read(offset, Math.min(length, SHOWN)) : new Uint8Array(0);
  return { what, offset, bytes: hexOf(bytes), source: standard };
}

/** Something that is not there, so that no bytes can be shown. */
export const absent = (what: string, standard: string): Evidence => ({
  what,
  offset: null,
  bytes: '',
  source: standard,
});
