import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { Page } from '@playwright/test';
import { axe, expect, headline, kept, servesItself, status, test } from './fixtures';

test(
  'a box from its first step to its last, by one key alone; a reload lands on the step',
  { tag: '@whole' },
  async ({ page, open }) => {
    test.setTimeout(120_000);
    await open('/box/film-night/run');
    await expect(headline(page)).toHaveText('Fetch Curtain Player 12');
    await axe(page);
    await page.keyboard.press('Space');
    await expect(headline(page)).toHaveText(/Compare its sum/);
    await expect(page.getByRole('timer')).toHaveText(/^0:0\d$/);
    await kept(page);
    await page.reload();
    await expect(headline(page)).toHaveText(/Compare its sum/);
    await page.keyboard.press('Space');
    // The stop’s last step signs it off.
    await expect(page.getByRole('link', { name: /Verify.*signed off/ })).toBeVisible();
    // What is looked at before its turn cannot be done.
    await expect(headline(page)).toHaveText(/Unplug at the writing machine/);
    await page.keyboard.press('ArrowRight');
    await expect(headline(page)).toHaveText(/Write the stick/);
    await page.keyboard.press('Space');
    await expect(headline(page)).toHaveText(/Write the stick/);
    await expect(page.getByRole('button', { name: 'Done' })).toBeDisabled();
    await page.keyboard.press('Home');
    const seen = new Set<string>();
    for (let i = 0; i < 60; i += 1) {
      const title = (await headline(page).textContent()) ?? '';
      const done = page.getByRole('button', { name: 'Done' });
      if (/^All \d+ steps/.test(title)) break;
      seen.add(title);
      // Where a Stop stands against it, nobody goes on without a word.
      const why = page.getByLabel('Why you go on all the same');
      if (await why.isVisible()) {
        await expect(done).toBeDisabled();
        await why.fill('the hall has two copies of it');
        await page.keyboard.press('Tab');
        await done.focus();
      }
      await page.keyboard.press('Space');
      await expect(headline(page)).not.toHaveText(title);
    }
    expect(seen.size).toBeGreaterThan(25);
    await page.keyboard.press('l');
    const all = page.getByRole('dialog');
    await expect(all.getByRole('row', { name: /ready|waits/ })).toHaveCount(0);
    await axe(page);
  },
);

test(
  'by touch alone on a tablet: what was noted goes into the log, a step is left out with a reason',
  { tag: '@whole' },
  async ({ browser, server }) => {
    const context = await browser.newContext({
      viewport: { width: 1024, height: 768 },
      hasTouch: true,
      locale: 'en-GB',
      timezoneId: 'UTC',
      serviceWorkers: 'block',
    });
    const page = await context.newPage();
    await page.goto(`${server.address}/box/games-corner/run`);
    await expect(headline(page)).toHaveText(/Fetch Lantern Arcade/);
    const done = page.getByRole('button', { name: 'Done' });
    const go = async (to: RegExp): Promise<void> => {
      for (let i = 0; i < 12 && !to.test((await headline(page).textContent()) ?? ''); i += 1) {
        const title = (await headline(page).textContent()) ?? '';
        const why = page.getByLabel('Why you go on all the same');
        if (await why.isVisible()) await why.fill('it is written elsewhere');
        await done.tap();
        await expect(headline(page)).not.toHaveText(title);
      }
    };
    await go(/^Secure Boot/);
    await page.getByLabel('As it read before').tap();
    await page.getByLabel('As it read before').fill('Enabled, standard keys');
    await done.tap();
    await expect(headline(page)).toHaveText(/Save, and power off/);
    await go(/Turn the picture/);
    await page.getByRole('button', { name: 'Leave it out' }).tap();
    await page.getByLabel('Why it is not wanted').fill('it turns by itself');
    await page.getByRole('dialog').getByRole('button', { name: 'Leave it out' }).tap();
    await expect(headline(page)).toHaveText('Language');
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'setup.png', mimeType: 'image/png', buffer: PNG });
    await expect(status(page)).toContainText('Photo: Language');
    // Everything a finger is asked to hit at the foot is large enough for one (WCAG 2.2, 2.5.5: 44 px).
    for (const button of await page.locator('#sheet').getByRole('button').all())
      expect((await button.boundingBox())?.height).toBeGreaterThanOrEqual(44);
    await kept(page);
    await page.goto(`${server.address}/box/games-corner/keep`);
    const log = page.getByRole('main');
    await expect(log).toContainText('Enabled, standard keys');
    await expect(log).toContainText('Left out: Turn the picture: it turns by itself');
    await context.close();
  },
);
/** One white pixel. */
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8/5+hHgAHggJ/PchI7wAAAABJRU5ErkJggg==',
  'base64',
);

