import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { axe, depotFile, expect, headline, kept, test } from './fixtures';

const LANTERN = 'lantern-arcade-7.2-x64.img';

// The first stick must not be done before the second is asked for, however busy the machine is.
test.use({ pace: '1' });

test(
  'two sticks on one port take turns, a reload finds both, and a liar is found by its size',
  { tag: '@whole' },
  async ({ page, open, server, scratch }) => {
    const lantern = await depotFile(server, scratch, LANTERN);
    const packed = join(scratch, 'lantern.img.gz');
    writeFileSync(packed, gzipSync(readFileSync(lantern), { level: 1 }));
    await open('/box/games-corner/verify');
    await page.getByLabel('Image file').setInputFiles(packed);
    await expect(page.getByText(/Inside is one image/)).toBeVisible({ timeout: 20_000 });
    await expect(page.getByRole('region', { name: 'For Gull' })).toContainText('copy the whole image');
    await page.getByRole('button', { name: 'Sign off and choose a stick' }).click();
    const start = async (name: RegExp, tail: string): Promise<void> => {
      await page.getByRole('radio', { name }).check({ force: true });
      await page.getByLabel('Last four of the serial').fill(tail);
      await page.getByRole('button', { name: 'Write and compare' }).click();
    };
    await page.getByRole('radio', { name: /Market stick/ }).check({ force: true });
    await page.getByRole('button', { name: 'Probe its real size' }).click();
    await expect(page.getByText(/holds 6.00 MiB: what is written beyond is lost/)).toBeVisible();
    await expect(page.getByRole('row', { name: /Market stick/ })).toContainText('lies about its capacity');
    await page.getByRole('radio', { name: /Red stick/ }).check({ force: true });
    await page.getByText(/^Foretold/).click();
    await expect(page.getByText(/slowest link is USB 2: 53.2 MB\/s at most/)).toBeVisible();
    await page.getByText(/^Why 16.0 GB is 14.9 GiB/).click();
    await expect(page.getByText(/Nothing is missing/)).toBeVisible();
    await axe(page);
    await start(/Red stick/, '91AF');
    await expect(page.getByRole('group', { name: /Write to Red stick/ })).toBeVisible();
    await start(/Blue stick/, '7C20');
    await expect(headline(page)).toHaveText('Writing lantern.img.gz to 2 sticks; leave them in');
    await expect(page.getByRole('group', { name: /Write to Blue stick/ })).toContainText(
      'Waiting for its turn',
    );
    await axe(page);
    await kept(page);
    await page.reload();
    // Under way still, or over by now: the page knows of both without having been told before.
    await expect(headline(page)).toContainText('lantern.img.gz');
    await expect(page.locator('[data-part="stamp"]', { hasText: 'PROVEN' })).toBeVisible({ timeout: 30_000 });
    await expect(page.getByRole('row', { name: /Red stick/ })).toContainText('written and proven');
    await expect(page.getByRole('row', { name: /Blue stick/ })).toContainText('written and proven');
  },
);
