import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import {
  axe,
  depotFile,
  expect,
  headline,
  servesItself,
  startServer,
  status,
  test,
  verifyLantern,
  kept,
} from './fixtures';

async function writeTo(page: Page, stick: RegExp, tail: string): Promise<void> {
  await page.getByRole('radio', { name: stick }).check({ force: true });
  await page.getByLabel('Last four of the serial').fill(tail);
  await page.getByRole('button', { name: 'Write and compare' }).click();
}

test('each fault is found, explained and never called a success', async ({ page, open }) => {
  // Three writes, each to its end.
  test.setTimeout(90_000);
  await verifyLantern(page, open);
  await open('/box/games-corner/write');
  const cases: [stick: RegExp, tail: string, fault: string | null, words: RegExp][] = [
    [/Market stick/, 'F00D', null, /claims more than it has/],
    [/Grey stick/, '05D3', 'has a weak place', /weak place/],
    [/Red stick/, '91AF', 'is pulled out half-way', /went away after/],
  ];
  for (const [stick, tail, fault, words] of cases) {
    await page.getByRole('radio', { name: stick }).check({ force: true });
    if (fault) await page.getByLabel(/Practise a fault/).selectOption(fault);
    await writeTo(page, stick, tail);
    await expect(page.locator('[data-part^="said"]', { hasText: `…${tail}` })).toContainText(words, {
      timeout: 20_000,
    });
    await expect(page.locator('[data-part="stamp"]', { hasText: 'FAILED' })).toBeVisible();
    await expect(page.locator('[data-part="stamp"]', { hasText: 'PROVEN' })).toHaveCount(0);
    await expect(headline(page)).toHaveText(`Stick …${tail} does not hold a whole image`);
    await expect(page.locator('aside')).toContainText(`Stick …${tail} failed its comparison`);
  }
  await axe(page);
  await open('/shelf/market');
  await expect(page.getByText(/really holds about/).first()).toBeVisible();
  await open('/box/games-corner/write');
  await expect(page.getByRole('row', { name: /Market stick/ })).toContainText('lies about its capacity');
  await expect(page.getByRole('radio', { name: /Market stick/ })).toBeDisabled();
  await open('/logbook');
  await expect(page.getByRole('row', { name: /FAILED/ })).toHaveCount(3);
});

test('the guard: what matters, what is too small, what cannot be told apart', async ({ page, open }) => {
  await verifyLantern(page, open);
  await open('/box/games-corner/write');
  await expect(page.getByRole('radio', { name: /Scans stick/ })).toBeDisabled();
  // The server still knows the writes of the test before; they belong to another bench and are not taken for this one's.
  await expect(page.locator('[data-part="stamp"]')).toHaveCount(0);
  await expect(headline(page)).toHaveText('Which stick may be lost?');
  await expect(page.getByRole('row', { name: /Scans stick/ })).toContainText('marked to keep');
  await expect(page.getByRole('row', { name: /16 MB stick/ })).toContainText(/16.777.216 bytes/);
  await expect(page.getByRole('row', { name: /hub, place 1/ })).toContainText('same size and serial');
  for (const name of [/16 MB stick/, /hub, place 1/, /hub, place 2/])
    await expect(page.getByRole('radio', { name })).toBeDisabled();
});

test('a write can be cancelled, and a reload in the middle finds it again', async ({ page, open }) => {
  const dir = mkdtempSync(join(tmpdir(), 'zb-slow-'));
  // So slow that a machine under load has reloaded long before the end.
  const slow = await startServer(dir, '0', '0.15');
  try {
    await kept(page);
    await page.goto(`${slow.address}/box/games-corner/verify`);
    await page.getByRole('button', { name: 'Fetch lantern-arcade-7.2-x64.img' }).click();
    await expect(page.getByText('SAME FILE')).toBeVisible();
    await kept(page);
    await page.goto(`${slow.address}/box/games-corner/write`);
    await writeTo(page, /Blue stick/, '7C20');
    await expect(page.getByRole('progressbar', { name: 'Written' })).toBeVisible();
    await kept(page);
    await page.reload();
    await expect(headline(page)).toContainText('leave the stick in');
    await page.getByRole('button', { name: 'Cancel the write' }).click();
    await expect(page.locator('[data-part="stamp"]', { hasText: 'CANCELLED' })).toBeVisible();
    await expect(page.getByText(/holds part of an image: do not start from it/).first()).toBeVisible();
    await kept(page);
    await page.goto(`${slow.address}/box/games-corner/keep`);
    await expect(page.getByRole('row', { name: /cancelled after/ })).toHaveCount(1);
  } finally {
    await slow.stop();
    rmSync(dir, { recursive: true, force: true });
  }
  void open;
});

