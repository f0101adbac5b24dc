import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test as base, type Locator, type Page } from '@playwright/test';

const require = createRequire(import.meta.url);
const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

/** Every kind of screen, in the demo bench. */
export const ADDRESSES = [
  '/shelf',
  '/shelf?kind=drive',
  '/shelf/gull',
  '/shelf/blue',
  '/match',
  '/match?profile=coldstore',
  '/images',
  '/',
  '/practice',
  '/practice/it-asks?seed=3',
  '/practice/the-gate?seed=3',
  '/network',
  '/logbook',
  '/bench',
  '/box/new',
  ...[
    'survey',
    'choose',
    'gather',
    'verify',
    'write',
    'firmware',
    'install',
    'first-start',
    'network',
    'load',
    'tune',
    'keep',
  ].map((s) => `/box/archive/${s}`),
  '/box/tea-room-music/survey',
  '/box/tea-room-music/firmware',
  '/box/film-night/install',
  '/box/games-corner/install',
  '/box/games-corner/tune',
  '/box/film-night/install/rehearsal',
  '/box/film-night/install/opening',
  '/box/film-night/run',
];

/** A selection in `npm test`; all of them in `npm run proof looks`. */
export const CHOSEN =
  process.env.ZB_LOOKS === 'all' ? ADDRESSES : ['/', '/box/archive/choose', '/box/film-night/install'];

export interface RunningServer {
  address: string;
  stop(): Promise<void>;
}

/** Starts the built server on a free port with a data folder of its own. */
export async function startServer(
  dataDir: string,
  port = '0',
  pace = '4',
  more: Record<string, string> = {},
): Promise<RunningServer> {
  const child: ChildProcess = spawn(process.execPath, ['packages/server/dist/main.mjs'], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, ZB_DEMO: '1', ZB_DATA: dataDir, ZB_WRITER_PACE: pace, PORT: port, ...more },
  });
  const address = await new Promise<string>((resolve, reject) => {
    let said = '';
    child.stdout?.on('data', (d: Buffer) => {
      said += d.toString();
      const found = /http:\/\/127\.0\.0\.1:\d+/.exec(said)?.[0];
      if (found) resolve(found);
    });
    child.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
  const gone = new Promise<void>((resolve) => child.on('exit', () => resolve()));
  return {
    address,
    async stop() {
      child.kill('SIGINT');
      await gone;
    },
  };
}

interface Own {
  /** Opens an address of the application in the demo bench and waits for its headline. */
  open: (path: string) => Promise<void>;
  faults: string[];
  scratch: string;
}
interface OfWorker {
  /** A factor to the speed of the stand-in sticks; slower where a test acts while one is written. */
  pace: string;
  server: RunningServer;
}

export const test = base.extend<Own, OfWorker>({
  pace: ['4', { scope: 'worker', option: true }],
  server: [
    async ({ pace }, use) => {
      const dir = mkdtempSync(join(tmpdir(), 'zb-browser-'));
      const server = await startServer(dir, '0', pace);
      await use(server);
      await server.stop();
      rmSync(dir, { recursive: true, force: true });
    },
    { scope: 'worker' },
  ],
  // eslint-disable-next-line no-empty-pattern -- Playwright wants the pattern
  scratch: async ({}, use) => {
    const dir = mkdtempSync(join(tmpdir(), 'zb-files-'));
    await use(dir);
    rmSync(dir, { recursive: true, force: true });
  },
  /** Faults of the page itself; every test ends by looking at them. */
  faults: [
    async ({ page }, use) => {
      const faults: string[] = [];
      page.on('pageerror', (e) => faults.push(e.message));
      page.on('console', (m) => {
        if (m.type() === 'error' && !/Failed to load resource/.test(m.text())) faults.push(m.text());
      });
      await use(faults);
      expect(faults).toEqual([]);
    },
    { auto: true },
  ],
  open: async ({ page, server }, use) => {
    await use(async (path) => {
      await kept(page);
      await page.goto(server.address + path);
      await expect(page.locator('h1')).toBeVisible();
    });
  },
});
export { expect };

/** WCAG 2.2 A and AA, by axe. */
export async function axe(page: Page): Promise<void> {
  // A dialog hides what is behind it before the focus is in it; only then is it as a person meets it.
  await page.waitForFunction(() => {
    const dialog = document.querySelector('[role="dialog"][data-state="open"]');
    return !dialog || dialog.contains(document.activeElement);
  });
  await page.evaluate(AXE);
  const found = await page.evaluate(async () => {
    const run = (
      globalThis as unknown as {
        axe: {
          run(
            c: object,
          ): Promise<{ violations: { id: string; nodes: { html: string; failureSummary?: string }[] }[] }>;
        };
      }
    ).axe;
    const { violations } = await run.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
      // What passed need not be described, and nothing need be found again.
      resultTypes: ['violations'],
      selectors: false,
    });
    return violations.map(
      (v) =>
        `${v.id}: ${v.nodes
          .slice(0, 3)
          .map((n) => `${n.html.slice(0, 160)} — ${n.failureSummary?.split('\n')[1] ?? ''}`)
          .join(' | ')}`,
    );
  });
  expect(found).toEqual([]);
}

