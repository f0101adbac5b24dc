import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { axe, dropFiles, depotFile, expect, headline, sparse, status, test, verifyLantern } from './fixtures';

const LANTERN = 'lantern-arcade-7.2-x64.img';

test('the games corner from Verify to the build sheet, with the mouse', async ({ page, open }) => {
  await verifyLantern(page, open);
  await expect(headline(page)).toHaveText(
    'This is the file they published; it starts on Gull once Secure Boot is off',
  );
  await expect(page.getByRole('row', { name: /UEFI x64/ })).toContainText('loader BOOTX64.EFI');
  await expect(page.getByRole('row', { name: /with Secure Boot on/ })).toContainText('refused');
  await page.getByRole('button', { name: /Show the evidence/ }).click();
  await expect(page.getByText(/machine type 8664h/).first()).toBeVisible();
  await axe(page);

  await page.getByRole('button', { name: 'Sign off and choose a stick' }).click();
  await expect(headline(page)).toHaveText('Which stick may be lost?');
  await page.getByRole('radio', { name: /Blue stick/ }).check({ force: true });
  const tail = page.getByLabel('Last four of the serial');
  await tail.fill('91AF');
  await expect(page.getByText(/not this stick’s serial/)).toBeVisible();
  // Asked for all the same, it is refused at the field, and nothing is written.
  await page.getByRole('button', { name: 'Write and compare' }).click();
  await expect(tail).toBeFocused();
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  await tail.fill('7c20');
  await axe(page);
  await page.getByRole('button', { name: 'Write and compare' }).click();
  await expect(page.locator('[data-part="stamp"]', { hasText: 'PROVEN' })).toBeVisible({ timeout: 20_000 });
  await expect(headline(page)).toHaveText(`Stick …7C20 holds ${LANTERN}, byte for byte`);
  await expect(
    page.getByText(/Bring up the one-time menu.*This machine’s way: volume-down, then power/),
  ).toBeVisible();
  await axe(page);

  await page.getByRole('button', { name: 'Sign off and go to firmware' }).click();
  await expect(headline(page)).toContainText('will not start the stick: Secure Boot is on');
  await expect(page.getByRole('list', { name: 'Boot ladder' }).getByRole('listitem').first()).toContainText(
    'refused',
  );
  await page.getByRole('button', { name: 'Correct Secure Boot' }).click();
  await page.getByLabel(/What does the setup screen say/).selectOption('off');
  await page.getByRole('button', { name: 'The record was wrong' }).click();
  await expect(headline(page)).toHaveText(`Gull will start ${LANTERN}`);
  await page.getByRole('radio', { name: /Boot order/ }).click({ force: true });
  await expect(headline(page)).toContainText('the internal drive comes first');
  await page.getByRole('radio', { name: /One-time menu/ }).click({ force: true });
  await page.getByLabel('Setting', { exact: true }).fill('Secure Boot');
  await page.getByLabel('From', { exact: true }).fill('on');
  await page.getByLabel('To', { exact: true }).fill('off');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await axe(page);

  await page.getByRole('link', { name: /Stop 12, Keep/ }).click();
  await expect(page.getByRole('row', { name: /Secure Boot: on → off/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /written and proven/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /same file as published/ })).toBeVisible();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the build sheet' }).click();
  const sheet = readFileSync(await (await saved).path(), 'utf8');
  expect(sheet).toContain('# Games corner');
  expect(sheet).toContain('ST16-40A7-7C20');
  expect(sheet).toContain('Gull will start');
  await page.getByRole('button', { name: 'View it' }).click();
  const view = page.getByRole('dialog');
  await expect(view.getByRole('heading', { name: 'Next start' })).toBeVisible();
  await expect(view.getByRole('row', { name: /Setup key/ })).toContainText('volume-up');
  await axe(page);
  await page.keyboard.press('Escape');
  // On paper stands the build sheet alone, without the screen's own parts.
  await page.emulateMedia({ media: 'print' });
  await expect(
    page.locator('[data-part="paper"]').getByRole('heading', { name: 'Games corner' }),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(page.getByRole('navigation', { name: 'Bench' })).toBeHidden();
});

test(
  'a new box made by hand with a real report and a real file, with the keyboard alone',
  { tag: '@whole' },
  async ({ page, open, server, scratch }) => {
    // The longest walk of all, key by key; a busy machine takes its time.
    test.setTimeout(150_000);
    const report = execFileSync('npx', ['zb', 'survey', '--script'], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    writeFileSync(join(scratch, 'survey.sh'), report);
    const said = execFileSync('sh', [join(scratch, 'survey.sh')], { encoding: 'utf8' });
    const image = await depotFile(server, scratch, 'millpond-tunes-4-legacy.img', 'my own download.img');
    const sum = createHash('sha256').update(readFileSync(image)).digest('hex');
    const { keyboard } = page;
    /** Tabs, onward or back, until the focus is on what has this name. */
    const reach = async (name: RegExp, key = 'Tab'): Promise<void> => {
      await page.waitForLoadState('networkidle');
      await page.waitForTimeout(150);
      for (let i = 0; i < 300; i += 1) {
        const here = await page.evaluate(() => {
          const e = document.activeElement;
          if (!(e instanceof HTMLElement)) return '';
          const label =
            e instanceof HTMLInputElement ||
            e instanceof HTMLTextAreaElement ||
            e instanceof HTMLSelectElement
              ? (e.labels?.[0]?.textContent ?? '')
              : '';
          return `${e.getAttribute('aria-label') ?? ''} ${label} ${/^(BUTTON|A|SUMMARY)$/.test(e.tagName) ? (e.textContent ?? '') : ''}`;
        });
        if (name.test(here)) return;
        await keyboard.press(key);
      }
      throw new Error(`never reached ${String(name)}`);
    };

    await open('/shelf');
    await reach(/^\s*New box$/);
    await keyboard.press('Enter');
    await expect(headline(page)).toHaveText('What is it to become?');
    await reach(/Name of the box/);
    await keyboard.type('Kitchen radio');
    await reach(/Purpose/);
    await keyboard.type('music');
    await reach(/Machine/);
    await keyboard.press('ArrowDown');
    await reach(/Its nickname/);
    await keyboard.type('Lapwing');
    await keyboard.press('Enter');
    await expect(headline(page)).toHaveText('What is Lapwing?');

    await reach(/Paste what it printed/);
    await keyboard.insertText(said);
    await reach(/Read the report/);
    await keyboard.press('Enter');
    await expect(page.getByText(/lscpu, Architecture|uname -m/).first()).toBeVisible();
    await expect(status(page)).toContainText('Survey of Lapwing');
    await keyboard.press('Escape');
    await page.evaluate(() => document.getElementById('sheet')?.focus());
    await keyboard.press('ArrowRight');
    await expect(page.getByRole('row', { name: /Millpond Tunes/ })).toBeVisible();
    await reach(/Choose Millpond Tunes/);
    await keyboard.press('Enter');
    await expect(page.getByRole('row', { name: /Millpond Tunes/ })).toContainText('chosen');
    await page.evaluate(() => document.getElementById('sheet')?.focus());
    await keyboard.press('ArrowRight');
    await expect(headline(page)).toContainText('still to gather');
    // A bare Space on the page signs nothing off.
    await keyboard.press('Space');
    await expect(page).toHaveURL(/gather$/);
    await keyboard.press('Control+Enter');
    await expect(page).toHaveURL(/verify$/);

    await expect(page.getByRole('button', { name: 'Open an image file' })).toBeVisible();
    await reach(/Open an image file/);
    const chooser = page.waitForEvent('filechooser');
    // The driver arms its file chooser in the background; a key pressed before that opens the browser's own.
    await page.waitForTimeout(250);
    await keyboard.press('Enter');
    await (await chooser).setFiles(image);
    await expect(page.getByText('MILLPOND', { exact: true })).toBeVisible();
    await reach(/Published checksum/);
    await keyboard.type('f'.repeat(64));
    await keyboard.press('Enter');
    await expect(page.locator('[data-part="stamp"]', { hasText: 'NOT THE SAME' })).toBeVisible();
    await expect(page.locator('aside')).toContainText('is not the file that was published');
    await reach(/Published checksum/);
    await keyboard.press('Control+a');
    await keyboard.type(`SHA256 (my own download.img) = ${sum}`);
    await keyboard.press('Enter');
    await expect(page.locator('[data-part="stamp"]', { hasText: 'SAME FILE' })).toBeVisible();

    await page.evaluate(() => document.getElementById('sheet')?.focus());
    await keyboard.press('Control+Enter');
    await expect(headline(page)).toHaveText('Which stick may be lost?');
    await expect(page.getByRole('radio', { name: /Blue stick/ })).toBeVisible();
    await page.waitForLoadState('networkidle');
    await reach(/Blue stick/);
    await keyboard.press('Space');
    await expect(page.getByRole('radio', { name: /Blue stick/ })).toBeChecked();
    // What is asked about the picked stick stands above the list.
    await reach(/Last four of the serial/, 'Shift+Tab');
    await keyboard.type('7C20');
    await keyboard.press('Enter');
    await expect(page.locator('[data-part="stamp"]', { hasText: 'PROVEN' })).toBeVisible({ timeout: 20_000 });
    await expect(page.getByText('Label the stick “my own download.img”', { exact: false })).toBeVisible();

    // Firmware: the one-time menu key is entered, and the ladder stands.
    await page.evaluate(() => document.getElementById('sheet')?.focus());
    await keyboard.press('Control+Enter');
    await expect(page).toHaveURL(/firmware$/);
    await reach(/Enter One-time menu key/);
    await keyboard.press('Enter');
    await keyboard.type('F12');
    await keyboard.press('Enter');
    await expect(page.getByText('F12', { exact: true })).toBeVisible();
    await expect(page.getByRole('list', { name: 'Boot ladder' }).getByRole('listitem').first()).toContainText(
      'Stick …7C20, by the one-time menu',
    );

    // Keep: a note, and the build sheet.
    await page.evaluate(() => document.getElementById('sheet')?.focus());
    for (const stop of ['install', 'first-start', 'network', 'load', 'tune', 'keep']) {
      await keyboard.press('ArrowRight');
      await expect(page).toHaveURL(new RegExp(`${stop}$`));
    }
    // The address is there before its sheet: what is typed belongs into this one, not into the one before.
    await expect(page.getByRole('button', { name: 'Save the build sheet' })).toBeVisible();
    await reach(/^\s*Text/);
    await keyboard.type('Left on the shelf over night');
    await keyboard.press('Enter');
    await expect(page.getByRole('row', { name: /Left on the shelf over night/ })).toBeVisible();
    await reach(/Save the build sheet/);
    const saved = page.waitForEvent('download');
    await keyboard.press('Enter');
    expect(readFileSync(await (await saved).path(), 'utf8')).toContain('# Kitchen radio');
  },
);

test(
  'a download that went wrong is found out, and a hazard says so',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/box/games-corner/verify');
    await page.getByRole('button', { name: /Fetch lantern-arcade-7.2-x64-again.img/ }).click();
    await expect(page.locator('[data-part="stamp"]', { hasText: 'NOT THE SAME' })).toBeVisible();
    await expect(headline(page)).toHaveText('This is not the file they published: fetch it again');
    await expect(page.getByText(/The file is cut short/).first()).toBeVisible();
    await expect(page.locator('aside').getByText('Stop', { exact: true }).first()).toBeVisible();
    await axe(page);

    // A Stop is not signed off in passing: a reason is asked for and goes into the log.
    await page.locator('#sheet').focus();
    await page.keyboard.press('Control+Enter');
    const asked = page.getByRole('dialog');
    await expect(asked).toContainText('Verify has a Stop against it');
    await asked.getByRole('button', { name: 'Sign off all the same' }).click();
    await expect(asked.getByRole('alert').last()).toContainText('empty');
    await axe(page);
    await page.keyboard.press('Escape');
    await expect(asked).toHaveCount(0);
    await expect(page).toHaveURL(/verify$/);
    await page.getByRole('button', { name: 'Sign off and choose a stick' }).click();
    await asked.getByRole('textbox').fill('to practise a failed start');
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/write$/);
    await page.getByRole('link', { name: /Stop 12, Keep/ }).click();
    await expect(page.getByRole('row', { name: /despite a Stop: to practise a failed start/ })).toBeVisible();
  },
);

