import { cpSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { axe, expect, headline, kept, startServer, status, takeByKeys, test } from './fixtures';

test('nothing typed after / is lost, however fast', async ({ page, open }) => {
  await open('/shelf');
  await page.keyboard.type('/7C20');
  const line = page.getByRole('combobox', { name: /Find anything/ });
  await expect(line).toHaveValue('7C20');
  await expect(page).toHaveURL(/shelf$/);
  await page.keyboard.press('Enter');
  await expect(headline(page)).toContainText('Blue stick');
});

test(
  'single letters are switched off on the sheet of keys, and stay off',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/shelf');
    await page.keyboard.press('?');
    const sheet = page.getByRole('dialog', { name: 'Keys on this screen' });
    await expect(sheet.getByRole('row', { name: /to Match/ })).toBeVisible();
    await sheet.getByText('Single letters and signs are shortcuts').click();
    await expect(sheet.getByRole('row', { name: /to Match/ })).toHaveCount(0);
    await expect(sheet.getByRole('row', { name: /take the last act back/ })).toBeVisible();
    await page.keyboard.press('Escape');
    await page.keyboard.press('m');
    await page.reload();
    await expect(headline(page)).toBeVisible();
    await page.keyboard.press('m');
    await expect(page).toHaveURL(/shelf$/);
  },
);

test('what was typed and not saved is asked about, survives a look elsewhere and a reload, and is said not to be saved', async ({
  page,
  open,
}) => {
  await open('/box/new');
  await page.getByLabel('Name of the box').fill('Chapel slides');
  await page.getByRole('link', { name: 'Match' }).click();
  const asked = page.getByRole('dialog', { name: 'Not saved yet' });
  await expect(asked).toBeVisible();
  await axe(page);
  await asked.getByRole('button', { name: 'Stay here' }).click();
  await expect(page).toHaveURL(/box\/new$/);
  await page.getByRole('link', { name: 'Match' }).click();
  await asked.getByRole('button', { name: 'Go, and keep it as a draft' }).click();
  await expect(page).toHaveURL(/match$/);
  await expect(headline(page)).toContainText('wishes');
  await page.getByRole('link', { name: 'New box' }).click();
  await expect(page.getByLabel('Name of the box')).toHaveValue('Chapel slides');
  await page.reload();
  await expect(page.getByLabel('Name of the box')).toHaveValue('Chapel slides');
  await expect(page.getByText('not saved yet')).toBeVisible();
  await page.getByRole('button', { name: 'Open the box' }).click();
  await expect(headline(page)).toContainText('Which machine');
  await page.getByRole('link', { name: 'New box' }).click();
  await expect(page.getByLabel('Name of the box')).toHaveValue('');
});

const inside = (page: Page, machine: string) => page.getByRole('list', { name: `In ${machine}` });

test(
  'a drive goes into a machine by hand, by keys and by its menu; several at once from the table',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/shelf');
    const loose = page.getByRole('list', { name: 'Loose on the shelf' });
    // By its menu.
    await loose.getByRole('button', { name: 'Put Loose SSD into…' }).click();
    await page.getByRole('menuitem', { name: 'Clerk' }).click();
    await expect(status(page)).toHaveText('“Loose SSD” put into Clerk');
    await expect(inside(page, 'Clerk')).toContainText('Loose SSD');
    // By hand, from one machine to the next.
    const handle = page.getByRole('button', { name: 'Take Loose SSD elsewhere' });
    await page.getByRole('link', { name: 'Grandfather', exact: true }).last().scrollIntoViewIfNeeded();
    const from = await handle.boundingBox();
    const to = await page.getByRole('link', { name: 'Grandfather', exact: true }).last().boundingBox();
    if (!from || !to) throw new Error('nothing to take hold of');
    await page.mouse.move(from.x + 8, from.y + 8);
    await page.mouse.down();
    await page.mouse.move(from.x + 30, from.y + 20, { steps: 4 });
    await page.mouse.move(to.x + 20, to.y + 10, { steps: 8 });
    await expect(page.getByText('Loose SSD over Grandfather')).toBeAttached();
    await page.mouse.up();
    await expect(inside(page, 'Grandfather')).toContainText('Loose SSD');
    // By keys: taken, one place back, put there.
    await takeByKeys(page, handle, 'Loose SSD over Grandfather');
    await page.keyboard.press('ArrowLeft');
    await expect(page.getByText('Loose SSD over Clerk')).toBeAttached();
    await page.keyboard.press('Space');
    await expect(inside(page, 'Clerk')).toContainText('Loose SSD');
    await axe(page);
    // Several at once.
    await page.getByText('As a table').click();
    await page.getByLabel('Find in shelf').fill('Oak mirror');
    const grid = page.getByRole('grid', { name: 'Shelf' });
    for (const row of [1, 2]) await grid.getByLabel(`Choose row ${row}`).check({ force: true });
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(status(page)).toHaveText('2 things: marked to keep');
    await expect(grid.getByText('keep')).toHaveCount(2);
    await axe(page);
    await page.getByRole('button', { name: 'Undo the last act' }).click();
    await expect(grid.getByText('keep')).toHaveCount(0);
  },
);

