/** A key that was pressed: where it sits (UI Events KeyboardEvent code values, W3C), and what came out. */
export interface KeyPress {
  code: string;
  key: string;
}

/** Keys that give something else on other layouts, by where they sit on the keyboard. */
export const keysAsked = [
  { code: 'KeyQ', where: 'left of W, first letter' },
  { code: 'KeyY', where: 'right of T' },
  { code: 'Semicolon', where: 'right of L' },
  { code: 'Minus', where: 'right of 0' },
] as const;

/** What the four give on common layouts (XKB’s own tables, from memory). */
const LAYOUTS: Readonly<Record<string, readonly string[]>> = {
  'us or uk': ['q', 'y', ';', '-'],
  german: ['q', 'z', 'ö', 'ß'],
  french: ['a', 'y', 'm', ')'],
  spanish: ['q', 'y', 'ñ', "'"],
  nordic: ['q', 'y', 'ø', '+'],
  swedish: ['q', 'y', 'ö', '+'],
  italian: ['q', 'y', 'ò', "'"],
};

/** The key that is asked for next; undefined where all were pressed. */
export const keyNext = (pressed: readonly KeyPress[]): (typeof keysAsked)[number] | undefined =>
  keysAsked[pressed.length];

/** What the keys came to. */
export type KeyVerdict =
  /** A layout gives exactly these. */
  | { code: 'layout'; layout: string }
  /** Another key than the one asked for was pressed. */
  | { code: 'other key'; where: string }
  /** No layout that is known gives these. */
  | { code: 'not known'; keys: string[] };

/** The layout that gives what came out. */
export function keyVerdict(pressed: readonly KeyPress[]): KeyVerdict {
  const wrong = keysAsked.find(
    (k, i) => pressed[i] !== undefined && pressed[i].code !== '' && pressed[i].code !== k.code,
  );
  if (wrong) return { code: 'other key', where: wrong.where };
  const keys = keysAsked.map((_, i) => (pressed[i]?.key ?? '').toLowerCase());
  const layout = Object.entries(LAYOUTS).find(([, gives]) => gives.every((g, i) => g === keys[i]))?.[0];
  return layout === undefined ? { code: 'not known', keys } : { code: 'layout', layout };
}
