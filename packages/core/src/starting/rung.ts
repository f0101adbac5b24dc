import type { FirmwareKind } from '../model/inspection';
import type { StartReason } from '../model/startReason';
import type { StartWhy } from './forMachine';

/** Moments at which a machine is started: with the stick in, after the installer has ended, and ever after. */
export const moments = ['now', 'first restart', 'every later start'] as const;
/** One of them. */
export type Moment = (typeof moments)[number];

/** Is the stick in at this moment? Now it is; at the first restart where it was left in; later it is not. */
export const stickIsIn = (moment: Moment, leftIn: boolean): boolean =>
  moment === 'now' || (moment === 'first restart' && leftIn);

/** An entry of the firmware's order, as it stands on the ladder. `tail` is the end of the stick's serial. */
export type RungEntry =
  | { kind: 'drive'; name: string }
  | { kind: 'boot entry'; id: string; label: string }
  | { kind: 'new system'; name: string; drive: string; by: 'entry' | 'place' }
  | { kind: 'no drive' }
  | { kind: 'stick'; tail: string | null; by: 'menu' | 'order' }
  | { kind: 'optical' }
  | { kind: 'network' };

/** Why an entry starts, is refused, is passed over, or cannot be foretold. */
export type RungWhy =
  | { code: 'content not known' }
  /** The box’s own image was there; another was written over it. Null: something of which nothing is known. */
  | { code: 'stick holds another image'; image: string | null }
  | { code: 'start not known'; holds: string }
  | { code: 'empty' }
  | { code: 'starts another way'; title: string; firmware: FirmwareKind }
  | { code: 'nothing that starts'; holds: string }
  | { code: 'starts from it'; title: string }
  | { code: 'entry switched off' }
  | { code: 'its drive is not there' }
  /** Drives with the same identity, as a copy has it: which of them the entry finds is not told by the order. */
  | { code: 'several drives answer'; drives: readonly string[] }
  /** What starts on it is known by an entry that is not in the order; whether it starts without is not known. */
  | { code: 'by an entry outside the order'; title: string }
  | { code: 'firmware does not start from it'; bus: 'NVMe' | 'USB' | 'card' }
  | { code: 'just installed'; by: 'entry' | 'place' }
  | { code: 'through the chain loader'; stick: string; seconds: number }
  | { code: 'key to be enrolled' }
  | { code: 'new system not signed' }
  | { code: 'installer again' }
  | { code: 'BIOS tried the first disk' }
  | { code: 'no drive known' }
  | { code: 'no stick written' }
  | { code: 'write failed'; explanation: string }
  | { code: 'firmware not known' }
  | { code: 'image not read' }
  | { code: 'Secure Boot refuses'; why: StartWhy }
  /** What the image's bytes say; `firmware` where it is refused. */
  | { code: 'image'; why: StartWhy; firmware: FirmwareKind | null }
  | { code: 'another has started'; entry: RungEntry }
  | { code: 'not foretold above' }
  | { code: 'no disc in it' }
  | { code: 'nobody answers' };

/** The setting or act that would change a rung. */
export type RungRemedy =
  | 'say what is on it'
  | 'write a stick'
  | 'write again'
  | 'enter the boot mode'
  | 'open the image'
  | 'Secure Boot off'
  | 'chain loader'
  | 'enrol the key'
  | 'stick out'
  | 'target first';

/** One rung of the ladder. */
export interface Rung {
  entry: RungEntry;
  state: 'started' | 'refused' | 'skipped' | 'not reached' | 'tried';
  why: RungWhy;
  remedy: RungRemedy | null;
}

/** What had to be taken for true because nobody knows it yet. */
export type LadderAssumption =
  | { code: 'internal before USB' }
  | { code: 'next start still to come' }
  | { code: 'menu key not known' }
  | { code: 'signature trusted'; reason: StartReason }
  | { code: 'Secure Boot off' }
  | { code: 'BIOS tries every drive' }
  | { code: 'key enrolled in time' }
  | { code: 'target not chosen' }
  | { code: 'starts as the machine does'; title: string; drive: string };
