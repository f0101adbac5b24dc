import { axe, CHOSEN, expect, test } from './fixtures';

for (const colorScheme of process.env.ZB_LOOKS === 'all' ? (['dark', 'light'] as const) : (['dark'] as const))
  test(`in ${colorScheme} colours every screen passes axe`, async ({ page, open }) => {
    test.setTimeout(200_000);
    await page.emulateMedia({ colorScheme });
    for (const address of CHOSEN) {
      await open(address);
      await axe(page);
    }
  });

test('under forced colours every screen passes axe', { tag: '@whole' }, async ({ page, open }) => {
  test.setTimeout(200_000);
  await page.emulateMedia({ forcedColors: 'active' });
  for (const address of CHOSEN) {
    await open(address);
    await axe(page);
  }
});

test('at 200 % zoom every screen passes axe, and the page does not scroll sideways', async ({
  page,
  open,
}) => {
  test.setTimeout(200_000);
  // 1280 × 800 at 200 % has room for half of it each way (WCAG 2.2, 1.4.4 and 1.4.10).
  await page.setViewportSize({ width: 640, height: 400 });
  for (const address of CHOSEN) {
    await open(address);
    await axe(page);
    const over = (): Promise<number> =>
      page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    await expect.poll(over, { message: address, timeout: 3000 }).toBe(0);
  }
});

/** What Tab reached, and whether anything on or around it shows that it has the focus. */
interface Reached {
  name: string;
  seen: boolean;
}

test(
  'whatever Tab reaches shows that it has the focus (WCAG 2.2, 2.4.7)',
  { tag: '@whole' },
  async ({ page, open }) => {
    test.setTimeout(200_000);
    for (const address of CHOSEN) {
      await open(address);
      await page.locator('#sheet').focus();
      const reached: Reached[] = [];
      for (let i = 0; i < 45; i += 1) {
        await page.keyboard.press('Tab');
        const now = await page.evaluate((): Reached | null => {
          const at = document.activeElement;
          if (!(at instanceof HTMLElement || at instanceof SVGElement) || at === document.body) return null;
          // The entry of a box to tick or a choice is drawn by what stands beside it.
          const around = [at, at.nextElementSibling, at.parentElement, at.closest('label')];
          const shown = (e: Element | null): boolean => {
            if (!e) return false;
            const { outlineStyle, outlineWidth, outlineColor } = getComputedStyle(e);
            return (
              outlineStyle !== 'none' &&
              parseFloat(outlineWidth) >= 1 &&
              !/, 0\)$|transparent/.test(outlineColor)
            );
          };
          return {
            name: `${at.tagName} ${at.getAttribute('aria-label') ?? at.textContent?.slice(0, 40) ?? ''}`,
            seen: around.some(shown),
          };
        });
        if (now) reached.push(now);
      }
      expect(reached.length, address).toBeGreaterThan(8);
      expect(
        reached.filter((r) => !r.seen).map((r) => r.name),
        address,
      ).toEqual([]);
    }
  },
);
