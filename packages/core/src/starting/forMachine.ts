import type { FirmwareKind, ImageReading, Outcome, Starts } from '../model/inspection';

/** A reason and the way by which firmware came to it. */
export type StartWhy = Pick<Outcome, 'reason' | 'through'>;

/** What an image does on one machine: its row, and what the machine's Secure Boot makes of it. */
export interface MachineStart {
  row: Outcome;
  starts: Starts;
  /** Why: the row's own reason, or Secure Boot's where that refuses. */
  why: StartWhy;
  /** Secure Boot is on and stands in the way. */
  refused: boolean;
  /** Whether Secure Boot is on is not known, and it decides. */
  secureNotKnown: boolean;
  /** Secure Boot is on, the loader is signed, and whether the machine trusts the key is not known. */
  trustAssumed: boolean;
}

/**
 * The start an image makes on firmware of this kind. A signature whose key nobody has compared counts as trusted, and is
 * said to be assumed: the keys are in the machine, and nothing else can tell (UEFI 2.10 §32.5).
 */
export function startOn(
  reading: ImageReading | undefined,
  firmware: FirmwareKind | undefined,
  /** Undefined where nobody has looked. */
  secureBootOn: boolean | undefined,
  attached: Outcome['attached'] = 'disk',
): MachineStart | undefined {
  const row = reading?.outcomes.find((o) => o.firmware === firmware && o.attached === attached);
  if (!row) return undefined;
  const secure = secureBootOn !== false && row.starts === 'yes' ? row.secureBoot : null;
  if (secure?.starts === 'no')
    return {
      row,
      starts: secureBootOn === undefined ? 'unknown' : 'no',
      why: { reason: secure.reason, through: null },
      refused: secureBootOn === true,
      secureNotKnown: secureBootOn === undefined,
      trustAssumed: false,
    };
  return {
    row,
    starts: row.starts,
    why: { reason: row.reason, through: row.through },
    refused: false,
    secureNotKnown: false,
    trustAssumed: secureBootOn === true && secure?.starts === 'unknown',
  };
}
