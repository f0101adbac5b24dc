import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { chromiumOptions } from '../../tools/chromium.mjs';

/** A browser with a profile of its own. */
export const launch = (profile: string): Promise<BrowserContext> =>
  chromium.launchPersistentContext(profile, { ...chromiumOptions, viewport: { width: 1280, height: 800 } });

export const addNote = async (page: Page, text: string): Promise<void> => {
  await page.getByLabel('Text').fill(text);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
};
/** Once all that was done is kept. */
export const settled = (page: Page): Promise<unknown> =>
  page.waitForFunction(() => !document.querySelector('[data-part="shell"][data-saving="true"]'));
export const ready = async (page: Page, address: string): Promise<void> => {
  await page.goto(`${address}/box/archive/keep`);
  await page.getByLabel('Text').waitFor();
  await settled(page);
};
/** Of a long log only what is seen is drawn: lines without the word are left out first. */
export const narrow = (page: Page, word: string): Promise<void> =>
  page.getByLabel('With the word').fill(word);
/** The notes that are kept, as the browser has them. */
export const notes = (page: Page): Promise<string[]> =>
  page.evaluate(
    () =>
      new Promise<string[]>((done, failed) => {
        const asked = indexedDB.open('zealous-box');
        asked.onerror = () => failed(new Error('it cannot be opened'));
        asked.onsuccess = () => {
          const all = asked.result.transaction('log').objectStore('log').getAll();
          all.onsuccess = () => {
            asked.result.close();
            const kept = (all.result as { all: { text: string }[] }[]).flatMap((d) => d.all);
            done(kept.map((e) => e.text).filter((t) => t.startsWith('stress')));
          };
        };
      }),
  );
