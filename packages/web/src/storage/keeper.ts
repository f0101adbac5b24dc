import type { Bench } from '@zb/core/schema/bench';
import type { Act } from '@zb/core/schema/changes';

/** Where a bench is kept. Every method is all-or-nothing. */
export interface Keeper {
  readonly kind: 'browser' | 'memory';
  /** Undefined where nothing was ever kept here. */
  load(): Promise<Bench | undefined>;
  perform(act: Act): Promise<void>;
  /** Takes the last act back; answers its label, or undefined where there is none. */
  undo(): Promise<string | undefined>;
  undoable(): Promise<string | undefined>;
}

/** How many acts can be taken back. */
export const UNDO_DEPTH = 50;
