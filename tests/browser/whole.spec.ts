import type { Locator, Page } from '@playwright/test';
import { axe, expect, headline, kept, test } from './fixtures';

/** How somebody works: with a finger on a tablet, or with keys alone. */
interface Hands {
  name: string;
  width: number;
  height: number;
  touch: boolean;
  press: (it: Locator) => Promise<void>;
  write: (it: Locator, text: string) => Promise<void>;
  choose: (it: Locator, word: string) => Promise<void>;
  /** The step in front is done. */
  done: (page: Page) => Promise<void>;
}

const finger: Hands = {
  name: 'by touch alone at 1024×768',
  width: 1024,
  height: 768,
  touch: true,
  press: (it) => it.tap(),
  write: async (it, text) => {
    await it.tap();
    await it.fill(text);
  },
  // The tablet’s own list, which a page does not draw.
  choose: async (it, word) => {
    await it.tap();
    await it.selectOption({ label: word });
  },
  done: (page) => page.getByRole('button', { name: 'Done', exact: true }).tap(),
};
const keys: Hands = {
  name: 'by keys alone at 1280×800',
  width: 1280,
  height: 800,
  touch: false,
  press: async (it) => {
    await it.focus();
    await it.press('Enter');
  },
  write: async (it, text) => {
    await it.focus();
    await it.pressSequentially(text);
  },
  choose: async (it, word) => {
    await it.focus();
    await it.pressSequentially(word.slice(0, 12));
  },
  done: (page) => page.keyboard.press('Space'),
};

/** Does every step of run mode; where a Stop stands against one, a reason is said. The titles of the steps. */
async function allSteps(page: Page, hands: Hands): Promise<string[]> {
  const titles: string[] = [];
  for (let i = 0; i < 90; i += 1) {
    const title = (await headline(page).textContent()) ?? '';
    if (/^All \d+ steps/.test(title)) break;
    titles.push(title);
    const why = page.getByLabel('Why you go on all the same');
    if (await why.isVisible()) {
      await hands.write(why, 'nothing is on it');
      // Space in a field is a space; on the sheet it is the one button.
      if (!hands.touch) await page.getByRole('button', { name: 'Done', exact: true }).focus();
    }
    await hands.done(page);
    await expect(headline(page)).not.toHaveText(title);
  }
  return titles;
}

for (const hands of [finger, keys])
  test(
    `a whole box from survey to retirement in run mode, ${hands.name}`,
    { tag: hands === finger ? '@whole' : [] },
    async ({ browser, server }) => {
      test.setTimeout(240_000);
      const context = await browser.newContext({
        viewport: { width: hands.width, height: hands.height },
        hasTouch: hands.touch,
        locale: 'en-GB',
        timezoneId: 'UTC',
        serviceWorkers: 'block',
      });
      const page = await context.newPage();
      const faults: string[] = [];
      page.on('pageerror', (e) => faults.push(e.message));
      await page.goto(`${server.address}/box/new`);
      await hands.write(page.getByLabel('Name of the box'), 'Harbour film');
      await hands.choose(page.getByLabel('Made after'), 'Film night, film');
      await hands.choose(page.getByLabel('Machine', { exact: true }), 'Slate, laptop');
      await axe(page);
      await hands.press(page.getByRole('button', { name: 'Open the box' }));
      await expect(page).toHaveURL(/\/box\/[^/]+\/survey/);
      await kept(page);
      await hands.press(page.getByRole('button', { name: 'Run mode' }));
      await expect(page).toHaveURL(/\/run$/);
      await expect(headline(page)).toBeVisible();
      await axe(page);
      const titles = await allSteps(page, hands);
      expect(titles.length).toBeGreaterThan(15);
      await expect(headline(page)).toHaveText(/^All \d+ steps/);
      await axe(page);
      await kept(page);
      const box = /\/box\/([^/]+)\//.exec(page.url())?.[1] ?? '';
      await page.goto(`${server.address}/box/${box}/keep`);
      await hands.press(page.getByRole('tab', { name: 'Retire' }));
      await hands.write(page.getByLabel('Why it is retired'), 'the harbour has a larger one');
      await axe(page);
      await hands.press(page.getByRole('button', { name: /^Retire / }));
      await expect(headline(page)).toContainText('the box is retired');
      await kept(page);
      expect(faults).toEqual([]);
      await context.close();
    },
  );
