import { axe, expect, headline, status, test } from './fixtures';

const NIGHT = '/box/film-night/install/rehearsal';

test('a wrong plan is shown how it goes wrong, mended by its smallest set, and undone', async ({
  page,
  open,
}) => {
  await open(NIGHT);
  await expect(headline(page)).toContainText('“Scans drive”');
  const reel = page.getByRole('list', { name: 'The scenario that is told' });
  await expect(reel.getByRole('listitem')).toHaveCount(4);
  await expect(reel.getByRole('listitem').last().getByRole('img')).toHaveAccessibleName(
    /Scans drive: erased/,
  );
  await expect(page.getByRole('heading', { name: 'What can vary' })).toBeVisible();
  await axe(page);

  // Arrow keys wind the reel and do not leave the stop.
  await reel.getByRole('listitem').first().focus();
  await page.keyboard.press('ArrowRight');
  await expect(reel.getByRole('listitem').nth(1)).toBeFocused();
  expect(page.url()).toContain(NIGHT);

  await page.getByRole('button', { name: /^Take it: Choose by serial/ }).click();
  await expect(headline(page)).toContainText('Nothing that matters is lost');
  await expect(page.getByRole('checkbox', { name: /^Choose by serial/ })).toBeChecked();
  await axe(page);
  // Another way for scenarios to end is told as well.
  await page.getByRole('radio', { name: /The right system starts/ }).check({ force: true });
  await expect(reel.getByRole('listitem').last().getByRole('img')).toHaveAccessibleName(/Scans drive: there/);
  await page.getByRole('radio', { name: 'right at once' }).check({ force: true });
  await page.getByRole('button', { name: /^Take it: Choose by serial, .* \+ / }).click();
  await expect(headline(page)).toContainText('Every scenario ends right');
  await page.keyboard.press('ControlOrMeta+z');
  await expect(headline(page)).toContainText('may have to be done again');
});

test(
  'precautions are switched by keys and by pointer; what is left out is not reckoned with',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open(NIGHT);
    await expect(headline(page)).toContainText('“Scans drive”');
    const unplug = page.getByRole('checkbox', { name: /^Unplug “Scans drive”/ });
    await page.keyboard.press('1');
    await expect(unplug).toBeChecked();
    await expect(headline(page)).toContainText('Nothing that matters is lost');
    await page.keyboard.press('1');
    await expect(unplug).not.toBeChecked();
    await expect(headline(page)).toContainText('“Scans drive”');
    for (const words of [
      'Choose by serial, not by place',
      'Read the list aloud before yes',
      'Copy “Scans drive” away first',
    ])
      await page.getByRole('button', { name: `Leave out: ${words}` }).click();
    const sets = page.getByRole('group', { name: 'Smallest sets' });
    await expect(sets.getByRole('button', { name: /^Take it: / })).toHaveCount(1);
    await page.getByRole('button', { name: 'Leave out: Unplug “Scans drive”' }).click();
    await expect(sets.getByText('No set of precautions does it', { exact: false })).toBeVisible();
    await sets.getByRole('button', { name: 'Tell that world' }).click();
    await expect(page.getByRole('heading', { name: /a drive to keep is erased/ })).toBeVisible();
    await page.getByRole('button', { name: 'Consider again: Unplug “Scans drive”' }).click();
    await expect(sets.getByRole('button', { name: /^Take it: Unplug/ })).toBeVisible();
  },
);

test(
  'the stop is signed off only for a reason while a world loses a drive, and freely once none does',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open(NIGHT);
    await expect(headline(page)).toContainText('“Scans drive”');
    const sign = page.getByRole('button', { name: /^Sign off/ });
    await sign.click();
    const dialog = page.getByRole('alertdialog').or(page.getByRole('dialog'));
    await expect(dialog).toContainText('Scans drive');
    await page.keyboard.press('Escape');
    await page.getByRole('checkbox', { name: /^Unplug “Scans drive”/ }).check({ force: true });
    await expect(status(page)).toContainText('taken');
    await sign.click();
    await expect(page).toHaveURL(/first-start$/);
  },
);

test.describe('by touch, on a phone', () => {
  test.use({ hasTouch: true, viewport: { width: 390, height: 844 } });
  test(
    'a plan is mended, and one without a drive says where to go on',
    { tag: '@whole' },
    async ({ page, open }) => {
      await open(NIGHT);
      await expect(headline(page)).toContainText('“Scans drive”');
      await page.getByText('Unplug “Scans drive”').last().tap();
      await expect(headline(page)).toContainText('Nothing that matters is lost');
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
      await axe(page);
      await open('/box/games-corner/install/rehearsal');
      await expect(page.getByText('Nobody has said which drive', { exact: false })).toBeVisible();
      await page.getByRole('link', { name: 'Decide it' }).tap();
      await expect(page).toHaveURL(/install$/);
    },
  );
});

