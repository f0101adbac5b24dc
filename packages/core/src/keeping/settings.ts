import { logOf, type Bench, type Box } from '../model/bench';

/** A setting as it came and as it is. */
export interface KeptSetting {
  name: string;
  /** Where it lives: in firmware, or in what a stop says of it. */
  place: string;
  came: string;
  now: string;
  why: string;
  back: string;
  /** When it was last changed; null where nobody noted it. */
  at: string | null;
}

/**
 * Settings of a box as they came and as they are: the log’s, the first value before any change and the last after all of them,
 * then those of the stop Tune. What was set back to what it was is left out.
 */
export function keptSettings(bench: Bench, box: Box): KeptSetting[] {
  const noted = new Map<string, KeptSetting>();
  for (const e of [...logOf(bench, box.id)].sort((a, b) => (a.at < b.at ? -1 : 1))) {
    if (e.kind !== 'setting') continue;
    const before = noted.get(e.text);
    noted.set(e.text, {
      name: e.text,
      place: before?.place ?? (e.stop === 'firmware' ? 'firmware' : (e.stop ?? 'bench')),
      came: before?.came ?? e.from,
      now: e.to,
      why: '',
      back: '',
      at: e.at,
    });
  }
  const tuned = (box.tune?.settings ?? []).map((s): KeptSetting => ({ ...s, at: null }));
  return [...[...noted.values()].filter((s) => s.came !== s.now), ...tuned];
}

/** Of these what is set in firmware, the last one first: so it is put back as it came. */
export const firmwareBack = (settings: readonly KeptSetting[]): KeptSetting[] =>
  settings.filter((s) => s.place === 'firmware' && s.came !== '' && s.came !== s.now).reverse();