test(
  'wishes are put in order by keys and by menu, and an image is given to a box',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/match');
    await page.getByRole('button', { name: 'Order them' }).click();
    const order = page.getByRole('dialog', { name: 'Which wishes come first?' });
    await order.getByRole('button', { name: 'Rank Tea-room music…' }).click();
    await page.getByRole('menuitem', { name: /^5 of 5/ }).click();
    await expect(order.getByRole('list', { name: '5 of 5' })).toContainText('Tea-room music');
    const handle = order.getByRole('button', { name: 'Take Booking desk elsewhere' });
    await takeByKeys(page, handle, 'Booking desk over 2 of 5');
    await page.keyboard.press('ArrowUp');
    await expect(page.getByText('Booking desk over 3 of 5')).toBeAttached();
    await page.keyboard.press('Space');
    await expect(order.getByRole('list', { name: '3 of 5' })).toContainText('Booking desk');
    // Whoever works by keys goes on from where it is now.
    await expect(handle).toBeFocused();
    await axe(page);
    await kept(page);
    await open('/images');
    await page.getByRole('button', { name: 'Fetch tidegate-3-x64.img' }).click();
    await expect(status(page)).toContainText('checked');
    await open('/images');
    await page.getByRole('button', { name: 'Give tidegate-3-x64.img to a box…' }).click();
    await page.getByRole('menuitem', { name: 'Guest gate' }).click();
    await expect(status(page)).toHaveText('tidegate-3-x64.img taken for “Guest gate”');
    await axe(page);
  },
);

test(
  'a newer version is announced, and taken only when somebody says so: an open form is never dropped',
  { tag: '@whole' },
  async ({ browser, scratch }) => {
    const web = join(scratch, 'web');
    cpSync('packages/web/dist', web, { recursive: true });
    const server = await startServer(scratch, '0', '4', { ZB_WEB: web });
    const context = await browser.newContext({ serviceWorkers: 'allow' });
    try {
      const page = await context.newPage();
      await page.goto(`${server.address}/box/new`);
      await expect(headline(page)).toBeVisible();
      await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
      await page.getByLabel('Name of the box').fill('Half a name');
      // The same build again, with one byte more: to a browser that is another version.
      const worker = join(web, 'sw.js');
      writeFileSync(worker, `${readFileSync(worker, 'utf8')}\n`);
      rmSync(`${worker}.br`);
      await page.evaluate(async () => (await navigator.serviceWorker.ready).update());
      await expect(page.getByText('A newer version of this application is here.')).toBeVisible({
        timeout: 20_000,
      });
      await expect(page.getByLabel('Name of the box')).toHaveValue('Half a name');
      await page.getByRole('button', { name: 'Take it now' }).click();
      await expect(page.getByText('A newer version of this application is here.')).toHaveCount(0, {
        timeout: 20_000,
      });
      // What was typed is a draft by then.
      await expect(page.getByLabel('Name of the box')).toHaveValue('Half a name');
    } finally {
      await context.close();
      await server.stop();
    }
  },
);

test.describe('by touch alone, on a phone', () => {
  test.use({ hasTouch: true, isMobile: true, viewport: { width: 390, height: 844 } });

  test('the games corner from the bench to the logbook', { tag: '@whole' }, async ({ page, open }) => {
    test.setTimeout(90_000);
    await open('/');
    await page.getByRole('link', { name: 'Games corner' }).tap();
    await expect(headline(page)).toContainText('will it start on Gull?');
    await page.getByRole('button', { name: 'Fetch lantern-arcade-7.2-x64.img' }).tap();
    await expect(page.locator('[data-part="stamp"]', { hasText: 'SAME FILE' })).toBeVisible();
    // What the ledger holds stays in sight, and opens.
    const ledger = page.getByRole('button', { name: /^Ledger, 1 Stop/ });
    await ledger.tap();
    await expect(page.getByRole('dialog', { name: 'Ledger' })).toContainText('Gull has Secure Boot on');
    await page.getByRole('dialog', { name: 'Ledger' }).getByRole('button', { name: 'Close' }).tap();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await page.getByRole('button', { name: 'Sign off and choose a stick' }).tap();
    await expect(headline(page)).toHaveText('Which stick may be lost?');
    await page.locator('label', { hasText: 'Blue stick' }).tap();
    await page.getByLabel('Last four of the serial').fill('7C20');
    await page.getByRole('button', { name: 'Write and compare' }).tap();
    await expect(page.locator('[data-part="stamp"]', { hasText: 'PROVEN' })).toBeVisible({ timeout: 20_000 });
    await page.getByRole('button', { name: 'Stop after' }).tap();
    await expect(page).toHaveURL(/firmware$/);
    await page.getByRole('button', { name: 'Correct Secure Boot' }).tap();
    await page.getByLabel(/What does the setup screen say/).selectOption('off');
    await page.getByRole('button', { name: 'I have changed it' }).tap();
    await expect(headline(page)).toContainText('Gull will start');
    await axe(page);
    await page.getByRole('button', { name: 'Areas and boxes' }).tap();
    await page.getByRole('link', { name: 'Logbook' }).tap();
    const line = page.getByRole('row', { name: /written and proven/ }).first();
    await expect(line).toBeVisible();
    await line.getByRole('button').first().tap();
    await expect(page.getByText(/\d\d:\d\d:\d\d GMT/)).toBeVisible();
  });
});