test('a sheet travels: opened from disk with nobody to ask, ticked, saved there, and read back whole', async ({
  page,
  open,
  browser,
  scratch,
}) => {
  await open('/box/film-night/run');
  await page.keyboard.press('l');
  const dialog = page.getByRole('dialog');
  const saved = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save a sheet to take along' }).click();
  const there = join(scratch, 'sheet.html');
  await (await saved).saveAs(there);

  // Another browser, which reaches nothing but the file.
  const alone = await browser.newContext({
    offline: true,
    viewport: { width: 390, height: 844 },
    acceptDownloads: true,
  });
  const sheet = await alone.newPage();
  const faults: string[] = [];
  sheet.on('pageerror', (e) => faults.push(e.message));
  sheet.on('request', (r) => {
    if (!/^(file|blob|data):/.test(r.url())) faults.push(r.url());
  });
  await sheet.goto(pathToFileURL(there).href);
  await expect(sheet.getByText('7 of 45 done.')).toBeVisible();
  await axe(sheet);
  const stepOf = (title: RegExp) =>
    sheet.getByRole('listitem').filter({ has: sheet.getByRole('heading', { name: title }) });
  await stepOf(/Fetch Curtain Player/)
    .getByRole('checkbox')
    .check();
  await stepOf(/Compare its sum/)
    .getByRole('checkbox')
    .check();
  await stepOf(/Sound output/)
    .getByRole('checkbox')
    .check();
  await stepOf(/Sound output/)
    .getByLabel('What was found')
    .fill('HDMI 1 </script> & "quoted"');
  await stepOf(/Sound output/)
    .getByRole('checkbox')
    .focus();
  await stepOf(/Compare its sum/)
    .getByRole('checkbox')
    .uncheck();
  await expect(sheet.getByText('9 of 45 done.')).toBeVisible();
  // What the browser kept is there after the page was closed.
  await sheet.reload();
  await expect(sheet.getByText('9 of 45 done.')).toBeVisible();
  const back = sheet.waitForEvent('download');
  await sheet.getByRole('button', { name: 'Save this sheet with its ticks' }).click();
  const again = join(scratch, 'again.html');
  await (await back).saveAs(again);
  // The copy carries its ticks by itself: a browser that has never seen it shows them.
  const other = await browser.newContext({ offline: true });
  const copy = await other.newPage();
  await copy.goto(pathToFileURL(again).href);
  await expect(copy.getByText('9 of 45 done.')).toBeVisible();
  expect(faults).toEqual([]);
  await alone.close();
  await other.close();

  const cut = join(scratch, 'cut.html');
  const text = readFileSync(again, 'utf8');
  writeFileSync(cut, text.slice(0, text.indexOf('id="zealous-box-run"') + 2000));
  const read = dialog.locator('input[type=file]');
  await read.setInputFiles(cut);
  await expect(dialog.getByRole('alert')).toContainText('Nothing was changed');
  await read.setInputFiles(again);
  await expect(dialog).toContainText('2 steps taken from it');
  await expect(dialog.getByRole('row', { name: /Fetch Curtain Player 12/ })).toContainText('done');
  await expect(dialog.getByRole('row', { name: /Compare its sum/ })).not.toContainText('done');
  await dialog.getByRole('button', { name: 'Sound output, by its name' }).click();
  await expect(page.getByRole('main')).toContainText('HDMI 1 </script> & "quoted"');
  // One undo takes all of it back.
  await kept(page);
  await page.keyboard.press('Control+z');
  await expect(status(page).last()).toContainText('Undone');
  await expect(page.getByRole('main')).not.toContainText('HDMI 1');
});

