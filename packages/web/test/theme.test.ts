import { config, system } from '../src/theme';

/*
 * Recipes are not held to tokens by their types (theme/define.ts): that whatever they name is there is held here, and that
 * what is to be read can be.
 */

const COLOURS = [
  'color',
  'bg',
  'borderColor',
  'outlineColor',
  'focusRingColor',
  'borderTopColor',
  'borderBottomColor',
];
const SPACES = /^(padding|margin|gap|rowGap|columnGap|inset)/;
const SIZES = /^(width|height|boxSize|minWidth|minHeight|maxWidth|maxHeight)$/;
const KEYWORDS = ['transparent', 'currentColor', 'inherit', 'unset', 'none'];

interface Named {
  at: string;
  category: 'colors' | 'spacing' | 'sizes';
  name: string;
}
/** Every token that a tree of styles names. */
function named(tree: unknown, at: string[] = []): Named[] {
  if (typeof tree !== 'object' || tree === null) return [];
  return Object.entries(tree).flatMap(([key, value]): Named[] => {
    if (typeof value === 'object') return named(value, [...at, key]);
    const text = String(value);
    const here = (category: Named['category']): Named[] => [
      { at: [...at, key].join('.'), category, name: text },
    ];
    if (COLOURS.includes(key) && !KEYWORDS.includes(text)) return here('colors');
    if (SPACES.test(key) && /^\d+(\.5)?$/.test(text)) return here('spacing');
    return SIZES.test(key) && /^[a-z]+$/i.test(text) && !KEYWORDS.includes(text) ? here('sizes') : [];
  });
}
const theme = config.theme ?? {};
const all = named({ recipes: theme.recipes, slots: theme.slotRecipes, layers: theme.layerStyles });

it('names hundreds of tokens, and each of them is there', () => {
  expect(all.length).toBeGreaterThan(200);
  const missing = all.filter(({ category, name }) => system.token(`${category}.${name}`) === undefined);
  expect(missing).toEqual([]);
});

it('text styles and lines that recipes name are there', () => {
  const text = JSON.stringify({ ...theme.recipes, ...theme.slotRecipes });
  const styles = [...text.matchAll(/"textStyle":"([^"]+)"/g)].map((m) => m[1] ?? '');
  expect(styles.length).toBeGreaterThan(20);
  for (const s of styles) expect(Object.keys(theme.textStyles ?? {})).toContain(s);
  const lines = [...text.matchAll(/"border(?:Top|Bottom|InlineStart|InlineEnd)?":"([a-z]+)"/g)].map(
    (m) => m[1] ?? '',
  );
  for (const l of lines) expect(system.token(`borders.${l}`)).toBeDefined();
});

/** Relative luminance of a colour (WCAG 2.2, “relative luminance”). */
function luminance(hex: string): number {
  const channel = (i: number): number => {
    const c = parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  };
  return 0.2126 * channel(1) + 0.7152 * channel(3) + 0.0722 * channel(5);
}
const contrast = (a: string, b: string): number => {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return ((high ?? 0) + 0.05) / ((low ?? 0) + 0.05);
};
type Both = { value: { _light: string; _dark: string } };
const colours = theme.semanticTokens?.colors as unknown as Record<string, Record<string, Both>>;
const colour = (name: string, side: '_light' | '_dark'): string => {
  const [group = '', one = 'DEFAULT'] = name.split('.');
  const found = colours[group]?.[one];
  if (!found) throw new Error(`no colour ${name}`);
  return found.value[side];
};

// The formula above on the standard's own extremes: black on white is 21 to 1.
it('contrast is reckoned as the standard does', () =>
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5));

describe.each(['_light', '_dark'] as const)('in %s', (side) => {
  // WCAG 2.2, 1.4.3: text at least 4.5 to 1.
  it.each([
    ...['bg', 'bg.margin', 'bg.ground'].flatMap((on) => [
      ['fg', on],
      ['fg.muted', on],
    ]),
    ...['work', 'stop', 'check', 'proven'].flatMap((c) => [
      [c, 'bg'],
      [c, 'bg.margin'],
      ['fg', `${c}.wash`],
    ]),
    ['work.contrast', 'work'],
    ['bg', 'stop'],
    ['work', 'work.wash'],
  ])('%s can be read on %s', (text, on) =>
    expect(contrast(colour(text, side), colour(on, side))).toBeGreaterThanOrEqual(4.5),
  );
  // WCAG 2.2, 1.4.11: edges of controls at least 3 to 1.
  it.each(['bg', 'bg.margin'])('edges of controls are seen on %s', (on) =>
    expect(contrast(colour('rule.control', side), colour(on, side))).toBeGreaterThanOrEqual(3),
  );
});