test('an empty bench: sample systems are one press away, and a second file opened in the middle wins', async ({
  page,
  open,
  server,
  scratch,
}) => {
  await open('/bench');
  await page.locator('main').getByRole('button', { name: 'Start an empty bench' }).click();
  await expect(headline(page)).toHaveText('What is the first box to be?');
  await axe(page);
  await page.getByRole('button', { name: 'Put a machine on the shelf' }).click();
  await expect(headline(page)).toHaveText('What is on your shelf?');
  await page.getByRole('button', { name: 'Add a machine' }).click();
  await expect(status(page)).toHaveText('Machine put on the shelf');
  await page.getByRole('link', { name: 'Match' }).click();
  await page.getByRole('button', { name: 'Put the sample systems on the bench' }).click();
  await expect(status(page)).toHaveText('10 sample systems put on the bench');
  await expect(headline(page)).toHaveText('What do you want the machines for?');
  await page.getByText('Machines × systems').click();
  await expect(page.getByRole('columnheader', { name: /Lantern Arcade/ })).toBeVisible();

  await page.getByRole('link', { name: 'Image room' }).click();
  const image = await depotFile(server, scratch, 'tidegate-3-x64.img');
  await page.getByLabel('Image file').setInputFiles(sparse(scratch, 'large.img', 6 * 1024 ** 3));
  await expect(page.getByRole('progressbar')).toBeVisible();
  await page.locator('#sheet').focus();
  await page.keyboard.press('o');
  await page.getByLabel('Image file').setInputFiles(image);
  await expect(headline(page)).toContainText('it starts under UEFI x64');
  await expect(status(page)).toHaveText('tidegate-3-x64.img checked');
  await page.getByRole('link', { name: 'Image room' }).click();
  await expect(page.getByRole('row', { name: /large.img/ })).toHaveCount(0);
});