test('it looks different: two looks, a cause with its cure, which becomes the step before', async ({
  page,
  open,
}) => {
  await open('/box/film-night/run');
  // Seven steps of opening Tern lie between.
  for (let i = 0; i < 14; i += 1) await page.keyboard.press('ArrowRight');
  await expect(headline(page)).toHaveText(/Switch on, tap F7/);
  // Held, the one button means that it looks different.
  await page.locator('#sheet').focus();
  await page.keyboard.down('Space');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toBeVisible();
  await page.keyboard.up('Space');
  await axe(page);
  await dialog.getByRole('button', { name: /The old system starts/ }).click();
  await dialog.getByRole('button', { name: 'I cannot tell' }).click();
  await dialog.getByRole('button', { name: 'Take the last answer back' }).click();
  await dialog.getByRole('button', { name: 'No menu came' }).click();
  await dialog.getByRole('button', { name: 'The menu comes' }).click();
  await expect(dialog.getByRole('region', { name: 'Most likely' })).toContainText('The key was missed');
  await expect(dialog.getByRole('row', { name: /The key was missed/ })).toContainText(/9\d %/);
  await axe(page);
  await dialog.getByRole('button', { name: 'Make its cure a step' }).click();
  await expect(dialog).toBeHidden();
  await page.keyboard.press('ArrowLeft');
  await expect(headline(page)).toHaveText('Mend it: the key was missed');
  await kept(page);
  await open('/box/film-night/keep');
  await expect(page.getByRole('main')).toContainText('It looked different while the stick is started');
});

test('the evening: planned off the page, proven, walked by keys, saved to a calendar; another end plans it anew', async ({
  page,
  open,
}) => {
  await page.addInitScript(() => localStorage.setItem('zb-evening-until', '23:59'));
  await open('/');
  await page.keyboard.press('e');
  const evening = page.getByRole('region', { name: 'The evening' });
  await expect(evening.getByLabel('Done by')).toHaveValue('23:59');
  await expect(evening.getByRole('status').first()).toHaveText(/done by/, { timeout: 20_000 });
  await expect(evening).toContainText('one box after the other would take');
  const parts = evening.locator('rect[role=img], rect[role=button]');
  expect(await parts.count()).toBeGreaterThan(10);
  // Hands are on one thing at a time: each piece of work says when it begins, and for how long.
  await parts.first().focus();
  await page.keyboard.press('ArrowRight');
  await expect(parts.nth(1)).toBeFocused();
  await axe(page);
  const saved = page.waitForEvent('download');
  await evening.getByRole('button', { name: 'Save to a calendar' }).click();
  const file = await (await saved).path();
  expect(readFileSync(file, 'utf8')).toMatch(
    /^BEGIN:VCALENDAR\r\n[\s\S]*SUMMARY:Film night[\s\S]*END:VCALENDAR\r\n$/,
  );
  // Another end is another question: what was found for the first is shown no more until the second is answered.
  await evening.getByLabel('Done by').fill('23:58');
  await expect(evening.getByRole('status').first()).toHaveText(/done by/, { timeout: 20_000 });
  expect(await page.evaluate(() => localStorage.getItem('zb-evening-until'))).toBe('23:58');
  // What is wanted most is said here; the plan follows.
  await page.getByRole('button', { name: 'What is wanted most' }).click();
  const wanted = page.getByRole('radiogroup', { name: 'How much Film night is wanted' });
  await wanted.getByRole('radio', { name: '5' }).check({ force: true });
  await expect(status(page)).toContainText('5 of 5');
  await expect(evening.getByText(/Proven: no order|Within|best that was found/)).toBeVisible({
    timeout: 20_000,
  });
  await axe(page);
  await page.getByRole('button', { name: 'Put the evening away' }).click();
  await expect(evening).toBeHidden();
});

