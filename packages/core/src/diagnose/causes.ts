import type { Cause } from './causes/cause';
import { causesOfFirstStart } from './causes/firstStart';
import { causesOfInstalling } from './causes/installing';
import { causesOfNetwork } from './causes/network';
import { causesOfRestarting } from './causes/restarting';
import { causesOfStarting } from './causes/starting';

/** Causes by their name. */
export const causes = {
  ...causesOfStarting,
  ...causesOfInstalling,
  ...causesOfRestarting,
  ...causesOfFirstStart,
  ...causesOfNetwork,
} as const satisfies Record<string, Cause>;
/** What may be behind it. */
export type CauseCode = keyof typeof causes;
/** All causes. */
export const causeCodes = Object.keys(causes) as CauseCode[];
/** A cause by its name. */
export const causeOf = (code: CauseCode): Cause => causes[code];
