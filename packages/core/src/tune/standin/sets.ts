import type { Experiment, Setting, SettingKind } from '../../model/tune';
import { setsOf } from '../results';
import { asItComes, type StandInSet } from './machine';

/** Kinds of settings the stand-in machine has. */
export const standInKinds: readonly SettingKind[] = [
  'power limit',
  'boost',
  'resolution',
  'frame cap',
  'paste and pads',
];

const figure = (text: string): number | undefined => {
  const found = /\d+(?:[.,]\d+)?/.exec(text)?.[0];
  return found === undefined ? undefined : Number(found.replace(',', '.'));
};

/** What the stand-in is set to by the values of settings as people say them; what it does not understand stays as it came. */
export function standInSet(
  settings: readonly Setting[],
  values: Readonly<Record<string, string>>,
): StandInSet {
  const out = asItComes();
  for (const s of settings) {
    const said = values[s.id] ?? (s.now === '' ? s.came : s.now);
    if (said === '') continue;
    const n = figure(said);
    switch (s.kind) {
      case 'power limit':
        if (n !== undefined) out.limit = Math.min(60, Math.max(3, n));
        break;
      case 'boost':
        out.boost = !/off|no|aus/i.test(said);
        break;
      case 'resolution':
        if (n !== undefined) {
          // “1280 × 720” ends with its lines, “720 lines” begins with them.
          const all = [...said.matchAll(/\d+/g)].map((m) => Number(m[0]));
          out.lines = Math.min(4320, Math.max(200, all.length > 1 ? (all[1] ?? n) : n));
        }
        break;
      case 'frame cap':
        out.cap = n ?? null;
        break;
      case 'paste and pads':
        out.paste = /fresh|new/i.test(said) ? 1 : 0;
        break;
      default:
        break;
    }
  }
  return out;
}

/** The same for a state of an experiment. */
export const standInSetOf = (settings: readonly Setting[], e: Experiment, arm: string): StandInSet =>
  standInSet(settings, setsOf(e, arm));
