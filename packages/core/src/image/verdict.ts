import type { Evidence, Outcome, Starts } from '../model/inspection';
import type { PlainStartCode, StartReason } from '../model/startReason';
import type { Begins } from './begins';

/** What a judgement answers; the same shape for a start and for a start with Secure Boot on. */
export interface StartVerdict {
  starts: Starts;
  reason: StartReason;
  through: Outcome['through'];
  evidence: Evidence[];
  /** What is started, to be followed; undefined where nothing is. */
  begins?: Begins | undefined;
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
