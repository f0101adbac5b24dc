import type { Unknown } from '../../rehearsal/varies';
import type { LookCode, Moment, Symptom } from '../codes';

/** A world of the rehearsal in which one thing goes otherwise: which, and in which of its ways (null: any). */
export interface Departure {
  unknown: Unknown | 'order of drives';
  way: number | null;
}

/** What may be behind it. Shares are relative within a look; what is not named tells nothing. Common practice, no source. */
export interface Cause {
  at: readonly Moment[];
  /** How often it is met beside the others, before anything is known of the box. */
  weight: number;
  shows: Partial<Record<Symptom, number>>;
  looks: Partial<Record<LookCode, Readonly<Record<string, number>>>>;
  departs?: readonly Departure[];
}

/** At that moment alone. */
export const START: readonly Moment[] = ['starting the stick'];
/** At that moment alone. */
export const INSTALL: readonly Moment[] = ['installing'];
/** At that moment alone. */
export const RESTART: readonly Moment[] = ['at the restart'];
/** At that moment alone. */
export const FIRST: readonly Moment[] = ['first start'];
/** At that moment alone. */
export const USE: readonly Moment[] = ['in use'];
/** The worlds in which one thing of the rehearsal goes otherwise. */
export const departs = (unknown: Departure['unknown'], way: number | null = null): readonly Departure[] => [
  { unknown, way },
];
