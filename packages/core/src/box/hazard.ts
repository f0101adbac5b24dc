import type { Stop } from '../model/stops';
import type { RuleFinding } from '../system/finding';
import type { ImageFault } from '../model/imageFinding';
import type { NetworkFault } from '../network/finding';
import type { GateFault } from '../model/gate';
import type { GuestFault } from '../model/guests';
import type { MoveFault } from '../model/moving';
import type { ShareFault } from '../model/sharing';
import type { CopyFault, PoolFault } from '../model/storage';
import type { TuneFault } from '../tune/forBox';
import type { StartWhy } from '../starting/forMachine';

/** Why something may go wrong. What each means in words stands in words/hazard.ts. */
export type HazardCode =
  | 'does not fit'
  | 'wants a change'
  | 'fact open'
  | 'drive not decided'
  | 'system drive suggested'
  | 'installer takes a kept drive'
  | 'installer takes the first drive'
  | 'kept drive inside'
  | 'rehearsal loses a drive'
  | 'rehearsal to be done again'
  | 'not rehearsed'
  | 'not what was published'
  | 'not compared'
  | 'read by earlier rules'
  | 'packed'
  | 'found in the image'
  | 'Secure Boot refuses'
  | 'Secure Boot not known'
  | 'support ended'
  | 'may not start from USB'
  | 'stays off after a cut'
  | 'halts without a keyboard'
  | 'does not start'
  | 'for another processor'
  | 'of another release'
  | 'of another variant'
  | 'calls itself otherwise'
  | 'small for its system'
  | 'system not all said'
  | 'start not told'
  | 'trust assumed'
  | 'write failed'
  | 'upright panel'
  | 'network'
  | 'default password stands'
  | 'password not written down'
  | 'insists on a network'
  | 'network driver not fetched'
  | 'drivers do not fit'
  | 'driver differs'
  | 'certificate ends'
  | 'default user over the network'
  | 'controller hides drives'
  | 'recovery key'
  | 'one USB port'
  | 'stick is the system drive'
  | 'stick lies'
  | 'stick holds another image'
  | 'held by another box'
  | 'pool'
  | 'copies'
  | 'sharing'
  | 'moving'
  | 'rules'
  | 'guests'
  | 'tuning'
  | 'copy would stop'
  | 'too much to carry';

/** The finding of fit, of a start, or of an image that a hazard passes on. */
export type HazardOrigin =
  | { finding: RuleFinding }
  | { start: StartWhy }
  | { fault: ImageFault }
  | { pool: PoolFault }
  | { copies: CopyFault }
  | { sharing: ShareFault }
  | { moving: MoveFault }
  | { rules: GateFault }
  | { guests: GuestFault }
  | { tuning: TuneFault }
  | { network: { fault: NetworkFault; hosts: string[]; networks: string[] } };

/** Something that may go wrong at a stop, as data; words/hazard.ts says it. */
export interface Hazard {
  code: HazardCode;
  /** Stop: do not go on. Check: look before you go on. Note. */
  grade: 'stop' | 'check' | 'note';
  /** The stop at which it is dealt with. */
  stop: Stop;
  /** What it is about, by name; sizes in bytes. */
  params: Readonly<Record<string, string | number>>;
  /** The judgement it comes from, as data of its own. */
  from?: HazardOrigin;
  /** Id of the drive it is about, where it is about one. */
  store?: string;
}

/** A hazard by its parts. */
export const hazard = (
  code: HazardCode,
  grade: Hazard['grade'],
  stop: Stop,
  params: Hazard['params'] = {},
  more: Pick<Hazard, 'store' | 'from'> = {},
): Hazard => ({ code, grade, stop, params, ...more });
