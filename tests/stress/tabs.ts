import { execFileSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { BrowserContext, Page } from '@playwright/test';
import { addNote, launch, narrow, notes, ready, settled } from './pages';
import { BuiltServer } from './server';
import type { Bench, Part } from './part';

/** Tabs of one browser at the bench, each ready to act. */
async function readyTabs(context: BrowserContext, address: string, length: number): Promise<Page[]> {
  const pages = await Promise.all(Array.from({ length }, () => context.newPage()));
  for (const page of pages) await ready(page, address);
  return pages;
}

/** Two and three tabs acting at once: every act of every tab is kept, and every tab shows it. */
async function together(
  { random, count, wrong }: Bench,
  context: BrowserContext,
  address: string,
  round: number,
): Promise<void> {
  const pages = await readyTabs(context, address, random.int(2, 3));
  const wanted: string[] = [];
  await Promise.all(
    pages.map(async (page, p) => {
      for (let i = 0; i < 6; i += 1) {
        const text = `stress ${round} ${p} ${i}`;
        wanted.push(text);
        await addNote(page, text);
        await page.waitForTimeout(random.int(0, 40));
      }
      await settled(page);
    }),
  );
  const [first] = pages;
  if (!first) return;
  const kept = await notes(first);
  for (const text of wanted)
    if (kept.filter((k) => k === text).length !== 1)
      wrong(`“${text}” is kept ${kept.filter((k) => k === text).length} times`);
  for (const page of pages) await narrow(page, `stress ${round} `);
  for (const page of pages)
    for (const text of wanted)
      await page
        .getByText(text, { exact: true })
        .waitFor({ timeout: 10_000 })
        .catch(() => wrong(`a tab does not show “${text}”`));
  count('acts of tabs at once', wanted.length);
  for (const page of pages) await page.close();
}

/** Three tabs that act and undo as they like: all show what is kept, and each act was done once and taken back once at most. */
async function undoing(
  { random, count, wrong }: Bench,
  context: BrowserContext,
  address: string,
  round: number,
): Promise<void> {
  const pages = await readyTabs(context, address, 3);
  const done = new Set<string>();
  await Promise.all(
    pages.map(async (page, p) => {
      for (let i = 0; i < 6; i += 1) {
        if (random.chance(0.4)) {
          await page.locator('#sheet').focus();
          await page.keyboard.press('Control+z');
          count('undoes of three tabs');
        } else {
          const text = `stress undo ${round} ${p} ${i}`;
          done.add(text);
          await addNote(page, text);
        }
        await page.waitForTimeout(random.int(0, 60));
      }
      await settled(page);
    }),
  );
  const [first] = pages;
  if (!first) return;
  for (const page of pages) await settled(page);
  const mine = (await notes(first)).filter((n) => n.startsWith(`stress undo ${round} `));
  if (new Set(mine).size !== mine.length) wrong(`an act is kept twice: ${mine.join(', ')}`);
  for (const text of mine) if (!done.has(text)) wrong(`“${text}” was never done`);
  for (const page of pages) await narrow(page, `stress undo ${round} `);
  for (const page of pages)
    for (const text of done) {
      const wanted = mine.includes(text) ? 1 : 0;
      for (let n = 0; n < 50 && (await page.getByText(text, { exact: true }).count()) !== wanted; n += 1)
        await page.waitForTimeout(100);
      const shown = await page.getByText(text, { exact: true }).count();
      if (shown !== wanted) wrong(`“${text}” is kept ${wanted} times, and a tab shows it ${shown} times`);
    }
  count('acts of three tabs that undo', done.size);
  for (const page of pages) await page.close();
}

/** The browser's own storage truly full: nothing on the screen is lost, it is said, and it is kept when there is room. */
async function quota({ count, wrong }: Bench, dir: string, address: string): Promise<void> {
  const profile = join(dir, 'profile');
  mkdirSync(profile, { recursive: true });
  // The browser grants a page a share of the disk its profile is on: a small disk makes a small quota.
  execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=160m', 'tmpfs', profile]);
  const context = await launch(profile);
  try {
    const page = await context.newPage();
    await ready(page, address);
    const filled = await page.evaluate(
      () =>
        new Promise<{ bytes: number; why: string }>((done) => {
          const asked = indexedDB.open('filler', 1);
          asked.onupgradeneeded = () => asked.result.createObjectStore('x', { autoIncrement: true });
          asked.onsuccess = () => {
            let [bytes, size] = [0, 4 * 2 ** 20];
            const more = (): void => {
              const tx = asked.result.transaction('x', 'readwrite');
              tx.objectStore('x').add(
                crypto
                  .getRandomValues(new Uint8Array(65536))
                  .toString()
                  .repeat(Math.ceil(size / 230_000)),
              );
              tx.oncomplete = () => {
                bytes += size;
                more();
              };
              tx.onabort = () => {
                const why = tx.error?.name ?? 'unknown';
                if (size <= 4096) {
                  asked.result.close();
                  done({ bytes, why });
                  return;
                }
                size = Math.floor(size / 4);
                more();
              };
            };
            more();
          };
        }),
    );
    count('megabytes until the quota', Math.round(filled.bytes / 2 ** 20));
    if (filled.why !== 'QuotaExceededError')
      wrong(`the storage ended with ${filled.why} instead of its quota`);
    let refused = '';
    for (let i = 0; i < 40 && refused === ''; i += 1) {
      const text = `stress quota ${i} ${'x'.repeat(1500)}`;
      await addNote(page, text);
      await settled(page);
      if (await page.getByRole('alert').count()) refused = text;
    }
    if (refused === '') {
      wrong('a quota that is used up refuses nothing');
      return;
    }
    const said = await page.getByRole('alert').innerText();
    if (!/Not saved: 1 act/.test(said) || !/full/.test(said)) wrong(`a real quota is said as “${said}”`);
    await page.getByText(refused, { exact: true }).waitFor();
    await page.evaluate(
      () => new Promise<void>((done) => (indexedDB.deleteDatabase('filler').onsuccess = () => done())),
    );
    await page.getByRole('button', { name: 'Try again' }).click();
    await page.getByRole('alert').waitFor({ state: 'detached' });
    await settled(page);
    await page.reload();
    await page
      .getByText(refused, { exact: true })
      .waitFor({ timeout: 10_000 })
      .catch(() => wrong('what the quota refused is not kept afterwards'));
    count('real quotas reached');
  } finally {
    await context.close();
    execFileSync('umount', ['-l', profile]);
  }
}

/** The database deleted by one tab while others act: what is on the screens stays and can be kept. */
async function deleted(
  { random, count, wrong }: Bench,
  context: BrowserContext,
  address: string,
  round: number,
): Promise<void> {
  const page = await context.newPage();
  await ready(page, address);
  const text = `stress deleted ${round}`;
  const act = addNote(page, text);
  await page.waitForTimeout(random.int(0, 60));
  await page.evaluate(
    () => new Promise<void>((done) => (indexedDB.deleteDatabase('zealous-box').onsuccess = () => done())),
  );
  await act;
  await page.getByText(text, { exact: true }).waitFor();
  await page.getByRole('button', { name: 'Keep this bench here' }).click();
  await page.getByRole('alert').waitFor({ state: 'detached' });
  await settled(page);
  await page.reload();
  await page
    .getByText(text, { exact: true })
    .waitFor({ timeout: 10_000 })
    .catch(() => wrong(`“${text}” is lost after the database was deleted`));
  count('databases deleted under a page');
  await page.close();
}

/** Storage refused from the start: said, and all goes on while the page is open. */
async function refused({ count, wrong }: Bench, context: BrowserContext, address: string): Promise<void> {
  const page = await context.newPage();
  await page.addInitScript(() => {
    IDBFactory.prototype.open = () => {
      throw new DOMException('refused', 'SecurityError');
    };
  });
  await ready(page, address);
  await addNote(page, 'stress refused');
  await page.getByText('stress refused', { exact: true }).waitFor();
  const said = await page.getByRole('alert').innerText();
  if (!/Nothing is kept/.test(said)) wrong(`storage that is refused is said as “${said}”`);
  count('storages refused');
  await page.close();
}

/** Tabs at once, storage deleted under them, storage refused, and a real quota. */
export const tabs: Part = async (bench) => {
  const server = await BuiltServer.start({ dataDir: `${bench.dir}/tabs-data`, env: { ZB_DEMO: '1' } });
  const address = `http://127.0.0.1:${server.port}`;
  const context = await launch(join(bench.dir, 'tabs-profile'));
  context.setDefaultTimeout(20_000);
  let quotaDone = false;
  try {
    for (let round = 1; bench.goOn(); round += 1) {
      await together(bench, context, address, round);
      await undoing(bench, context, address, round);
      await deleted(bench, context, address, round);
      await refused(bench, context, address);
      if (!quotaDone) await quota(bench, bench.dir, address);
      quotaDone = true;
    }
  } catch (error) {
    bench.wrong(error instanceof Error ? (error.stack ?? error.message) : String(error));
  } finally {
    await context.close();
    await server.end('SIGKILL');
  }
};