test(
  'the archive is rehearsed by keys alone, until every scenario ends right',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/box/archive/install/rehearsal');
    await expect(headline(page)).toContainText('Nothing that matters is lost');
    const on = async (words: RegExp): Promise<void> => {
      const box = page.getByRole('checkbox', { name: words });
      await box.focus();
      await page.keyboard.press('Space');
      await expect(box).toBeChecked();
    };
    for (const words of [/^Read the list/, /^Try the menu key/, /^Stay, and take/, /^Secure the power/])
      await on(words);
    await expect(headline(page)).toContainText('Every scenario ends right');
    await expect(page.getByRole('group', { name: 'Smallest sets' })).toContainText('taken');
  },
);

test('a box made by hand is laid out, rehearsed and signed off', async ({ page, open }) => {
  await open('/shelf');
  await page.getByRole('link', { name: 'New box' }).click();
  await page.getByLabel('Name of the box').fill('Counter');
  await page.getByLabel('Purpose').selectOption('virtual machines');
  await page.getByLabel('Machine', { exact: true }).selectOption('clerk');
  await page.getByRole('button', { name: 'Open the box' }).click();
  await expect(page).toHaveURL(/\/survey$|\/choose$/);
  const box = /box\/([^/]+)\//.exec(page.url())?.[1] ?? '';
  await open(`/box/${box}/choose`);
  await page
    .getByRole('button', { name: /^Choose Quayside Host/ })
    .first()
    .click();
  await expect(status(page)).toContainText('Quayside Host');
  await open(`/box/${box}/install`);
  // Its installer lays the drive out by itself; a school has it planned by hand.
  await page.getByRole('radio', { name: /^One system part/ }).check({ force: true });
  await expect(headline(page)).toContainText('Clerk’s inside drive');
  await page.getByRole('radio', { name: 'Rehearsal' }).check({ force: true });
  await expect(headline(page)).toContainText('may have to be done again');
  await page
    .getByRole('button', { name: /^Take it: / })
    .first()
    .click();
  await expect(headline(page)).toContainText('Every scenario ends right');
  await page.getByRole('button', { name: /^Sign off/ }).click();
  await expect(page).toHaveURL(/first-start$/);
});

test(
  'the machine is opened step by step, its screws counted and a photograph marked',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/box/film-night/install/opening');
    await expect(headline(page)).toContainText('“Loose SSD” in');
    await page.getByRole('radio', { name: 'Rehearsal' }).check({ force: true });
    await page.getByRole('checkbox', { name: /^Unplug “Scans drive”/ }).check({ force: true });
    await expect(status(page)).toContainText('taken');
    await page.getByRole('radio', { name: 'Opening' }).check({ force: true });
    await expect(headline(page)).toContainText('“Scans drive” out');
    await expect(headline(page)).toContainText('“Loose SSD” in');
    const left = async (): Promise<number> =>
      Number(/about (\d+) min/.exec((await headline(page).textContent()) ?? '')?.[1]);
    const whole = await left();
    await page.getByRole('checkbox', { name: /^Power off/ }).check({ force: true });
    await expect.poll(left).toBe(whole - 1);
    await page.getByLabel('Hole').fill('corners');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'corners: one more out' }).click();
    await page.getByRole('button', { name: 'corners: one more back' }).click();
    await page.getByRole('button', { name: 'corners: one more back' }).click();
    await expect(page.getByRole('checkbox', { name: /^Cover on/ })).toBeChecked();
    await page.getByLabel('Add a photo').setInputFiles({
      name: 'inside.png',
      mimeType: 'image/png',
      buffer: Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAoAAAAKCAIAAAACUFjqAAAAEklEQVR4nGP4z8CAB+GTG8HSALfKY52fTcuYAAAAAElFTkSuQmCC',
        'base64',
      ),
    });
    const marks = page.getByRole('group', { name: /^Marks on/ });
    await marks.getByRole('button', { name: 'Add a mark' }).click();
    await marks.getByRole('textbox', { name: 'Mark 1' }).fill('data plug');
    await page.keyboard.press('Tab');
    const mark = marks.getByRole('button', { name: /^Mark 1: data plug/ });
    const before = (await mark.boundingBox())?.x ?? 0;
    await mark.focus();
    await page.keyboard.press('ArrowRight');
    await expect.poll(async () => (await mark.boundingBox())?.x ?? 0).toBeGreaterThan(before);
    await axe(page);
  },
);
