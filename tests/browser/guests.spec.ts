import { axe, expect, headline, status, takeByKeys, test } from './fixtures';

const HOST = '/box/booking-host/load';

test('a guest too many is told, and the smallest change makes it fit', async ({ page, open }) => {
  await open(HOST);
  await expect(headline(page)).toContainText('4 guests, and 1.78 GiB too little memory');
  await axe(page);
  const change = page.getByRole('region', { name: 'The smallest change' });
  await expect(change).toContainText('booking-trial is left out');
  await expect(change).toContainText('proven');
  await change.getByRole('button', { name: 'Apply the smallest change' }).click();
  await expect(headline(page)).toContainText('3 guests fit');
  await expect(status(page)).toContainText('booking-trial is left out');
  await expect(page.getByRole('complementary')).not.toContainText('Even at their least');
});

test('memory and cores are moved by keys and by pointer, and a disk is taken to another pool', async ({
  page,
  open,
}) => {
  await open(HOST);
  const memory = page.getByRole('slider', { name: 'Memory of booking', exact: true });
  await expect(memory).toHaveAttribute('aria-valuetext', '2.50 GiB');
  await memory.press('ArrowDown');
  await expect(memory).toHaveAttribute('aria-valuetext', '2.38 GiB');
  await memory.press('ArrowUp');
  await expect(memory).toHaveAttribute('aria-valuetext', '2.50 GiB');
  const cores = page.getByRole('slider', { name: 'Cores of weather' });
  await cores.press('ArrowUp');
  await expect(cores).toHaveAttribute('aria-valuetext', '2');
  // By pointer: the border of the topmost guest is pulled down.
  const trial = page.getByRole('slider', { name: 'Memory of booking-trial' });
  const before = await trial.getAttribute('aria-valuenow');
  const at = await trial.boundingBox();
  if (!at) throw new Error('no border');
  await page.mouse.move(at.x + 20, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(at.x + 20, at.y + at.height / 2 + 40, { steps: 5 });
  await page.mouse.up();
  await expect
    .poll(async () => Number(await trial.getAttribute('aria-valuenow')))
    .toBeLessThan(Number(before));

  await page.getByRole('tab', { name: 'The host itself' }).click();
  await page.getByRole('button', { name: 'Another pool' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name', { exact: true }).fill('second drive');
  await dialog.getByLabel('Room').fill('a lot');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toContainText('is not a size');
  await dialog.getByLabel('Room').fill('500 GB');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('tab', { name: 'Guests', exact: true }).click();
  const grip = page.getByRole('button', { name: 'Take the disk of weather elsewhere' });
  await takeByKeys(page, grip, 'over on system drive');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('disk of weather over on second drive')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(status(page)).toContainText('A disk of weather on second drive');
  // The arrow was the disk’s, and not the way to the next stop.
  await expect(page).toHaveURL(new RegExp(`${HOST}$`));
});

test(
  'guests are named with disks, networks and a first boot that holds no password, and written for the host',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open(HOST);
    await page.getByRole('button', { name: 'Another guest' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Name', { exact: true }).fill('the lamp');
    await dialog.getByLabel('Memory', { exact: true }).fill('256 MiB');
    await dialog.getByLabel('Works with at least').fill('half');
    await dialog.getByRole('button', { name: 'another disk' }).click();
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog.getByLabel('Works with at least')).toHaveAttribute('aria-invalid', 'true');
    await dialog.getByLabel('Works with at least').fill('');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog).toContainText('takes letters, digits');
    await dialog.getByLabel('Name', { exact: true }).fill('lamp');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(headline(page)).toContainText('5 guests');
    await axe(page);

    await page.getByRole('button', { name: 'by hand: first boot of lamp' }).click();
    await dialog.getByLabel('Hash of its password').fill('hunter2');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog).toContainText('a password in clear is not kept');
    await dialog.getByLabel('Hash of its password').fill('$6$saltsalt$abcdefghijklmnop');
    await axe(page);
    await dialog.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('button', { name: 'Save for the host' }).click();
    await dialog.getByLabel('File').selectOption('guests/booking.xml');
    await expect(dialog.getByLabel('What is written')).toContainText('<domain type="kvm">');
    await dialog.getByLabel('File').selectOption('seeds/lamp/user-data');
    await expect(dialog.getByLabel('What is written')).toContainText('$6$saltsalt$');
    const saved = page.waitForEvent('download');
    await dialog.getByRole('button', { name: 'Save all of them in one archive' }).click();
    expect((await saved).suggestedFilename()).toBe('booking-host-guests.zip');
  },
);

test(
  'starting up, the host itself and a running host are told',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open(HOST);
    await page.getByRole('tab', { name: 'Starting up' }).click();
    await expect(page.getByRole('table', { name: 'Starting up' })).toContainText('fits');
    await axe(page);
    await page.getByRole('tab', { name: 'The host itself' }).click();
    await expect(page.getByRole('table', { name: 'Releases' })).toContainText('Quayside Host 8');
    await axe(page);
    await page.getByRole('button', { name: 'Note how full it is' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Is used').fill('90 GiB');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog).toContainText('more than the volume holds');
    await dialog.getByLabel('Is used').fill('55 GiB');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('complementary')).toContainText('% full');
    await page.getByRole('button', { name: 'Say it otherwise' }).click();
    await dialog.getByLabel('Sockets').fill('2');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('tab', { name: 'Starting up' }).click();
    await expect(page.getByRole('region', { name: 'Sockets' })).toBeVisible();

    await page.getByRole('button', { name: 'Read a running host' }).click();
    await dialog.getByLabel('What the host prints').fill('nothing of the kind');
    await dialog.getByRole('button', { name: 'Read it' }).click();
    await expect(dialog).toContainText('Nothing of a running host');
    await dialog
      .getByLabel('What the host prints')
      .fill(
        'CPU(s):              8\nMemory size:         16777216 KiB\n\nName:           till\nState:          running\nCPU(s):         2\nMax memory:     4194304 KiB\n',
      );
    await dialog.getByRole('button', { name: 'Read it' }).click();
    await expect(dialog).toContainText('1 guest running');
    await dialog.getByRole('button', { name: 'Take its guests into the plan' }).click();
    await page.getByRole('tab', { name: 'Guests', exact: true }).click();
    await expect(page.getByRole('table', { name: 'Guests' })).toContainText('till');
  },
);