test(
  'a list that does not name the file, a list that is none, and a list in another algorithm',
  { tag: '@whole' },
  async ({ page, open, server, scratch }) => {
    const image = await depotFile(server, scratch, 'tidegate-3-x64.img');
    await open('/images');
    await page.getByLabel('Image file').setInputFiles(image);
    await expect(headline(page)).toContainText('Not compared');
    const list = page.getByLabel('Published checksum or list');
    await list.fill('not a sum');
    await page.getByRole('button', { name: 'Compare', exact: true }).click();
    await expect(page.getByRole('alert')).toContainText('No checksum is in this text');
    await list.fill(`${'a'.repeat(64)}  other.img`);
    await page.getByRole('button', { name: 'Compare', exact: true }).click();
    await expect(page.getByText('NOT LISTED')).toBeVisible();
    const md5 = createHash('md5').update(readFileSync(image)).digest('hex');
    writeFileSync(join(scratch, 'MD5SUMS'), `${md5} *tidegate-3-x64.img\n`);
    await page.getByLabel('Open a list').setInputFiles(join(scratch, 'MD5SUMS'));
    await expect(page.locator('[data-part="stamp"]', { hasText: 'SAME FILE' })).toBeVisible();
    await expect(page.getByText('MD5 against the published sum')).toBeVisible();
  },
);

