// Part of npm run bench: a bench of 1,000 machines, 5,000 other things, 300 boxes and 50,000 lines of the log, in Chromium.
/* global document, Event, MutationObserver, PerformanceObserver, requestAnimationFrame */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const [MACHINES, THINGS, BOXES, LINES] = [1000, 5000, 300, 50_000];

/** A bench as a file, for the page to read. */
async function largeFile(dir) {
  const out = join(dir, 'scale.mjs');
  await build({
    stdin: {
      contents:
        "export { saltmarshHall } from './packages/core/src/demo/saltmarsh'; export { benchToText } from './packages/core/src/model/file';",
      resolveDir: root,
    },
    bundle: true,
    format: 'esm',
    platform: 'node',
    outfile: out,
    logLevel: 'error',
  });
  const { saltmarshHall, benchToText } = await import(out);
  const text = benchToText(largeBench(saltmarshHall()));
  const file = join(dir, 'large.json');
  writeFileSync(file, text);
  return { file, bytes: text.length };
}

/** The demo many times over: every record a sound one, all references kept. */
export function largeBench(demo) {
  const of = (list, i) => list[i % list.length];
  const machines = demo.items.filter((i) => i.kind === 'machine');
  const things = demo.items.filter((i) => i.kind !== 'machine' && i.kind !== 'image');
  const items = [
    ...Array.from({ length: MACHINES }, (_, i) => ({
      ...of(machines, i),
      id: `m${i}`,
      name: `Machine ${i}`,
    })),
    ...Array.from({ length: THINGS }, (_, i) => {
      const like = of(things, i);
      const inside = 'in' in like ? { in: i % 2 ? `m${i % MACHINES}` : null } : {};
      return {
        ...like,
        id: `t${i}`,
        name: `Thing ${i}`,
        ...inside,
        ...('serial' in like ? { serial: `S-${i}` } : {}),
      };
    }),
  ];
  const boxes = Array.from({ length: BOXES }, (_, i) => ({
    ...of(demo.boxes, i),
    id: `b${i}`,
    name: `Box ${i}`,
    machineId: `m${i}`,
    imageId: null,
    parts: [],
    wishId: null,
  }));
  const log = Array.from({ length: LINES }, (_, i) => ({
    ...of(demo.log, i),
    id: `l${i}`,
    boxId: `b${i % BOXES}`,
    at: new Date(Date.UTC(2026, 0, 1) + i * 60_000).toISOString(),
  }));
  return { ...demo, name: 'Large', items, boxes, log, photos: [] };
}

/** Tasks of the page's thread that took longer than 50 ms while `work` went on: how many, and the longest. */
async function longTasks(page, work) {
  await page.evaluate(() => {
    globalThis.long = [];
    globalThis.watch?.disconnect();
    globalThis.watch = new PerformanceObserver((l) =>
      globalThis.long.push(...l.getEntries().map((e) => Math.round(e.duration))),
    );
    globalThis.watch.observe({ entryTypes: ['longtask'] });
  });
  await work();
  await page.waitForTimeout(100);
  const found = await page.evaluate(() => globalThis.long);
  return { count: found.length, longest: Math.max(0, ...found), all: found };
}

const words = ({ count, longest }) =>
  count === 0 ? 'no long task' : `${count} long tasks, the longest ${longest} ms`;

