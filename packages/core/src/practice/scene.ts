import type { PracticeAct } from '../model/practice';
import type { Part, Said } from './said';
import type { Tale } from './tale';

/** Something that can be done now. What it is called is said by its act and these values. */
export interface Offer {
  act: PracticeAct;
  /** The key of the simulated machine that does it. */
  key?: string;
  values: Said['values'];
}

/** A line of a table, with what can be done to it. */
export interface Row {
  id: string;
  cells: Part[];
  mark?: 'yes' | 'no' | 'ask' | 'change' | 'stop';
  /** Chosen, or where the cursor of a simulated machine stands. */
  here?: boolean;
  offers: Offer[];
}

/** What the screen of a simulated machine shows, and in whose manner. */
export interface RigScreen {
  manner: 'dark' | 'waking' | 'firmware' | 'menu' | 'list' | 'form' | 'unasked' | 'working' | 'system';
  lines: Said[];
  heads: Said[];
  rows: Row[];
  /** A stretch of time: the beat it is at, of how many, and from which to which a key counts. */
  beat: { at: number; of: number; from: number; to: number } | null;
  offers: Offer[];
}

/** A drive drawn as a column, from the bottom up. */
export interface DrawnDrive {
  id: string;
  name: string;
  bytes: number;
  pattern: 'kept' | 'erased' | 'new' | 'free';
  holds: Part;
}

/** A thing of an exercise that stands before whoever practises. */
export type Panel =
  | { kind: 'machine'; name: string; on: boolean; screen: RigScreen; offers: Offer[] }
  | { kind: 'table'; title: Said; heads: Said[]; rows: Row[]; offers: Offer[] }
  | { kind: 'paper'; title: Said; lines: Part[] }
  | { kind: 'drives'; title: Said; drives: DrawnDrive[] };

/** An exercise under way. It changes by acts alone: the same seed and the same acts are the same scene. */
export interface Scene {
  panels(): Panel[];
  take(act: PracticeAct, tale: Tale): void;
  /** What to do next, for whoever asks. */
  hint(): Said;
}

/** Something that can be done, said shortly. */
export const offer = (act: string, on?: string, values: Said['values'] = {}): Offer => ({
  act: { do: act, ...(on === undefined ? {} : { on }) },
  values,
});

/** All that a scene offers, wherever it stands. */
export const offersIn = (panels: readonly Panel[]): Offer[] =>
  panels.flatMap((p) => {
    if (p.kind === 'machine')
      return [...p.offers, ...p.screen.offers, ...p.screen.rows.flatMap((r) => r.offers)];
    return p.kind === 'table' ? [...p.offers, ...p.rows.flatMap((r) => r.offers)] : [];
  });