test(
  'the evening is changed: a stretch dragged, moved by keys and by a form is pinned, kept over a reload, and let go',
  { tag: '@whole' },
  async ({ page, open }) => {
    test.setTimeout(240_000);
    // An end three hours from now, at whatever hour this runs: stretches are wide enough for a hand.
    await page.addInitScript(() => {
      const end = new Date(Date.now() + 3 * 3_600_000);
      localStorage.setItem('zb-evening-until', end.toTimeString().slice(0, 5));
    });
    await open('/');
    await page.keyboard.press('e');
    const evening = page.getByRole('region', { name: 'The evening' });
    const planned = () => expect(evening.getByText(/Drag|drag one/)).toBeVisible({ timeout: 30_000 });
    await planned();
    const pins = evening.getByRole('table', { name: 'Pinned steps' }).getByRole('row');
    // Each change is planned anew before it is shown.
    const pinned = (n: number) => expect(pins).toHaveCount(n, { timeout: 30_000 });
    const stretch = (i: number) => evening.locator('rect[role=button]').nth(i);
    // By keys: five minutes later than it was planned, and it begins then.
    await stretch(0).focus();
    await page.keyboard.press('Shift+ArrowRight');
    await pinned(2);
    await planned();
    const cells = pins.nth(1).getByRole('cell');
    await expect(evening.locator('rect[aria-pressed=true]')).toHaveCount(1, { timeout: 30_000 });
    expect(await cells.nth(0).innerText()).toBe(await cells.nth(1).innerText());
    // By pointer.
    const loose = evening.locator('rect[role=button][aria-pressed=false]');
    const widths = await loose.evaluateAll((all) => all.map((r) => r.getBoundingClientRect().width));
    const other = loose.nth(widths.indexOf(Math.max(...widths)));
    await other.scrollIntoViewIfNeeded();
    const box = await other.boundingBox();
    if (!box) throw new Error('it is drawn');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 90, y, { steps: 4 });
    await page.mouse.up();
    await pinned(3);
    await planned();
    // It is this browser’s, and there after a reload.
    await open('/');
    await page.keyboard.press('e');
    await pinned(3);
    await axe(page);
    await evening
      .getByRole('button', { name: /^Let it go/ })
      .first()
      .click();
    await pinned(2);
    await planned();
    await evening
      .getByRole('button', { name: /^Let it go/ })
      .first()
      .click();
    await pinned(0);
    await planned();
    await evening.getByRole('button', { name: 'Pin a step' }).click();
    await evening.getByLabel('A step').selectOption({ index: 3 });
    await evening.getByLabel('Begins at').fill('23:30');
    await evening.getByRole('button', { name: 'Pin it' }).click();
    await expect(pins.nth(1)).toContainText('23:30', { timeout: 30_000 });
  },
);

test(
  'times that were measured: in the logbook with how often they held, and a second box that begins after the first',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/logbook');
    await page.getByRole('radio', { name: 'times of steps' }).check({ force: true });
    const rows = page.getByRole('table', { name: 'Steps foretold and measured' }).getByRole('row');
    await expect(rows).toHaveCount(15);
    await open('/box/film-night/run');
    await page.keyboard.press('Space');
    await kept(page);
    await open('/logbook');
    await page.getByRole('radio', { name: 'times of steps' }).check({ force: true });
    // The step that was just done is the latest.
    await expect(rows.nth(1)).toContainText('Fetch Curtain Player 12');
    await axe(page);
    await open('/box/new');
    await page.getByLabel('Name of the box').fill('Archive of the school');
    await page.getByLabel('Made after').selectOption({ label: 'Archive, file store' });
    await expect(page.getByRole('region', { name: 'Asked again' })).toContainText('A password of its own');
    await page.getByLabel('Machine', { exact: true }).selectOption({ label: 'Grandfather, old desktop' });
    await expect(page.getByText(/This one should take/)).toBeVisible();
    await axe(page);
    await page.getByRole('button', { name: 'Open the box' }).click();
    await expect(page).toHaveURL(/survey$/);
    const id = /box\/([^/]+)/.exec(page.url())?.[1] ?? '';
    await open(`/box/${id}/load`);
    await page.getByRole('tab', { name: 'Folders' }).click();
    await expect(page.locator('#sheet')).toContainText('scans');
  },
);

/** Does the film night’s steps until one that goes on alone, whose clock runs. */
async function toTheWriting(page: Page): Promise<void> {
  for (const title of [/Fetch Curtain/, /Compare its sum/, /Unplug at the writing/]) {
    await expect(headline(page)).toHaveText(title);
    await page.keyboard.press('Space');
  }
  await expect(headline(page)).toHaveText(/Write the stick/);
}