export async function benchScale(browser, address, dir) {
  const { file, bytes } = await largeFile(dir);
  console.log(
    `A bench of ${MACHINES} machines, ${THINGS} other things, ${BOXES} boxes and ${LINES} lines of the log (${(bytes / 1e6).toFixed(0)} MB as a file):`,
  );
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  page.setDefaultTimeout(180_000);
  await page.goto(`${address}/bench`);
  await page.getByLabel('Bench file').waitFor({ state: 'attached' });
  await page.waitForTimeout(2500);
  const since = performance.now();
  const importing = await longTasks(page, async () => {
    await page.getByLabel('Bench file').setInputFiles(file);
    await page.getByRole('button', { name: 'Put it in place' }).click();
    await page.waitForFunction(() => document.querySelector('a[href="/bench"]')?.textContent === 'Large');
    await page.locator('[data-part="shell"][data-saving="false"]').waitFor({ state: 'attached' });
  });
  const took = (performance.now() - since) / 1000;
  console.log(`  read in and put in place: ${took.toFixed(1)} s (aim 5), ${words(importing)}`);

  const nodes = () => page.evaluate(() => document.getElementsByTagName('*').length);
  for (const [what, path, there] of [
    ['opened at the shelf', '/shelf', () => page.getByRole('link', { name: 'Machine 1', exact: true })],
    ['opened at the logbook', '/logbook', () => page.locator('[aria-label="Log"] tbody tr').nth(3)],
    ['opened at a box', '/box/b7/keep', () => page.locator('aside section').first()],
    ['opened at the bench', '/', () => page.locator('main article').nth(2)],
    [
      'opened at the match sheet',
      '/match',
      () => page.locator('[aria-label="Match sheet"] tbody tr').first(),
    ],
  ]) {
    const t = performance.now();
    await page.goto(`${address}${path}`);
    await page.locator('h1').first().waitFor();
    await there()
      .waitFor({ state: 'attached', timeout: 30_000 })
      .catch(() => console.log(`    (${path}: what was looked for did not come)`));
    console.log(
      `  ${what}: ${((performance.now() - t) / 1000).toFixed(2)} s (aim 2), ${await nodes()} nodes`,
    );
  }

  // An act on the screen: from the key that does it to the frame that shows it.
  await page.goto(`${address}/box/b7/keep`);
  await page.locator('h1').first().waitFor();
  await page.waitForTimeout(1500);
  const acts = [];
  const during = await longTasks(page, async () => {
    for (let i = 0; i < 5; i += 1) {
      const ms = await page.evaluate(
        (n) =>
          new Promise((resolve) => {
            const input = document.querySelector('form[aria-label="Add to the log"] input[name="text"]');
            const from = performance.now();
            const table = document.querySelector('[aria-label="Log"]');
            const seen = new MutationObserver(() => {
              if (!table.textContent.includes(`line ${n} of`)) return;
              seen.disconnect();
              requestAnimationFrame(() => resolve(performance.now() - from));
            });
            seen.observe(table, { childList: true, subtree: true, characterData: true });
            const set = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(input), 'value').set;
            set.call(input, `line ${n} of five`);
            input.dispatchEvent(new Event('input', { bubbles: true }));
            requestAnimationFrame(() => input.form?.requestSubmit());
          }),
        i,
      );
      acts.push(Math.round(ms));
      await page.waitForTimeout(700);
    }
  });
  console.log(
    `  an act on the screen (a line of the log): ${acts.join(', ')} ms (aim 100); ${words(during)}`,
  );

  const opening = await longTasks(page, async () => {
    await page.getByRole('button', { name: 'Find anything' }).click();
    await page.waitForTimeout(1500);
  });
  const typing = await longTasks(page, async () => {
    await page.keyboard.type('Thing 42', { delay: 60 });
    await page.waitForTimeout(800);
  });
  console.log(`  Find opened: ${words(opening)}; typed into: ${words(typing)} (aim: none while typing)`);

  // Thousands of rows by the wheel: how far apart the frames are.
  await page.goto(`${address}/shelf?view=As a table`);
  await page.getByRole('grid', { name: 'Shelf' }).waitFor();
  await page.waitForTimeout(1500);
  await page.mouse.move(600, 550);
  await page.evaluate(() => {
    globalThis.frames = [];
    let last = performance.now();
    const tick = (now) => {
      globalThis.frames.push(now - last);
      last = now;
      globalThis.ticking = requestAnimationFrame(tick);
    };
    globalThis.ticking = requestAnimationFrame(tick);
  });
  const scrolling = await longTasks(page, async () => {
    for (let i = 0; i < 60; i += 1) {
      await page.mouse.wheel(0, 400);
      await page.waitForTimeout(30);
    }
  });
  const gaps = await page.evaluate(() => {
    globalThis.cancelAnimationFrame(globalThis.ticking);
    return globalThis.frames.slice(2).sort((a, b) => a - b);
  });
  const at = (share) => gaps[Math.floor(share * (gaps.length - 1))]?.toFixed(0);
  console.log(
    `  ${MACHINES + THINGS} rows scrolled by the wheel: frames ${at(0.5)} ms apart, 95 of 100 within ${at(0.95)} ms, ${words(scrolling)} (aim: no long task)`,
  );
  await context.close();
}
