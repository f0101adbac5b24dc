import { readFileSync } from 'node:fs';
import { axe, expect, headline, kept, status, test } from './fixtures';

test('the drive of a system is laid out: chosen, sized, by schools, a little smaller, saved, and each undone', async ({
  page,
  open,
}) => {
  await open('/box/film-night/install');
  await expect(headline(page)).toHaveText('The system goes on “Loose SSD”');
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
  await page.getByRole('button', { name: 'Save the layout as a script' }).click();
  const script = readFileSync(await (await saved).path(), 'utf8');
  expect(script).toMatch(/^#!\/bin\/sh\n/);
  expect(script).toMatch(/^label: gpt$/m);
  expect(script.match(/ : start=/g)).toHaveLength(6);

  // It is kept, and one undo takes the last of it back.
  await page.reload();
  await expect(parts.getByRole('row')).toHaveCount(7);
  await page.keyboard.press('Control+z');
  await expect(status(page)).toContainText('4 MiB');
  await expect(page.getByText('are left free at the end now', { exact: false })).toHaveCount(0);
});

test('a border is moved by keys and by hand; what it would become is shown while it is held, and one undo takes it back', async ({
  page,
  open,
}) => {
  await open('/box/film-night/install');
  await page.getByRole('radio', { name: /^Loose SSD/ }).check({ force: true });
  const row = page.getByRole('table', { name: 'Parts' }).getByRole('row', { name: /^system/ });
  const border = page.getByRole('slider', { name: 'Border of system and film' });
  await expect(row).toContainText('16384 MB');
  await border.focus();
  await page.keyboard.press('ArrowDown');
  await expect(row).toContainText('17408 MB');
  await page.keyboard.press('PageDown');
  await expect(row).toContainText('27648 MB');
  await page.keyboard.press('End');
  await expect(border).toHaveAttribute('aria-valuenow', String(await border.getAttribute('aria-valuemax')));
  await page.keyboard.press('Home');
  const least = Number(await border.getAttribute('aria-valuemin'));
  await expect(border).toHaveAttribute('aria-valuenow', String(Math.ceil(least / 2 ** 20) * 2 ** 20));

  const box = await border.boundingBox();
  if (!box) throw new Error('no border');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 50, { steps: 5 });
  await expect(row).not.toContainText('7630 MB');
  const shown = await row.innerText();
  await page.mouse.up();
  await expect(row).toHaveText(shown.replace(/\s+/g, ' '), { useInnerText: true });
  await expect(status(page)).toContainText('Border of system moved');
  await page.keyboard.press('Control+z');
  await expect(border).toHaveAttribute('aria-valuenow', String(Math.ceil(least / 2 ** 20) * 2 ** 20));
  await axe(page);
});

test('an image that is written as it is, and a box without a machine, say so', async ({ page, open }) => {
  await open('/box/games-corner/install');
  await expect(headline(page)).toContainText('as it is');
  await open('/box/tea-room-music/install');
  await expect(page.getByText('Take one at Survey', { exact: false })).toBeVisible();
});

test(
  'a second system goes beside what is there: kept, made smaller, told step by step, and the drive may be kept',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/shelf/loose-480');
    await page.getByText('From what a tool prints of its table').click();
    await page.getByLabel('What sfdisk, lsblk').fill(
      JSON.stringify({
        blockdevices: [
          {
            name: 'sda',
            type: 'disk',
            size: 480103981056,
            pttype: 'gpt',
            children: [
              {
                name: 'sda1',
                type: 'part',
                start: 2048,
                size: 429496729600,
                fstype: 'ext4',
                label: 'OLD',
                parttype: '0FC63DAF-8483-4772-8E79-3D69D8477DE4',
              },
            ],
          },
        ],
      }),
    );
    await page.getByRole('button', { name: 'Take the parts over' }).click();
    await page.getByRole('radio', { name: /^keep/i }).check({ force: true });
    await page.getByRole('button', { name: 'Save' }).click();
    await kept(page);

    await open('/box/film-night/install');
    await expect(
      page.getByText('is to be kept, so nothing is planned over it', { exact: false }),
    ).toBeVisible();
    await page.getByRole('radio', { name: /^It stays/ }).check({ force: true });
    const parts = page.getByRole('table', { name: 'Parts', exact: true });
    await expect(parts.getByRole('row', { name: /^system/ })).toBeVisible();
    const smaller = page.getByRole('textbox', { name: 'OLD, made smaller to' });
    await expect(smaller).toHaveValue('200 GiB');
    await smaller.fill('100 GiB');
    await smaller.press('Enter');
    await expect(parts.getByRole('row', { name: /OLD/ })).toContainText('100 GiB');
    await axe(page);
    await page.getByText('Step by step at the installer').click();
    const steps = page.getByRole('list', { name: 'Steps at the installer' });
    await expect(steps).toContainText('OLD');
    await page.getByRole('radio', { name: 'typed commands' }).check({ force: true });
    await expect(steps).toContainText('run it with sh as root');
    await page.getByRole('checkbox', { name: 'OLD' }).click({ force: true });
    await expect(
      page.getByText('is to be kept, so nothing is planned over it', { exact: false }),
    ).toBeVisible();
  },
);
