import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { axe, depotFile, expect, headline, kept, sparse, startServer, status, test } from './fixtures';

const addNote = async (page: Page, text: string): Promise<void> => {
  await page.getByLabel('Text').fill(text);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
};
/** Adds a note, waits until it is kept, and then has the browser's database deleted. */
async function noteAndDelete(page: Page, text: string): Promise<void> {
  await addNote(page, text);
  await kept(page);
  await page.evaluate(
    () =>
      new Promise<void>((done, failed) => {
        const asked = indexedDB.deleteDatabase('zealous-box');
        asked.onsuccess = () => done();
        asked.onerror = () => failed(new Error('not deleted'));
        asked.onblocked = () => failed(new Error('blocked'));
      }),
  );
}

test(
  'the database deleted under an open page: the bench stays on the screen, no act is lost, and it is kept again',
  { tag: '@whole' },
  async ({ page, open, context, server }) => {
    await open('/box/archive/keep');
    await noteAndDelete(page, 'before it went');
    await addNote(page, 'after it went');
    const alert = page.getByRole('alert');
    await expect(alert).toContainText('Not saved: 1 act is on this screen only');
    await expect(alert).toContainText('was deleted');
    await expect(alert).toContainText('The bench on this screen is whole');
    await expect(alert).not.toContainText('unharmed');
    await axe(page);

    // A second tab finds nothing kept, and does not put the demo over what the first one shows.
    const second = await context.newPage();
    await second.goto(`${server.address}/shelf`);
    await expect(second.locator('h1')).toHaveText('Another tab has a bench that is not kept here');
    await expect(second.getByRole('alert')).toContainText('Saltmarsh Hall');
    await axe(second);

    await page.getByRole('button', { name: 'Keep this bench here' }).click();
    await expect(alert).toHaveCount(0);
    await expect(second.locator('h1')).not.toHaveText(/Another tab/);
    await second.goto(`${server.address}/box/archive/keep`);
    for (const tab of [page, second])
      for (const text of ['before it went', 'after it went'])
        await expect(tab.getByRole('row', { name: new RegExp(text) })).toBeVisible();
  },
);

test(
  'a second tab that begins the demo all the same takes nothing from the first',
  { tag: '@whole' },
  async ({ page, open, context, server }) => {
    await open('/box/archive/keep');
    await noteAndDelete(page, 'mine');
    const second = await context.newPage();
    await second.goto(`${server.address}/box/archive/keep`);
    await second.getByRole('button', { name: 'Begin with the demo bench here' }).click();
    await expect(second.locator('h1')).toBeVisible();
    await expect(second.getByText('mine', { exact: true })).toHaveCount(0);
    await expect(page.getByRole('alert')).toContainText('This bench is on this screen only');
    await expect(page.getByRole('row', { name: /mine/ })).toBeVisible();
    await page.getByRole('button', { name: 'Show what is kept now' }).click();
    await expect(page.getByText('mine', { exact: true })).toHaveCount(0);
    await expect(page.getByRole('alert')).toHaveCount(0);
  },
);

test(
  'the database closed under an open page is opened again by itself',
  { tag: '@whole' },
  async ({ page, open }) => {
    await page.addInitScript(() => {
      const opened: IDBDatabase[] = [];
      const own = Reflect.get(IDBFactory.prototype, 'open') as (
        this: IDBFactory,
        ...args: unknown[]
      ) => IDBOpenDBRequest;
      IDBFactory.prototype.open = function (...args: unknown[]) {
        const asked = own.apply(this, args);
        asked.addEventListener('success', () => opened.push(asked.result));
        return asked;
      };
      Object.assign(globalThis, { closeAll: () => opened.forEach((db) => db.close()) });
    });
    await open('/box/archive/keep');
    await kept(page);
    await page.evaluate(() => (globalThis as unknown as { closeAll(): void }).closeAll());
    await addNote(page, 'after the close');
    await kept(page);
    await expect(page.getByRole('alert')).toHaveCount(0);
    await page.reload();
    await expect(page.getByRole('row', { name: /after the close/ })).toBeVisible();
  },
);

test(
  'storage that never answers is said after some seconds, and can be done without',
  { tag: '@whole' },
  async ({ page, server }) => {
    await page.addInitScript(() => {
      const mute = { addEventListener: { value: () => undefined } };
      IDBFactory.prototype.open = () => Object.create(IDBOpenDBRequest.prototype, mute) as IDBOpenDBRequest;
    });
    await page.goto(`${server.address}/box/archive/keep`);
    await expect(headline(page)).toHaveText('The browser’s storage does not answer');
    await axe(page);
    await page.getByRole('button', { name: 'Go on without storage' }).click();
    await expect(page.getByRole('alert')).toContainText('kept only while this page is open');
    await addNote(page, 'without storage');
    await expect(page.getByRole('row', { name: /without storage/ })).toBeVisible();
  },
);

