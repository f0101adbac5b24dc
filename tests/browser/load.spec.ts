import { mkdirSync, symlinkSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { axe, expect, headline, kept, status, test } from './fixtures';

test('a pool is taken among its ways, its drives told more of, wiped by serial, and its commands saved', async ({
  page,
  open,
}) => {
  await open('/box/archive/load');
  await expect(headline(page)).toHaveText('The pool holds 5.00 TiB and survives any one drive');
  await axe(page);
  // Another manner, another way: the head says what it holds, the log why it was taken.
  await page.getByRole('radio', { name: 'stripes with sums' }).check({ force: true });
  await page.getByRole('button', { name: 'two parities' }).click();
  await expect(headline(page)).toContainText('survives any two drives');
  await expect(status(page)).toContainText('two parities');
  await page.getByRole('button', { name: 'any two drives' }).first().click();
  await expect(page.getByText('2 drives gone: always there')).toBeVisible();
  await page.keyboard.press('Escape');
  // A drive less: the way is reckoned anew, or said not to be there any more.
  await page.getByRole('checkbox', { name: 'Loose disk' }).uncheck({ force: true });
  await expect(headline(page)).not.toContainText('1.69 TiB');
  await page.keyboard.press('ControlOrMeta+z');
  await page.keyboard.press('ControlOrMeta+z');
  await expect(headline(page)).toHaveText('The pool holds 5.00 TiB and survives any one drive');

  // What a data sheet says of a drive.
  const drives = page.getByRole('region', { name: 'Drives' });
  await drives
    .getByRole('row', { name: /Oak mirror A/ })
    .getByRole('button', { name: 'say more' })
    .click();
  await page.getByLabel('Unreadable bits, at most').selectOption('14');
  await page.getByLabel('Worn, per cent').fill('not much');
  await page.getByRole('button', { name: 'Save', exact: true }).last().click();
  await expect(page.getByRole('dialog')).toContainText(/number/);
  await page.getByLabel('Worn, per cent').fill('91');
  await page.getByRole('button', { name: 'Save', exact: true }).last().click();
  await expect(page.getByRole('complementary')).toContainText('“Oak mirror A” is 91 % worn');

  // The boot drive cannot be taken, and a drive with something on it wants its serial typed.
  await expect(drives.getByRole('row', { name: /Oak boot/ }).getByRole('checkbox')).toHaveCount(0);
  await page.getByRole('button', { name: 'Make the pool' }).click();
  const typed = page.getByRole('dialog');
  await expect(typed).toContainText('mkfs.btrfs -L pool -d raid1 -m raid1');
  await expect(typed).toContainText('drive HD40-5521-A001');
  await axe(page);
  const saved = page.waitForEvent('download');
  await typed.getByRole('button', { name: 'Save as a file' }).click();
  expect((await saved).suggestedFilename()).toBe('make-pool.sh');
});

test(
  'what must not be lost is named with its copies, and the hazard goes when the copy is there',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/box/archive/load');
    await page.getByRole('tab', { name: 'What must not be lost' }).click();
    const margin = page.getByRole('complementary');
    await expect(margin).toContainText('All copies of “Parish scans” are in one house');
    await page.getByRole('button', { name: 'Parish scans' }).click();
    await page.getByRole('button', { name: 'another copy' }).click();
    await page.getByLabel('Where exactly').last().fill('the school, in the safe');
    await page.getByLabel('Brought up to date').last().fill('yesterday');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByLabel('Brought up to date').last()).toHaveAttribute('aria-invalid', 'true');
    await page.getByLabel('Brought up to date').last().fill(new Date().toISOString().slice(0, 10));
    await page.getByLabel('Last brought back from a copy').fill(new Date().toISOString().slice(0, 10));
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(margin).not.toContainText('Parish scans” are in one house');
    await expect(margin).not.toContainText('never brought back');
    await axe(page);

    // A database moves here: counted on both sides before the new server takes over.
    await page.getByRole('button', { name: 'Something moves here from an old server' }).click();
    await page.getByLabel('Its name, or where its files lie').fill('booking');
    await page.getByLabel('Sum of the backup there').fill('no sum');
    await page.getByRole('button', { name: 'another one to count' }).click();
    await page.getByLabel('Table, or folder').fill('bookings');
    await page.getByLabel('There', { exact: true }).fill('120');
    await page.getByLabel('Here', { exact: true }).fill('119');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('dialog')).toContainText('64 hexadecimal digits');
    await page.getByLabel('Sum of the backup there').fill('');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    const steps = page.getByRole('table', { name: 'Steps for booking' });
    await expect(steps).toContainText('pg_dump -Fc -f booking.backup booking');
    await expect(page.getByText('You can go back: the old one is as it was.')).toBeVisible();
    await steps.getByRole('checkbox', { name: 'Count on both' }).check({ force: true });
    await expect(margin).toContainText('“booking” has not as much here as there: bookings');
    await axe(page);
  },
);

