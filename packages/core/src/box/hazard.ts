import type { Stop } from '../model/stops';

/** Why something may go wrong. What each means in words stands in words/hazard.ts. */
export type HazardCode =
  | 'does not fit'
  | 'wants a change'
  | 'fact open'
  | 'drive not decided'
  | 'installer takes a kept drive'
  | 'installer takes the first drive'
  | 'kept drive inside'
  | 'not what was published'
  | 'not compared'
  | 'read by earlier rules'
  | 'packed'
  | 'found in the image'
  | 'Secure Boot refuses'
  | 'does not start'
  | 'start not told'
  | 'trust assumed'
  | 'write failed'
  | 'upright panel'
  | 'one USB port'
  | 'stick lies';

export interface Hazard {
  code: HazardCode;
  /** Stop: do not go on. Check: look before you go on. Note. */
  grade: 'stop' | 'check' | 'note';
  /** The stop at which it is dealt with. */
  stop: Stop;
  /** What it is about, by name; sentences of other judgements come as they are. */
  params: Readonly<Record<string, string | number>>;
  /** Id of the drive it is about, where it is about one. */
  store?: string;
}

export const hazard = (
  code: HazardCode,
  grade: Hazard['grade'],
  stop: Stop,
  params: Hazard['params'] = {},
  store?: string,
): Hazard => ({ code, grade, stop, params, ...(store === undefined ? {} : { store }) });