test.describe('without the server', () => {
  test.use({ serviceWorkers: 'allow' });
  test(
    'with the server gone every screen goes on, what it loads late included',
    { tag: '@whole' },
    async ({ page, scratch }) => {
      const dir = mkdtempSync(join(tmpdir(), 'zb-gone-'));
      const server = await startServer(dir);
      try {
        const image = await depotFile(server, scratch, 'tidegate-3-x64.img');
        await page.goto(`${server.address}/shelf`);
        await expect(headline(page)).toBeVisible();
        // All that was built is at hand once the browser has taken the application over.
        const built = readdirSync('packages/web/dist/assets').filter((f) => !f.endsWith('.br')).length;
        const atHand = (): Promise<number> =>
          page.evaluate(async () => {
            if (!navigator.serviceWorker.controller) await navigator.serviceWorker.ready;
            const [name] = (await caches.keys()).filter((k) => k.includes('precache'));
            return name === undefined ? 0 : (await (await caches.open(name)).keys()).length;
          });
        await expect.poll(atHand, { timeout: 30_000 }).toBeGreaterThanOrEqual(built);
        await server.stop();
        // Not even the page itself comes from the server any more.
        await page.reload();
        await expect(headline(page)).toBeVisible();
        const go = async (path: string): Promise<void> => {
          await page.evaluate((to) => {
            history.pushState(null, '', to);
            dispatchEvent(new PopStateEvent('popstate'));
          }, path);
          await expect(headline(page)).toBeVisible();
        };
        for (const area of ['match', 'profiles', 'shopping', 'images', '', 'practice', 'bench', 'box/new'])
          await go(`/${area}`);
        for (const stop of ['survey', 'choose', 'gather', 'write', 'firmware', 'install', 'keep'])
          await go(`/box/games-corner/${stop}`);
        await go('/logbook');
        await page.getByRole('radio', { name: 'times of writes' }).check({ force: true });
        await expect(page.locator('.apexcharts-series').first()).toBeVisible();
        // A thread that was never started before.
        await go('/box/archive/verify');
        await page.locator('input[type=file]').first().setInputFiles(image);
        await expect(page.getByText('tidegate-3-x64.img').first()).toBeVisible();
        await expect(status(page)).toContainText(/checked|read/i);
        await expect(page.getByText('This screen failed')).toHaveCount(0);
      } finally {
        await server.stop();
        rmSync(dir, { recursive: true, force: true });
      }
    },
  );
});

test(
  'a bench file with a hundred thousand wrong things is refused in words',
  { tag: '@whole' },
  async ({ page, open, scratch }) => {
    await open('/bench');
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save the bench to a file' }).click();
    const raw = JSON.parse(readFileSync(await (await saved).path(), 'utf8')) as Record<string, unknown>;
    const bad = join(scratch, 'bad.json');
    writeFileSync(bad, JSON.stringify({ ...raw, items: Array.from({ length: 100_000 }, () => ({})) }));
    await page.getByLabel('Bench file').setInputFiles(bad);
    await expect(page.getByRole('alert')).toContainText(
      /fields in it are wrong.*Nothing on your bench was changed/,
      // A hundred thousand faults are looked at; how fast is no matter of this test.
      { timeout: 40_000 },
    );
    await expect(page.getByRole('alert')).toContainText(/and \d+ more/);
  },
);

test(
  'a write that two tabs see the end of is recorded once, and one undo takes it back for good',
  { tag: '@whole' },
  async ({ page, open, context, server }) => {
    await open('/box/games-corner/verify');
    await page.getByRole('button', { name: 'Fetch lantern-arcade-7.2-x64.img' }).click();
    await expect(status(page)).toContainText('checked');
    const second = await context.newPage();
    await second.goto(`${server.address}/logbook`);
    await expect(second.locator('h1')).toBeVisible();
    await open('/box/games-corner/write');
    await page.bringToFront();
    await page.getByRole('radio', { name: /Blue stick/ }).check({ force: true });
    await page.getByLabel('Last four of the serial').fill('7C20');
    await page.getByRole('button', { name: 'Write and compare' }).click();
    await expect(page.getByText('PROVEN', { exact: true })).toBeVisible({ timeout: 40_000 });
    await kept(page);
    const lines = (tab: Page) =>
      tab.evaluate(
        () =>
          new Promise<number>((done) => {
            const asked = indexedDB.open('zealous-box');
            asked.onsuccess = () => {
              const all = asked.result.transaction('log').objectStore('log').getAll();
              all.onsuccess = () => {
                asked.result.close();
                const kept = (all.result as { all: { id: string }[] }[]).flatMap((d) => d.all);
                done(kept.filter((k) => k.id.startsWith('write-')).length);
              };
            };
          }),
      );
    await expect.poll(() => lines(page)).toBe(1);
    await second.bringToFront();
    await second.waitForTimeout(2500);
    expect(await lines(page)).toBe(1);
    await page.bringToFront();
    await page.locator('#sheet').focus();
    await page.keyboard.press('Control+z');
    await expect(status(page)).toContainText('Undone: Write to');
    await page.waitForTimeout(2500);
    expect(await lines(page)).toBe(0);
  },
);

test(
  'an image opened where a list, a report or a bench was wanted is not read, and the page says so',
  { tag: '@whole' },
  async ({ page, open, scratch }) => {
    const large = sparse(scratch, 'large.img', 3e9);
    const alert = page.getByRole('alert');
    await open('/images');
    await page.getByRole('button', { name: 'Fetch tidegate-3-x64.img' }).click();
    await expect(status(page)).toContainText('checked');
    await open('/images');
    await page.getByLabel('Open a list').setInputFiles(large);
    await expect(alert).toContainText('large.img has 2.79 GiB');
    await open('/bench');
    await page.getByLabel('Bench file').setInputFiles(large);
    await expect(alert).toContainText('It was not read');
    await open('/shelf/skerry');
    await page.getByLabel('Open a report file').setInputFiles(large);
    await expect(alert).toContainText('nothing was changed');
  },
);
