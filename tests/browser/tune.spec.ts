import { writeFileSync } from 'node:fs';
import { axe, expect, headline, kept, status, test } from './fixtures';

const BOX = '/box/games-corner/tune';

test('the knee, what each step did, and every chart as a table', async ({ page, open }) => {
  await open(BOX);
  await expect(headline(page)).toContainText('is the knee');
  const effects = page.getByRole('table', { name: 'What each change did' });
  await expect(effects.getByRole('row', { name: /31 W → 18 W/ })).toContainText('cooler');
  await axe(page);
  for (const title of [/against watts at the wall/, /what is shaded does not count/]) {
    const plot = page.getByRole('figure', { name: title });
    await plot.getByRole('button', { name: 'As a table' }).click();
    expect(await plot.getByRole('row').count()).toBeGreaterThan(4);
  }
  // Its runs were all of one state, then all of the other: that is what is said.
  await page.getByRole('button', { name: 'Paste', exact: true }).click();
  await expect(headline(page)).toContainText('cannot say');
  await expect(effects).toContainText('All runs of one state came before all of the other');
  await page.getByRole('button', { name: 'Power limit', exact: true }).click();
  await page.getByRole('button', { name: /^Keep 18 W/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Why').fill('nobody hears it any more');
  await dialog.getByRole('button', { name: 'Keep it, and note it on the sheet' }).click();
  await expect(status(page)).toContainText('18 W kept');
  await page.getByRole('tab', { name: 'Settings sheet' }).click();
  await expect(page.getByRole('row', { name: /Power limit/ })).toContainText('nobody hears it any more');
  await axe(page);
});

test('a whole experiment on the stand-in machine, from the question to the sentence', async ({
  page,
  open,
}) => {
  test.setTimeout(90_000);
  await open('/box/film-night/tune');
  await expect(headline(page)).toContainText('What should Film night do better?');
  await page.getByRole('button', { name: 'Ask a question' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('common practice');
  await dialog.getByLabel('Its kind').selectOption('power limit');
  await dialog.getByLabel('It stands at').fill('28 W');
  await dialog.getByLabel('Try', { exact: true }).fill('28 W');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toContainText('names one value twice');
  await dialog.getByLabel('Try', { exact: true }).fill('16 W');
  await dialog.getByLabel('Runs of each state').fill('3');
  await expect(dialog.getByRole('region', { name: 'The plan' })).toContainText('can never be sure');
  await dialog.getByLabel('Runs of each state').fill('4');
  await dialog.getByLabel('Let it settle, minutes').fill('20');
  await expect(dialog.getByRole('region', { name: 'The plan' })).toContainText('4 of each');
  await axe(page);
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(headline(page)).toContainText('8 runs will tell');
  await expect(page.getByRole('complementary')).toContainText('Next run');

  await page.getByRole('button', { name: 'Make run 1' }).click();
  await dialog.getByRole('button', { name: 'Start the run' }).click();
  // A slow machine may have played it to its end before anybody skips the rest.
  const skip = dialog.getByRole('button', { name: 'To its end' });
  const over = dialog.getByText('The run is over.');
  await expect(skip.or(over)).toBeVisible({ timeout: 20_000 });
  if (await skip.isVisible()) await skip.click({ timeout: 5000 }).catch(() => undefined);
  await expect(over).toBeVisible();
  await expect(dialog).toContainText('Hottest part');
  await dialog.getByRole('button', { name: 'Keep it as run 1' }).click();
  await expect(headline(page)).toContainText('1 of 8 runs made');
  await page.getByRole('button', { name: 'Make run 2' }).click();
  await dialog.getByRole('button', { name: 'Make all 7 that are left' }).click();
  await expect(headline(page)).toContainText(/28 W → 16 W: .* cooler/, { timeout: 40_000 });
  const effects = page.getByRole('table', { name: 'What each change did' });
  await expect(effects.getByRole('row', { name: /16 W/ })).toContainText('less even');
  await kept(page);
  await page.reload();
  await expect(headline(page)).toContainText('cooler');

  // A run is left out for a reason, and asked for again.
  await page.getByRole('tab', { name: 'Runs' }).click();
  await page.getByRole('button', { name: 'leave out' }).first().click();
  await expect(dialog.getByRole('button', { name: 'Leave it out' })).toBeDisabled();
  await dialog.getByLabel('Why').fill('an update ran');
  await dialog.getByRole('button', { name: 'Leave it out' }).click();
  await expect(headline(page)).toContainText('7 of 8 runs made');
});

test('logs: frame times, a hostile one, and our recorder to take along', async ({ page, open }, info) => {
  await open(BOX);
  await page.getByRole('button', { name: 'Open a log' }).click();
  const dialog = page.getByRole('dialog');
  const pick = async (name: string, text: string | Buffer): Promise<void> => {
    const path = info.outputPath(name);
    writeFileSync(path, text);
    const chooser = page.waitForEvent('filechooser');
    await dialog.getByRole('button', { name: 'Open a log file' }).click();
    await (await chooser).setFiles(path);
  };
  const frames = Array.from({ length: 3000 }, (_, i) => (16 + (i % 11) * 0.1).toFixed(2));
  await pick('frames.csv', `frametime (ms)\n${frames.join('\n')}\n`);
  await expect(dialog).toContainText('3,000 frames');
  await expect(dialog).toContainText('1 % low, percentile');
  await expect(dialog).toContainText('1 % low, average of the slowest');
  await axe(page);
  const plot = dialog.getByRole('figure', { name: 'How often a frame took so long' });
  await plot.getByRole('button', { name: 'As a table' }).click();
  expect(await plot.getByRole('row').count()).toBeGreaterThan(20);

  const rows = ['20:00:00;50', '20:00:01;51', 'a cat walked over it', '19:00:02;122 °F', '20:00:03;'];
  await pick('odd.csv', `time;CPU temp (°C)\n${rows.join('\n')}\n20:0`);
  const told = dialog.getByRole('list', { name: 'What was mended or taken for granted' });
  await expect(told).toContainText('The clock goes back');
  await expect(told).toContainText('had no figures where they should be');
  await expect(told).toContainText('breaks off');
  await pick('picture.csv', Buffer.from(Array.from({ length: 4000 }, (_, i) => (i * 97) % 256)));
  await expect(dialog.getByRole('alert')).toContainText('is no text');
  await expect(dialog.getByRole('alert')).toContainText('Nothing was kept of it');
  await dialog.getByRole('button', { name: 'another' }).click();
  await dialog.getByRole('button', { name: 'Or paste what a tool printed' }).click();
  await dialog
    .getByLabel('What it printed')
    .fill('Busy% Bzy_MHz PkgTmp PkgWatt\n40 3000 61 10\n41 3000 62 11\n');
  await dialog.getByRole('button', { name: 'Read it' }).click();
  await expect(dialog).toContainText('Read as turbostat');
  const saved = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save our recorder' }).click();
  expect((await saved).suggestedFilename()).toBe('record.sh');
});

test(
  'typed figures, three readings to the end, a panel that follows, and two verdicts',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open(BOX);
    await page.getByRole('button', { name: 'Ask something else' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Question', { exact: true }).selectOption('cooler');
    await dialog.getByLabel('Setting that is changed').selectOption('limit');
    await dialog.getByLabel('Try', { exact: true }).fill('24 W');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('button', { name: 'Make run 1' }).click();
    await dialog.getByText('Typed', { exact: true }).click();
    await dialog.getByRole('button', { name: 'Start the clock' }).click();
    await expect(dialog.getByRole('progressbar')).toBeVisible();
    await dialog.getByRole('button', { name: /Where will it end/ }).click();
    for (const [label, value] of [
      ['First', '30'],
      ['Second', '50'],
      ['Third', '60'],
    ] as const)
      await dialog.getByLabel(`${label} reading, °C`).fill(value);
    await expect(dialog).toContainText('ends near 70.0 °C');
    await dialog.getByRole('button', { name: 'Keep these figures' }).click();
    await expect(dialog.getByRole('alert')).toContainText('type one figure at least');
    await dialog.getByLabel('Hottest part, °C').fill('74,5');
    await dialog.getByRole('button', { name: 'Keep these figures' }).click();
    await expect(headline(page)).toContainText('1 of');

    await page.getByRole('tab', { name: 'Panel, heat, verdict' }).click();
    await page.getByRole('button', { name: 'Panel and battery' }).click();
    await dialog.getByLabel('Follows from, Hz').fill('40');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog).toContainText('needs both ends');
    await dialog.getByLabel('Follows to, Hz').fill('60');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('It follows from 40 to 60 frames a second')).toBeVisible();
    const verdicts = page.getByRole('region', { name: 'Two verdicts' });
    await verdicts.getByRole('button', { name: 'Say it' }).last().click();
    await dialog.getByLabel('Verdict').selectOption('partly');
    await dialog.getByLabel('For whom, and for whom not').fill('for a room, not for a train');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(verdicts).toContainText('not for a train');
    await axe(page);
  },
);

test('charts can be read in both themes: their words stand out from the sheet, and change with it', async ({
  page,
  open,
}) => {
  /** Contrast of the words of every chart against the sheet behind them (WCAG 2.2, relative luminance), the least of all. */
  const contrast = () =>
    page.evaluate(() => {
      const numbers = (c: string): number[] => (c.match(/[\d.]+/g) ?? []).map(Number);
      const light = (c: string): number => {
        const [r = 0, g = 0, b = 0] = numbers(c).map((v) => {
          const s = v / 255;
          return s <= 0.03928 ? s / 12.92 : ((s + 0.055) / 1.055) ** 2.4;
        });
        return 0.2126 * r + 0.7152 * g + 0.0722 * b;
      };
      const behind = (el: Element): string => {
        for (let at: Element | null = el; at; at = at.parentElement) {
          const c = getComputedStyle(at).backgroundColor;
          if (c !== 'transparent' && numbers(c)[3] !== 0) return c;
        }
        return 'rgb(255, 255, 255)';
      };
      const words = [...document.querySelectorAll('figure svg text')].filter((t) => t.textContent?.trim());
      const all = words.map((t) => {
        const [a, b] = [light(getComputedStyle(t).fill), light(behind(t))];
        return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
      });
      return { count: all.length, least: Math.min(...all) };
    });
  for (const scheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: scheme });
    await open(BOX);
    await expect(page.locator('figure svg text').first()).toBeVisible();
    await expect.poll(async () => (await contrast()).count).toBeGreaterThan(12);
    expect((await contrast()).least).toBeGreaterThan(4.5);
  }
  // The theme changes while the chart stands there.
  await page.emulateMedia({ colorScheme: 'light' });
  await expect.poll(async () => (await contrast()).least).toBeGreaterThan(4.5);
});
