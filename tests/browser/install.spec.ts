import { readFileSync } from 'node:fs';
import { axe, expect, headline, status, test } from './fixtures';

test('the drive of a system is laid out: chosen, sized, by schools, a little smaller, saved, and each undone', async ({
  page,
  open,
}) => {
  await open('/box/film-night/install');
  await expect(headline(page)).toHaveText('Which drive takes the system?');
  // A drive that is kept is never planned over.
  await page.getByRole('radio', { name: /^Scans drive/ }).check({ force: true });
  await expect(
    page.getByText('is to be kept, so nothing is planned over it', { exact: false }),
  ).toBeVisible();
  await expect(page.getByRole('table', { name: 'Parts' })).toHaveCount(0);

  await page.getByRole('radio', { name: /^Loose SSD/ }).check({ force: true });
  await expect(headline(page)).toContainText('Loose SSD');
  const parts = page.getByRole('table', { name: 'Parts' });
  await expect(parts.getByRole('row')).toHaveCount(4);
  await expect(parts.getByRole('row', { name: /^film/ })).toContainText('the rest');
  await axe(page);

  // Typed in any unit, told in the installer's: 40 000 MB are 38 146 MiB, to whole MiB.
  const system = page.getByRole('textbox', { name: 'system' });
  await system.fill('40000 MB');
  await system.press('Enter');
  await expect(parts.getByRole('row', { name: /^system/ })).toContainText('38147 MB');
  await system.fill('much');
  await system.press('Enter');
  await expect(system).toHaveAttribute('aria-invalid', 'true');
  await expect(parts.getByRole('row', { name: /^system/ })).toContainText('38147 MB');
  await system.press('Escape');

  // Too much of it: what binds, and the nearest.
  await system.fill('900 GiB');
  await system.press('Enter');
  await expect(headline(page)).toContainText('no room for all of it');
  await expect(page.getByText('Below is the nearest that fits', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'the usual ones again' }).click();
  await expect(headline(page)).toContainText('The system goes on');

  await page.getByRole('radio', { name: /^\/var and \/home apart/ }).check({ force: true });
  await page.getByRole('radio', { name: /^equal to memory/ }).check({ force: true });
  await expect(parts.getByRole('row')).toHaveCount(7);
  const rest = parts.getByRole('row', { name: /^film/ });
  await rest.getByRole('button').first().click();
  const full = await page.getByText(/bytes, from byte/).innerText();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'The same, 4 MiB smaller' }).click();
  await expect(page.getByText('are left free at the end now', { exact: false })).toBeVisible();
  await rest.getByRole('button').first().click();
  await expect(page.getByText(/bytes, from byte/)).not.toHaveText(full);
  await page.keyboard.press('Escape');

  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the layout as a file' }).click();
  const script = readFileSync(await (await saved).path(), 'utf8');
  expect(script).toMatch(/^label: gpt\n/);
  expect(script.match(/ : start=/g)).toHaveLength(6);

  // It is kept, and one undo takes the last of it back.
  await page.reload();
  await expect(parts.getByRole('row')).toHaveCount(7);
  await page.keyboard.press('Control+z');
  await expect(status(page)).toContainText('4 MiB');
  await expect(page.getByText('are left free at the end now', { exact: false })).toHaveCount(0);
});

test('an image that is written as it is, and a box without a machine, say so', async ({ page, open }) => {
  await open('/box/games-corner/install');
  await expect(headline(page)).toContainText('as it is');
  await open('/box/tea-room-music/install');
  await expect(page.getByText('Take one at Survey', { exact: false })).toBeVisible();
});
