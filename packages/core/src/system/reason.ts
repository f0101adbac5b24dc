import type { FactKey } from '../model/facts';
import type { Wish, WishFeature } from '../model/wish';

/** Every rule of fit, by the name that limits set aside are kept under. */
export type RuleName =
  | 'cpu'
  | 'cpu level'
  | 'virtualisation'
  | 'cores'
  | 'release window'
  | 'graphics'
  | 'firmware'
  | 'data drives'
  | 'memory'
  | 'boot drive'
  | 'network'
  | 'secure boot'
  | 'system said'
  | 'noise'
  | 'watts'
  | 'place'
  | 'features';

/**
 * Why a rule answered as it did: a code and what it is about, never a sentence. Sizes in bytes, power in watts, years as
 * printed on a calendar. words/fit/reasons.ts says each.
 */
export type FitReason =
  /** The system or the wish asks nothing of this kind. */
  | { code: 'nothing asked' }
  | { code: 'fact not known'; fact: FactKey }
  | { code: 'CPU has 32 bits'; wants: string[] }
  | { code: 'architecture fits'; arch: string; wants: string[] }
  | { code: 'runs 32-bit builds' }
  | { code: 'other architecture'; arch: string; wants: string[]; narrow: boolean }
  | { code: 'CPU level reached'; need: string; have: string }
  | { code: 'CPU level not reached'; need: string; have: string }
  | { code: 'cores counted'; need: number; have: number; enough: boolean }
  | { code: 'level dates the CPU'; version: string; oldest: number; since: number }
  | { code: 'older than the release knows'; version: string; oldest: number; year: number }
  | { code: 'newer than the release knows'; version: string; newest: number; year: number }
  | {
      code: 'within the release window';
      version: string;
      oldest: number | null;
      newest: number | null;
      year: number;
    }
  | { code: 'no graphics' }
  | { code: 'management graphics'; driver: string }
  | { code: 'driver carried'; family: string; variant: string }
  | { code: 'driver not carried'; family: string; variant: string; carries: string[] }
  | { code: 'starts in both modes' }
  | { code: 'starts in its mode'; mode: string }
  | { code: 'starts by a board’s loader'; wants: string[] }
  | { code: 'made for boards alone' }
  | { code: 'UEFI wanted, BIOS seen' }
  | { code: 'BIOS mode wanted' }
  | { code: 'compatibility mode not known' }
  | { code: 'offers no BIOS mode' }
  | { code: 'offers no UEFI' }
  | { code: 'UEFI has 32 bits'; system: string }
  | { code: 'loader signed' }
  | { code: 'no Secure Boot there' }
  | { code: 'Secure Boot off' }
  | { code: 'own key enrolled' }
  | { code: 'Secure Boot refuses'; known: boolean }
  | { code: 'runs guests' }
  /** Needs of the system that are guesses: nothing in its image tells them. */
  | { code: 'needs not said'; count: number }
  | { code: 'needs said' }
  | { code: 'runs no guests' }
  | { code: 'memory enough'; need: number; have: number; installed: number | null }
  | { code: 'graphics take memory'; need: number; have: number; installed: number }
  | { code: 'memory soldered'; need: number; have: number }
  | { code: 'memory at its most'; need: number; have: number; most: number }
  | { code: 'memory slot not known'; need: number; have: number }
  | { code: 'larger modules not known'; need: number; have: number }
  | { code: 'memory short'; need: number; have: number }
  | { code: 'boots from'; need: number; drive: string; bytes: number }
  | { code: 'NVMe not started'; need: number; drive: string }
  | { code: 'card start not known'; need: number; drive: string }
  | { code: 'large drive kept'; need: number }
  | { code: 'no drive known'; need: number }
  | { code: 'free drives too small'; need: number; largest: number }
  /** `usable` is what a mirror of the data drives keeps, in bytes; `lost` what the larger ones cannot give to it. */
  | { code: 'ports enough'; ports: number; data: number; need: number; usable: number; lost: number }
  | { code: 'ports short'; wants: number; need: number; ports: number; slots: 'not known' | 'none' | 'free' }
  | { code: 'data drives short'; need: number; there: number; lacking: number }
  /** Drives that are to go in, against the places and plugs that are free; null where nobody counted them. */
  | { code: 'no room for drives'; lacking: number; bays: number | null; leads: number | null }
  | { code: 'wired ports counted'; need: number; have: number; enough: boolean }
  | { code: 'noise'; most: Wish['noise']; is: string; enough: boolean }
  | { code: 'watts'; most: number; is: number }
  | { code: 'no wire there'; system: string }
  | { code: 'wireless instead' }
  | { code: 'no wireless either' }
  | { code: 'feature missing'; feature: WishFeature }
  | { code: 'features there'; features: WishFeature[] };

/** Need against what is there. Bytes for memory and drives, levels and years as they are named. */
export type Margin =
  | { of: 'bytes'; need: number; have: number }
  | { of: 'count'; need: number; have: number }
  | { of: 'ports'; need: number; have: number }
  | { of: 'level'; need: string; have: string }
  | { of: 'years'; oldest: number | null; newest: number | null; have: number };
