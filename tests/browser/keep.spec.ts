import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { axe, expect, headline, kept, status, test } from './fixtures';

async function finish(page: Page, open: (path: string) => Promise<void>): Promise<void> {
  for (const stop of ['load', 'tune', 'keep']) {
    await open(`/box/archive/${stop}`);
    await page.keyboard.press('Control+Enter');
    await kept(page);
  }
  await open('/box/archive/keep');
}

test('a finished box: it can be read, what comes round is kept, it is opened with a reason, and at last retired', async ({
  page,
  open,
  scratch,
}) => {
  test.setTimeout(120_000);
  await finish(page, open);
  await expect(page.getByText('Finished.')).toBeVisible();
  await axe(page);
  // Nothing of it is changed by the way.
  await open('/box/archive/choose');
  await expect(page.getByText('Finished.')).toBeVisible();
  await open('/box/archive/keep');
  await page.getByRole('button', { name: 'Rename or remove this box' }).click();
  await page.getByLabel('Name of the box').fill('Another name');
  await page.getByLabel('Name of the box').press('Enter');
  await expect(status(page)).toContainText('Not done');
  await expect(page.locator('nav').getByText('Another name')).toHaveCount(0);

  await page.getByRole('tab', { name: /Comes round/ }).click();
  const update = page.getByRole('row', { name: 'Update Coldstore After' });
  await page.getByRole('button', { name: 'Done today: Update Coldstore' }).click();
  await expect(update).toContainText('in 30 days');
  await page.getByRole('button', { name: 'every 30 days: Update Coldstore' }).click();
  await page.getByLabel('Every so many days').fill('10');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(update).toContainText('in 10 days');
  await axe(page);
  const [calendar] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as a calendar' }).click(),
  ]);
  const ics = join(scratch, 'archive.ics');
  await calendar.saveAs(ics);
  expect(readFileSync(ics, 'utf8')).toContain('RRULE:FREQ=DAILY;INTERVAL=10');
  await page.getByRole('tab', { name: 'Copy or again' }).click();
  await expect(page.getByRole('row', { name: /Do it all again/ })).toBeVisible();

  await page.getByRole('button', { name: 'Open it again' }).click();
  await page.getByLabel('Why it is opened').fill('a second reading room');
  await page.getByRole('button', { name: 'Open it', exact: true }).click();
  await expect(page.getByText('a second reading room.')).toBeVisible();
  await page.getByLabel('Name of the box').fill('Archive of two rooms');
  await page.getByLabel('Name of the box').press('Enter');
  await expect(page.locator('nav').getByText('Archive of two rooms')).toBeVisible();
  await page.getByRole('button', { name: 'Close it' }).click();
  await expect(page.getByText('Finished.')).toBeVisible();

  await page.getByRole('tab', { name: 'Retire' }).click();
  await page.getByLabel('Why it is retired').fill('a larger one took over');
  await page.getByLabel('Where the machine goes').selectOption('given away');
  // What leaves the house is purged by itself; cleared it does not leave.
  await page.getByLabel(/“Oak boot”, …44F0/).selectOption('clear');
  await expect(page.getByText(/could still be read where the machine goes/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Retire / })).toBeDisabled();
  await page.getByLabel(/“Oak boot”, …44F0/).selectOption('purge');
  await axe(page);
  await page.getByRole('button', { name: /^Retire / }).click();
  await expect(headline(page)).toContainText('the box is retired');
  await kept(page);
  await open('/shelf/old-oak');
  await open('/');
  await expect(page.locator('main').getByText('Archive of two rooms')).toHaveCount(0);
});

test(
  'the build sheet: viewed, saved as a page that stands by itself, its label at hand',
  { tag: '@whole' },
  async ({ page, open, scratch }) => {
    await open('/box/archive/keep');
    await page.getByRole('button', { name: 'View it' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByRole('heading', { name: 'How firmware is put back' })).toBeVisible();
    await axe(page);
    const [saved] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save it as a page' }).click(),
    ]);
    const file = join(scratch, 'sheet.html');
    await saved.saveAs(file);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Label', exact: true }).click();
    await expect(page.getByRole('img', { name: /^Label: Archive/ })).toBeVisible();
    await page.goto(`file://${file}`);
    await expect(page.getByRole('heading', { name: 'Archive', exact: true })).toBeVisible();
    await expect(page.getByRole('cell', { name: '10.44.8.20' })).toBeVisible();
  },
);
