import { z } from 'zod';

/** The stops that a box visits, in order. */
export const stops = [
  'survey',
  'choose',
  'gather',
  'verify',
  'write',
  'firmware',
  'install',
  'first-start',
  'network',
  'load',
  'tune',
  'keep',
] as const;
export const stopSchema = z.enum(stops);
export type Stop = z.infer<typeof stopSchema>;

export const stopTitle: Record<Stop, string> = {
  survey: 'Survey',
  choose: 'Choose',
  gather: 'Gather',
  verify: 'Verify',
  write: 'Write',
  firmware: 'Firmware',
  install: 'Install',
  'first-start': 'First start',
  network: 'Network',
  load: 'Load',
  tune: 'Tune',
  keep: 'Keep',
};
