import { z } from 'zod';
import type { FactKey, FactValue } from '../model/facts';
import { settingNames, type SettingName, type StepWhat } from './what';

/** Which fact of a machine a setting is, and what it reads once it is set; settings that are no fact are not here. */
const FACT: Partial<Record<SettingName, { fact: FactKey; reads: (to: string) => FactValue }>> = {
  'Secure Boot': { fact: 'firmware.secureBoot', reads: (to) => to },
  'boot mode': { fact: 'firmware.mode', reads: (to) => to.toLowerCase() },
  'graphics memory': { fact: 'firmware.graphicsMemory', reads: (to) => to },
  'after a power cut': { fact: 'firmware.afterPowerCut', reads: (to) => to },
  'halt on errors': { fact: 'firmware.haltsOn', reads: () => 'nothing' },
  virtualisation: { fact: 'cpu.virtualisation', reads: (to) => to === 'on' },
};

/** What is known of a machine after a setting was made; null where it is no fact. */
export function factOfSetting(
  what: Extract<StepWhat, { code: 'set' }>,
): { fact: FactKey; value: FactValue } | null {
  const known = FACT[what.setting];
  return known ? { fact: known.fact, value: known.reads(what.to) } : null;
}

const madeSchema = z.object({
  code: z.literal('set'),
  setting: z.enum(settingNames),
  of: z.string().nullable(),
  to: z.string(),
});

/** A setting that was made, as its step was kept; null where it cannot be read any more. `found`: what was noted of it before. */
export function madeSetting(as: string, found: string): Extract<StepWhat, { code: 'set' }> | null {
  try {
    const { data } = madeSchema.safeParse(JSON.parse(as));
    return data ? { ...data, from: found === '' ? null : found } : null;
  } catch {
    return null;
  }
}
