import { hexOf } from '../formats/bytes';
import type { ByteSource } from '../formats/source';
import type { Evidence, Starts } from '../model/inspection';

/** What a judgement answers; the same shape for a start and for a start with Secure Boot on. */
export interface StartVerdict {
  starts: Starts;
  because: string;
  evidence: Evidence[];
}

export const no = (because: string, ...evidence: Evidence[]): StartVerdict => ({
  starts: 'no',
  because,
  evidence,
});
export const yes = (because: string, ...evidence: Evidence[]): StartVerdict => ({
  starts: 'yes',
  because,
  evidence,
});
export const unknown = (because: string, ...evidence: Evidence[]): StartVerdict => ({
  starts: 'unknown',
  because,
  evidence,
});

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