/** Waits until what was done is kept, as the page itself knows it; leaving earlier would be asked about. */
export const kept = (page: Page): Promise<void> =>
  page
    .waitForFunction(() => !document.querySelector('[data-part="shell"][data-saving="true"]'))
    .then(() => undefined);

/** Waits until the application is served by itself, as it is for people once it was fetched. */
export const servesItself = (page: Page): Promise<void> =>
  page
    .waitForFunction(() => navigator.serviceWorker.controller !== null, undefined, { timeout: 30_000 })
    .then(() => undefined);

export const headline = (page: Page) => page.locator('h1');
export const status = (page: Page) => page.locator('[data-scope="toast"][data-part="title"]');

/** Opens what is folded away; what stands open stays so, even while it has nothing to show yet. */
export async function unfold(trigger: Locator): Promise<void> {
  await expect(trigger).toHaveAttribute('aria-expanded', /true|false/);
  if ((await trigger.getAttribute('aria-expanded')) === 'false') await trigger.click();
}

/** Takes a thing by its handle with Space and waits until it is said where it hangs. */
export async function takeByKeys(page: Page, handle: Locator, over: string): Promise<void> {
  await handle.focus();
  await page.keyboard.press('Space');
  await expect(page.locator('[id^="DndLiveRegion"]', { hasText: over })).toBeAttached();
  // dnd-kit hears the arrows from a timer on that Space sets; one set after it is over after it (HTML, 8.6 Timers).
  await page.evaluate(() => new Promise<void>((done) => setTimeout(done)));
}

/** Fetches a depot image into a file, as a user's own download. */
export async function depotFile(
  server: RunningServer,
  dir: string,
  file: string,
  as = file,
): Promise<string> {
  const response = await fetch(`${server.address}/api/depot/${file}`);
  writeFileSync(join(dir, as), Buffer.from(await response.arrayBuffer()));
  return join(dir, as);
}

export function sparse(dir: string, name: string, bytes: number): string {
  writeFileSync(join(dir, name), '');
  truncateSync(join(dir, name), bytes);
  return join(dir, name);
}

/** Drops files on a place as the system's own file manager does. */
export async function dropFiles(page: Page, place: Locator, files: string[]): Promise<void> {
  await place.scrollIntoViewIfNeeded();
  const box = await place.boundingBox();
  if (!box) throw new Error('nowhere to drop it');
  const session = await page.context().newCDPSession(page);
  const at = { x: box.x + box.width - 20, y: box.y + box.height / 2 };
  const data = { items: [], files, dragOperationsMask: 1 };
  for (const type of ['dragEnter', 'dragOver', 'drop'] as const)
    await session.send('Input.dispatchDragEvent', { type, ...at, data });
}

/** Fetches the games corner's image at its Verify stop. */
export async function verifyLantern(page: Page, open: Own['open']): Promise<void> {
  await open('/box/games-corner/verify');
  await page.getByRole('button', { name: 'Fetch lantern-arcade-7.2-x64.img' }).click();
  await expect(page.locator('[data-part="stamp"]', { hasText: 'SAME FILE' })).toBeVisible();
  await expect(status(page)).toContainText('checked');
}
