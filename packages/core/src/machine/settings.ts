import type { FactKey } from '../model/facts';

/** Facts that are settings: a person can change them, so that another value may be a change and no mistake of the survey. */
const SETTINGS: readonly FactKey[] = [
  'firmware.mode',
  'firmware.secureBoot',
  'firmware.order',
  'firmware.graphicsMemory',
  'firmware.afterPowerCut',
  'firmware.haltsOn',
  'cpu.virtualisation',
];
/** Is a fact a setting? */
export const isSetting = (fact: FactKey): boolean => SETTINGS.includes(fact);