test(
  'folders: a right is turned, what it opens is said, a link in a circle is refused, files are written',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/box/archive/load');
    await page.getByRole('tab', { name: 'Folders' }).click();
    await expect(headline(page)).toHaveText('3 folders, 1 open to guests');
    await axe(page);
    const margin = page.getByRole('complementary');
    await page.getByRole('button', { name: 'scans, guests: nothing' }).click();
    await expect(headline(page)).toHaveText('3 folders, 2 open to guests');
    await page.getByRole('button', { name: 'scans, guests: reads' }).click();
    await expect(margin).toContainText('Everybody in the network may write to and delete in “scans”');
    await page.getByRole('button', { name: 'scans, guests: writes' }).click();
    await expect(margin).not.toContainText('may write to and delete in “scans”');

    await page.getByRole('button', { name: 'See one copy in another place' }).click();
    await page.getByLabel('It is to be seen at').fill('/srv/pool/archive/up');
    await page.getByLabel('It really lies at').fill('archive');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('dialog')).toContainText('whole path');
    await page.getByLabel('It really lies at').fill('/srv/pool/archive');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(margin).toContainText('a program that walks it never comes back');

    await page.getByRole('button', { name: 'Save for its servers' }).click();
    const written = page.getByRole('dialog');
    // While a Stop stands there is nothing to take away, and why is said.
    await expect(written).toContainText('No file is written while a Stop stands');
    await expect(written.getByRole('button', { name: 'Save as a file' })).toHaveCount(0);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+z');
    await expect(margin).not.toContainText('a program that walks it never comes back');
    await page.getByRole('button', { name: 'Save for its servers' }).click();
    await expect(written).toContainText('valid users = group warden');
    await written.getByLabel('For', { exact: true }).selectOption('exports');
    await expect(written).toContainText(
      '/srv/pool/archive 10.44.8.0/24(rw,sync,no_subtree_check,root_squash)',
    );
  },
);

test('the stand-in folder is looked through, planned, renamed in place and renamed back', async ({
  page,
  open,
}) => {
  await open('/box/archive/load');
  await page.getByRole('tab', { name: 'What goes on it' }).click();
  await axe(page);
  await page.getByRole('button', { name: 'The stand-in folder' }).click();
  const found = page.getByRole('table', { name: 'What was found' });
  await expect(found.getByRole('row', { name: /names that differ by case alone/ })).toContainText(
    'rename 1',
    { timeout: 30_000 },
  );
  await axe(page);
  // What is there twice is told once it is asked for.
  await page.getByRole('checkbox', { name: /what is there twice/ }).check({ force: true });
  await expect(found.getByRole('row', { name: /the same bytes twice/ })).toContainText('8', {
    timeout: 30_000,
  });
  await found.getByRole('button', { name: /the same bytes twice/ }).click();
  await expect(page.getByRole('dialog')).toContainText('the same as Letters/Mill.txt');
  await page.keyboard.press('Escape');
  // For another target other names are refused.
  await page.getByLabel('It goes on').selectOption('ext4');
  await expect(found.getByRole('row', { name: /names that differ by case/ })).toHaveCount(0);
  await page.getByLabel('It goes on').selectOption('fat');
  await expect(found.getByRole('row', { name: /names FAT refuses, .*: a letter/ })).toBeVisible();
  // A remedy that is not taken leaves the copy standing there, and the ledger says so.
  await found.getByRole('checkbox', { name: 'rename 2' }).uncheck({ force: true });
  await expect(page.getByRole('complementary')).toContainText('would stop the copy');
  await found.getByRole('checkbox', { name: 'rename 2' }).check({ force: true });

  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save a list of sums' }).click();
  expect((await saved).suggestedFilename()).toBe('SHA256SUMS');

  await page.getByRole('button', { name: 'Rename in the folder itself' }).click();
  const preview = page.getByRole('dialog');
  await expect(preview).toContainText('Letters/Hall - opening.txt');
  await preview.getByRole('button', { name: /^Rename \d+ now/ }).click();
  await expect(page.getByText(/files renamed in the folder/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'look through it again' }).click();
  await expect(found.getByRole('row', { name: /names FAT refuses, .*: a letter/ })).toHaveCount(0, {
    timeout: 30_000,
  });
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText(/files renamed in the folder/)).toHaveCount(0, { timeout: 30_000 });
  // The files are not kept here; what was looked through is.
  await kept(page);
  await page.reload();
  await page.getByRole('tab', { name: 'What goes on it' }).click();
  await expect(page.getByText(/“stand-in folder” was looked through/)).toBeVisible();
});

