import type { FactKey } from '../model/facts';
import type { Channel } from '../model/profile';
import type { Part } from './part';

/** What parts would have to bring. Bytes for memory are what is missing after the firmware's share. */
export type PartNeed =
  | { kind: 'memory'; bytes: number }
  | { kind: 'boot'; bytes: number }
  /** Drives to add in all, the boot drive among them where that is missing too. */
  | { kind: 'drives'; count: number }
  | { kind: 'ports'; count: number }
  | { kind: 'wired'; count: number };

/** A setting that mends a finding: the fact and its value afterwards, and whether the present one was seen. */
export interface SettingRepair {
  kind: 'setting';
  set: FactKey;
  value: string;
  seen: boolean;
}

/** What a part is put in for. */
export type PartRole = 'memory' | 'drive' | 'ports' | 'wired';

/** Something to look for in a shop; `type` is the memory that goes in, empty where that is not known. */
export interface Purchase {
  kind: 'buy';
  price: null;
  gives: PartNeed;
  type?: string;
  /** The machine starts from a card and has no port for a drive. */
  card?: boolean;
}

/** One change that helps a machine to fit. Prices are in the bench's currency; null where nobody noted one. */
export type Repair =
  | SettingRepair
  | { kind: 'release'; releaseId: string; version: string; channel: Channel }
  | { kind: 'variant'; variantId: string; name: string }
  /** `out` are the bytes of the modules that make room for it, or the drives that come out of its place, by name. */
  | { kind: 'part'; part: Part; role: PartRole; out?: { modules: number[] } | { drives: string[] } }
  | Purchase;
