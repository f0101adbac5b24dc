import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { benchToText } from '@zb/core/model/file';
import { chromiumOptions } from '../../tools/chromium.mjs';
import { BuiltServer } from './server';
import type { Part } from './part';

const THINGS = 5000;

/** The longest time, in milliseconds, in which the page drew nothing while `work` went on. */
async function longestStill(page: Page, work: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const seen = { most: 0, on: true };
    let last = performance.now();
    const frame = (now: number): void => {
      seen.most = Math.max(seen.most, now - last);
      last = now;
      if (seen.on) requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
    Object.assign(globalThis, { seen });
  });
  await work();
  return page.evaluate(() => {
    const { seen } = globalThis as unknown as { seen: { most: number; on: boolean } };
    seen.on = false;
    return Math.round(seen.most);
  });
}

/** A bench of 5,000 things: how long it takes to put in place, to scroll, and to act on in two tabs. Only measured. */
export const scale: Part = async ({ dir, count, wrong }) => {
  const demo = saltmarshHall();
  const drives = demo.items.filter((i) => i.kind === 'stick' || i.kind === 'drive');
  const items = Array.from({ length: THINGS }, (_, i) => {
    const like = drives[i % drives.length];
    if (!like) throw new Error('the demo has no drives');
    return { ...like, id: `thing-${i}`, name: `Thing ${i}`, serial: `S-${i}`, in: null };
  });
  const file = join(dir, 'large.json');
  writeFileSync(file, benchToText({ ...demo, name: 'Large', items: [...demo.items, ...items] }));
  const server = await BuiltServer.start({ dataDir: join(dir, 'scale'), env: { ZB_DEMO: '1' } });
  const address = `http://127.0.0.1:${server.port}`;
  const browser = await chromium.launch(chromiumOptions);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  context.setDefaultTimeout(180_000);
  const timed = async (what: string, work: () => Promise<unknown>): Promise<void> => {
    const since = Date.now();
    await work();
    count(`ms ${what}`, Date.now() - since);
  };
  try {
    const page = await context.newPage();
    await page.goto(`${address}/bench`);
    await page.locator('h1').waitFor();
    await timed('to read the file', async () => {
      await page.getByLabel('Bench file').setInputFiles(file);
      await page.getByRole('button', { name: 'Put it in place' }).waitFor();
    });
    await timed('to put it in place', async () => {
      await page.getByRole('button', { name: 'Put it in place' }).click();
      await page.waitForFunction(() => !document.querySelector('[data-part="shell"][data-saving="true"]'));
    });
    await timed('to open the shelf', async () => {
      await page.goto(`${address}/shelf`);
      await page.getByText('Thing 0', { exact: true }).first().waitFor();
    });
    const still = await longestStill(page, async () => {
      await page.mouse.move(700, 500);
      for (let i = 0; i < 60; i += 1) await page.mouse.wheel(0, 900);
      await page.waitForTimeout(500);
    });
    count('ms without a frame while scrolling', still);
    const second = await context.newPage();
    await second.goto(`${address}/box/archive/keep`);
    await page.goto(`${address}/box/archive/keep`);
    for (const tab of [page, second]) await tab.getByLabel('Text').waitFor();
    await timed('for ten acts in each of two tabs', () =>
      Promise.all(
        [page, second].map(async (tab, t) => {
          for (let i = 0; i < 10; i += 1) {
            await tab.getByLabel('Text').fill(`act ${t} ${i}`);
            await tab.getByRole('button', { name: 'Add', exact: true }).click();
          }
          await tab.waitForFunction(() => !document.querySelector('[data-part="shell"][data-saving="true"]'));
        }),
      ),
    );
    await page.reload();
    for (let t = 0; t < 2; t += 1)
      for (let i = 0; i < 10; i += 1)
        await page
          .getByText(`act ${t} ${i}`, { exact: true })
          .waitFor({ timeout: 60_000 })
          .catch(() => wrong(`act ${t} ${i} of two tabs is lost`));
  } finally {
    await browser.close();
    await server.end('SIGKILL');
  }
};