test(
  'a wait that should be over is said above whatever sheet is open',
  { tag: '@whole' },
  async ({ page, open }) => {
    await page.clock.install();
    await open('/box/film-night/run');
    await toTheWriting(page);
    await kept(page);
    await open('/shelf');
    await expect(page.getByText('A wait should be over.')).toHaveCount(0);
    await page.clock.fastForward('30:00');
    await expect(page.getByText('A wait should be over.')).toBeVisible();
    await axe(page);
    await page.getByRole('link', { name: 'Go to it' }).click();
    await expect(headline(page)).toHaveText(/Write the stick/);
    await page.getByRole('button', { name: 'Hide this line' }).first().click();
    await expect(page.getByText('A wait should be over.')).toHaveCount(0);
  },
);

test.describe('outside the page', () => {
  test.use({ serviceWorkers: 'allow' });
  test('the system is told of a wait where it may be, once, and whoever follows it lands at the step', async ({
    page,
    open,
  }) => {
    test.setTimeout(90_000);
    // A browser without windows allows none and shows none: here it says yes, and what it was given is kept.
    await page.addInitScript(() => {
      Object.defineProperty(Notification, 'permission', { get: () => 'granted' });
      Notification.requestPermission = () => Promise.resolve('granted');
      ServiceWorkerRegistration.prototype.showNotification = (title, options) => {
        document.documentElement.dataset.told = `${document.documentElement.dataset.told ?? ''}${JSON.stringify({ title, ...options })}\n`;
        return Promise.resolve();
      };
    });
    const told = async (): Promise<string[]> =>
      ((await page.locator('html').getAttribute('data-told')) ?? '').split('\n').filter(Boolean);
    await page.clock.install();
    await open('/box/film-night/run');
    await page.clock.fastForward(5000);
    await servesItself(page);
    await toTheWriting(page);
    // It is asked where the wait begins, and once.
    const ask = page.getByRole('button', { name: /^Tell me outside this page/ });
    await ask.click();
    await expect(ask).toHaveCount(0);
    await kept(page);
    await page.getByRole('button', { name: 'Leave run mode' }).click();
    await expect(page).toHaveURL(/write$/);
    expect(await told()).toEqual([]);
    await page.clock.fastForward('30:00');
    await expect(page.getByText('A wait should be over.')).toBeVisible();
    await expect(ask).toHaveCount(0);
    await expect.poll(async () => (await told()).length).toBe(1);
    const notice = JSON.parse((await told())[0] ?? '') as { body: string; data: { to: string } };
    expect(notice.body).toContain('Write the stick');
    // What the worker says once somebody pressed it (packages/web/test/notified.test.ts).
    await page.evaluate(
      ({ to }) =>
        navigator.serviceWorker.dispatchEvent(new MessageEvent('message', { data: { followed: to } })),
      notice.data,
    );
    await expect(page).toHaveURL(/run$/);
    await page.clock.fastForward('30:00');
    expect(await told()).toHaveLength(1);
  });
});

test.describe('with the network off', () => {
  // The application has itself at hand, as it has for people.
  test.use({ serviceWorkers: 'allow' });
  test(
    'run mode goes on: a step is done, and a reload lands on the next',
    { tag: '@whole' },
    async ({ page, context, open, faults }) => {
      test.setTimeout(90_000);
      await open('/box/film-night/run');
      await page.waitForLoadState('networkidle');
      await servesItself(page);
      await context.setOffline(true);
      await page.keyboard.press('Space');
      await expect(headline(page)).toHaveText(/Compare its sum/);
      await kept(page);
      await page.reload();
      await expect(headline(page)).toHaveText(/Compare its sum/);
      await page.keyboard.press('l');
      await expect(page.getByRole('dialog')).toBeVisible();
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'It looks different' }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
      await context.setOffline(false);
      faults.splice(
        0,
        faults.length,
        ...faults.filter((f) => !/ERR_INTERNET_DISCONNECTED|Failed to fetch|ERR_FAILED/.test(f)),
      );
    },
  );
});