test.describe('without the server', () => {
  // The application has itself at hand, as it has for people.
  test.use({ serviceWorkers: 'allow' });
  test(
    'the server gone and back: said plainly, nothing of the bench lost, the write known as interrupted',
    { tag: '@whole' },
    async ({ page, faults }) => {
      test.setTimeout(90_000);
      const dir = mkdtempSync(join(tmpdir(), 'zb-gone-'));
      const first = await startServer(dir, '0', '0.3');
      const port = new URL(first.address).port;
      try {
        await kept(page);
        await page.goto(`${first.address}/box/games-corner/verify`);
        await page.getByRole('button', { name: 'Fetch lantern-arcade-7.2-x64.img' }).click();
        await expect(page.getByText('SAME FILE')).toBeVisible();
        await page.getByRole('button', { name: 'Sign off and choose a stick' }).click();
        await page.waitForLoadState('networkidle');
        await servesItself(page);
        await writeTo(page, /Blue stick/, '7C20');
        await expect(page.getByRole('progressbar', { name: 'Written' })).toHaveAttribute(
          'aria-valuenow',
          /[1-9]/,
        );
        await first.stop();
        await expect(
          page.getByText(/The line to the writer is broken|does not answer/).first(),
        ).toBeVisible();
        // The bench goes on without the server.
        await page.getByRole('link', { name: /Stop 12, Keep/ }).click();
        await page.getByLabel('Text').fill('The power went out');
        await page.getByRole('button', { name: 'Add', exact: true }).click();
        await expect(page.getByRole('row', { name: /The power went out/ })).toBeVisible();
        const second = await startServer(dir, port, '0.3');
        try {
          await kept(page);
          await page.goto(`${first.address}/box/games-corner/write`);
          await expect(page.locator('[data-part="stamp"]', { hasText: 'INTERRUPTED' })).toBeVisible();
          await expect(page.getByText(/The writer stopped after/).first()).toBeVisible();
          await kept(page);
          await page.goto(`${first.address}/box/games-corner/keep`);
          await expect(page.getByRole('row', { name: /The power went out/ })).toBeVisible();
        } finally {
          await second.stop();
        }
      } finally {
        rmSync(dir, { recursive: true, force: true });
      }
      faults.splice(
        0,
        faults.length,
        ...faults.filter((f) => !/ERR_CONNECTION|ERR_INCOMPLETE|Failed to fetch/.test(f)),
      );
    },
  );
});

test(
  'a file of one’s own is written; after a reload the page asks for it again and refuses another',
  { tag: '@whole' },
  async ({ page, open, server, scratch }) => {
    const image = await depotFile(server, scratch, 'millpond-tunes-4-legacy.img', 'mine.img');
    const other = await depotFile(server, scratch, 'tidegate-3-x64.img', 'other.img');
    await open('/box/film-night/verify');
    await page.getByLabel('Image file').setInputFiles(image);
    await expect(status(page)).toContainText('mine.img checked');
    await expect(page.getByRole('link', { name: 'Image room' })).toBeVisible();
    await open('/box/film-night/write');
    await page.getByRole('radio', { name: /Grey stick/ }).check({ force: true });
    await page.getByLabel(/Practise a fault/).selectOption('none');
    await page.getByLabel('Open mine.img again').setInputFiles(other);
    await expect(page.getByRole('alert')).toContainText('another file');
    await page.getByLabel('Open mine.img again').setInputFiles(image);
    await writeTo(page, /Grey stick/, '05D3');
    await expect(page.locator('[data-part="stamp"]', { hasText: 'PROVEN' })).toBeVisible({ timeout: 20_000 });
  },
);

test('a stick from the shelf can be plugged in', { tag: '@whole' }, async ({ page, open }) => {
  await verifyLantern(page, open);
  await open('/shelf');
  await page.getByRole('button', { name: 'Add something else' }).click();
  await page.getByRole('menuitem', { name: 'Stick' }).click();
  await page.getByLabel('Name').fill('Lent stick');
  await page.getByLabel('Serial').fill('LENT-0815');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(status(page)).toContainText('saved');
  await open('/box/games-corner/write');
  await page.getByLabel('Plug in another stick').selectOption({ label: 'Lent stick, 14.9 GiB' });
  // What nobody has decided about stops the write; it is decided in place.
  const row = page.getByRole('row', { name: /Lent stick/ });
  await expect(row).toContainText('not decided');
  await expect(row.getByRole('radio')).toBeDisabled();
  await row.getByRole('button', { name: 'It may be lost' }).click();
  await writeTo(page, /Lent stick/, '0815');
  await expect(page.locator('[data-part="stamp"]', { hasText: 'PROVEN' })).toBeVisible({ timeout: 20_000 });
});
