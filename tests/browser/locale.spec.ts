import type { Page } from '@playwright/test';
import { expect, kept, test } from './fixtures';

/** Half an hour off the hour, and a day ahead of UTC for most of it; a place that writes “1.000,5”. */
test.use({ locale: 'de-DE', timezoneId: 'Pacific/Chatham' });

/** What the platform's own calendar says of a moment, in the field order of the log. */
const local = (page: Page, iso: string): Promise<string> =>
  page.evaluate((at) => {
    const of = (options: Intl.DateTimeFormatOptions): string =>
      new Intl.DateTimeFormat('en-GB', { timeZone: 'Pacific/Chatham', ...options }).format(new Date(at));
    const year =
      of({ year: 'numeric' }) ===
      new Intl.DateTimeFormat('en-GB', { timeZone: 'Pacific/Chatham', year: 'numeric' }).format(new Date())
        ? ''
        : ` ${of({ year: 'numeric' })}`;
    return `${of({ day: 'numeric' })} ${of({ month: 'short' }).slice(0, 3)}${year} ${of({ hour: '2-digit', minute: '2-digit', hour12: false })}`;
  }, iso);

test(
  'in another zone and locale: local time in the log, money and sizes as they are everywhere',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/box/archive/keep');
    const before = new Date().toISOString();
    await page.getByLabel('Text').fill('by the clock of the island');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    const row = page.getByRole('row', { name: /by the clock of the island/ });
    await expect(row).toBeVisible();
    const after = new Date().toISOString();
    const shown = [await local(page, before), await local(page, after)];
    const text = (await row.textContent()) ?? '';
    expect(shown.some((s) => text.includes(s))).toBe(true);
    await kept(page);

    await open('/match');
    await page.getByRole('button', { name: /Weights and money/ }).click();
    await page.getByLabel('To spend on all boxes').fill('1234,5');
    await page.getByLabel('Currency behind amounts (may be empty)').fill('kr');
    await page.getByRole('button', { name: 'Save and solve again' }).click();
    await expect(page.locator('main')).toContainText('1\u202f234.50\u00a0kr to spend');

    await open('/shelf/grey');
    const size = page.getByLabel('Size', { exact: true });
    await size.fill('1,000 GB');
    await expect(page.locator('main')).toContainText('1\u202f000\u202f000\u202f000\u202f000 bytes');
    await size.fill('1.000,5 GB');
    await expect(page.locator('main')).toContainText('1\u202f000\u202f500\u202f000\u202f000 bytes');
  },
);