test('a list of several lines that is pasted stays one, and its line is found', async ({
  page,
  open,
  server,
  scratch,
}) => {
  const image = await depotFile(server, scratch, 'tidegate-3-x64.img');
  await open('/images');
  await page.getByLabel('Image file').setInputFiles(image);
  const sum = createHash('sha256').update(readFileSync(image)).digest('hex');
  await page
    .getByLabel('Published checksum or list')
    .fill(`${'a'.repeat(64)}  other.img\n${sum}  tidegate-3-x64.img\n${'b'.repeat(64)}  more.img\n`);
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await expect(page.locator('[data-part="stamp"]', { hasText: 'SAME FILE' })).toBeVisible();
});

test(
  'a digest can be cancelled; what the tables say stays',
  { tag: '@whole' },
  async ({ page, open, scratch }) => {
    const file = sparse(scratch, 'large.img', 6 * 1024 ** 3);
    await open('/box/games-corner/verify');
    await page.getByLabel('Image file').setInputFiles(file);
    await expect(page.getByRole('progressbar')).toBeVisible();
    await expect(page.getByText(/left$/)).toBeVisible();
    await page.getByRole('button', { name: 'Cancel' }).click();
    await expect(page.getByRole('alert').first()).toContainText('No checksum was kept');
    await page.getByRole('button', { name: /On other firmware/ }).click();
    await expect(page.getByRole('row', { name: /BIOS/ })).toBeVisible();
  },
);

