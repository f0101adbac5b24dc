import { hexOf } from '../formats/bytes';
import type { ByteSource } from '../formats/source';
import type { Evidence, Outcome, Starts } from '../model/inspection';
import type { PlainStartCode, StartReason } from '../model/startReason';

/** What a judgement answers; the same shape for a start and for a start with Secure Boot on. */
export interface StartVerdict {
  starts: Starts;
  reason: StartReason;
  through: Outcome['through'];
  evidence: Evidence[];
}

/** A reason, by its code alone where it is about nothing more. */
type Because = StartReason | PlainStartCode;
const reasonOf = (because: Because): StartReason =>
  typeof because === 'string' ? { code: because } : because;

const verdict =
  (starts: Starts) =>
  (because: Because, ...evidence: Evidence[]): StartVerdict => ({
    starts,
    reason: reasonOf(because),
    through: null,
    evidence,
  });
/** It does not start, and why. */
export const no = verdict('no');
/** It starts, and how. */
export const yes = verdict('yes');
/** The bytes do not tell, and what stands in the way. */
export const unknown = verdict('unknown');

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