test(
  'a real folder, large and hostile, is read where it lies; it can be cancelled',
  { tag: '@whole' },
  async ({ page, open, scratch }) => {
    const top = join(scratch, 'hall');
    const odd = ['ü', '日本', '🪵', "q'", '"', '#', '%41', 'a b', '\u202e', '<b>', '$(x)', ';', '`', '&amp;'];
    for (let i = 0; i < 4_000; i += 1) {
      const folder = join(top, `d${i % 40}`);
      if (i < 40) mkdirSync(folder, { recursive: true });
      writeFileSync(join(folder, `${odd[i % odd.length] ?? ''} ${i}.txt`), '');
    }
    const deep = join(top, Array.from({ length: 400 }, () => 'd').join('/'));
    mkdirSync(deep, { recursive: true });
    writeFileSync(join(deep, 'end.txt'), 'x');
    symlinkSync(top, join(top, 'circle'));
    // Takes long to be read, and no room.
    writeFileSync(join(top, 'long.iso'), '');
    truncateSync(join(top, 'long.iso'), 8 * 1024 ** 3);
    await open('/box/archive/load');
    await page.getByRole('tab', { name: 'What goes on it' }).click();
    await page.getByLabel('Open a folder to read').setInputFiles(top);
    const found = page.getByRole('table', { name: 'What was found' });
    await expect(found.getByRole('row', { name: /empty files/ })).toContainText('4,000', { timeout: 60_000 });
    await expect(page.getByText(/4,?002 files/)).toBeVisible();
    await found.getByRole('button', { name: /names SMB refuses, .*: a letter/ }).click();
    await expect(
      page
        .getByRole('dialog')
        .getByText(/<b> \d+\.txt/)
        .first(),
    ).toBeVisible();
    await page.keyboard.press('Escape');
    // It was opened to be read: nothing is offered that would change it.
    await expect(page.getByRole('button', { name: 'Rename in the folder itself' })).toHaveCount(0);
    // While it works it can be stopped, and begun again.
    await page.getByRole('button', { name: 'Save a list of sums' }).click();
    await page.getByRole('button', { name: 'Cancel' }).click();
    await expect(page.getByText(/was looked through on/)).toBeVisible();
    await page.getByRole('button', { name: 'The stand-in folder' }).click();
    await expect(found).toBeVisible({ timeout: 30_000 });
  },
);

test(
  'a box without a pool begins with what goes on it, and a bench without drives says what to do',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/box/film-night/load');
    await expect(page.getByRole('tab', { name: 'What goes on it' })).toHaveAttribute('aria-selected', 'true');
    await page.keyboard.press('1');
    await expect(page.getByText('No drive takes part yet')).toBeVisible();
    await page.keyboard.press('2');
    await expect(headline(page)).toHaveText('Which folders of Film night do others reach?');
    await page.getByRole('button', { name: 'Name a folder' }).click();
    await page.getByLabel('Name', { exact: true }).fill('films');
    await page.getByLabel('Where it lies').fill('/srv/films');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(headline(page)).toHaveText('1 folder, none open to guests');
    await expect(page.getByRole('complementary')).toContainText('Nobody may read “films” yet');
  },
);