test('a file dropped on the sheet is opened', { tag: '@whole' }, async ({ page, open, scratch }) => {
  await open('/images');
  await dropFiles(page, page.locator('[data-part="dropzone"]'), [sparse(scratch, 'nothing.img', 4096)]);
  await expect(page.getByText(/No partition table, file system or optical volume/)).toBeVisible();
});

test(
  'survey: a garbled paste is refused in words, a cut one gives what it can; a fact by hand wins and can be taken back',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/shelf/skerry');
    const paste = page.getByLabel(/Paste what it printed/);
    await paste.fill('lorem ipsum');
    await page.getByRole('button', { name: 'Read the report' }).click();
    await expect(page.getByRole('alert')).toContainText('This is not a survey report');
    await paste.fill('==== machine ====\naarch64\n==== meminfo ====\nMemTotal: 2000000 kB');
    await page.getByRole('button', { name: 'Read the report' }).click();
    await expect(page.getByText(/The report is cut off/)).toBeVisible();
    await expect(page.getByText('1.91 GiB').first()).toBeVisible();
    // Entered by hand before the survey: 32-bit ARM. It still wins, and the survey's word stands beside it.
    await expect(page.getByText('(survey: aarch64)')).toBeVisible();
    await page.getByRole('button', { name: 'Take back Architecture' }).click();
    await expect(page.getByText('(survey: aarch64)')).toHaveCount(0);
    await page.getByRole('button', { name: 'Enter Cores' }).click();
    await page.getByLabel('How many cores has it?').fill('four');
    await page.getByRole('button', { name: 'Enter', exact: true }).click();
    await expect(page.getByRole('alert')).toContainText('whole number');
    await page.getByLabel('How many cores has it?').fill('4');
    await page.keyboard.press('Enter');
    await expect(page.getByText('by hand').first()).toBeVisible();
  },
);

test(
  'the script can be viewed, copied and downloaded',
  { tag: '@whole' },
  async ({ page, open, context }) => {
    await context.grantPermissions(['clipboard-read', 'clipboard-write']);
    await open('/shelf/skerry');
    await page.getByRole('button', { name: 'View' }).click();
    await expect(page.getByRole('dialog')).toContainText('==== %s ====');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Copy' }).click();
    await expect(page.getByText('Copied.')).toBeVisible();
    expect(await page.evaluate(() => navigator.clipboard.readText())).toContain('#!/bin/sh');
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Download' }).click();
    expect((await saved).suggestedFilename()).toBe('survey.sh');
  },
);

test('choose: reasons, missing facts and their answer in place', async ({ page, open }) => {
  await open('/box/guest-gate/choose');
  await page.getByRole('button', { name: 'Choose Tidegate for boards' }).click();
  await expect(headline(page)).toContainText('Tidegate for boards');
  await expect(status(page)).toHaveText('Tidegate for boards chosen');
  await page.getByText(/All 13 rules/).click();
  await expect(page.getByText('Needs 2 wired ports, has 2.').first()).toBeVisible();
  await axe(page);
});
