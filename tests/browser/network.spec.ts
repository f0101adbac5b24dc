import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { axe, expect, headline, test } from './fixtures';

test('a box is placed, keeps its address through a cut, and a conflict is mended', async ({ page, open }) => {
  await open('/box/booking-host/network');
  await expect(headline(page)).toHaveText('At which address will Booking host answer?');
  await page.getByRole('button', { name: 'Give it one' }).click();
  await expect(headline(page)).toHaveText('Booking host takes 10.44.8.30, and keeps it through a power cut');
  await axe(page);
  await page.getByRole('radio', { name: /Whatever the pool gives/ }).check({ force: true });
  await expect(page.getByRole('complementary')).toContainText('after a power cut it may be gone');
  await page.getByRole('radio', { name: /Set by hand/ }).check({ force: true });

  // Somebody else claims the same: both sides are named, and the next free address mends it.
  await page.getByRole('button', { name: 'All of it by hand' }).click();
  await page.getByLabel('Address', { exact: true }).fill('10.44.8.20');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('complementary')).toContainText('Archive and Booking host claim 10.44.8.20');
  await page.getByRole('button', { name: 'Next free address' }).click();
  await expect(page.getByRole('complementary')).not.toContainText('claim');
  await expect(headline(page)).toContainText('10.44.8.30');
  // A probe by hand is noted and told from then on.
  await page.getByRole('button', { name: 'nobody answered' }).click();
  await expect(page.getByRole('region', { name: /^Before you take/ })).toContainText('nobody answered,');
});

test(
  'the area: a power cut told host by host, hosts read and written, by keys and with an undo',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/network');
    await expect(headline(page)).toContainText('After a power cut Weather mast and 3 others may be gone');
    await axe(page);
    await page.keyboard.press('c');
    const cut = page.getByRole('dialog', { name: 'The power is gone, and comes back' });
    await expect(cut.getByRole('row', { name: /^Booking desk laptop/ })).toContainText(
      'depends on who comes back first',
    );
    await expect(cut.getByRole('row', { name: /^Weather mast/ })).toContainText(
      'Booking desk laptop before Weather mast',
    );
    await axe(page);
    await page.keyboard.press('Escape');

    await page.getByRole('button', { name: 'Read what is there' }).click();
    const read = page.getByRole('dialog', { name: 'What is there already' });
    await read.getByLabel('What it printed').fill('nothing of the kind');
    await read.getByRole('button', { name: 'See what it holds' }).click();
    await expect(read).toContainText('Nothing was changed');
    await read
      .getByLabel('What it printed')
      .fill('? (10.44.8.77) at 00:16:3e:00:00:77 [ether] on eth0\n? (10.44.8.20) at <incomplete> on eth0\n');
    await read.getByRole('button', { name: 'See what it holds' }).click();
    await expect(read).toContainText('1 host new to you');
    await read.getByRole('button', { name: 'Take it' }).click();
    await expect(page.getByRole('complementary')).toContainText('10.44.8.77 was set by hand to 10.44.8.77');
    await page.keyboard.press('ControlOrMeta+z');
    await expect(page.getByRole('complementary')).not.toContainText('10.44.8.77');

    await page.getByRole('button', { name: 'Save for the router' }).click();
    const write = page.getByRole('dialog', { name: 'Hall, written down for others' });
    await expect(write.getByLabel('What is written')).toContainText('dhcp-host=');
    await write.getByLabel('For', { exact: true }).selectOption('kea');
    await expect(write.getByLabel('What is written')).toContainText('"reservations"');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'What is said of Hall' }).click();
    const form = page.getByRole('dialog', { name: 'Hall' });
    await form.getByLabel('Gateway', { exact: true }).fill('10.44.9.1');
    await form.getByLabel('to', { exact: true }).fill('');
    await form.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(form).toContainText('A pool has a first and a last address.');
    await form.getByLabel('to', { exact: true }).fill('10.44.8.199');
    await form.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('complementary')).toContainText('The gateway 10.44.9.1 lies outside of Hall');
  },
);

test('an empty bench begins with what a machine prints', { tag: '@whole' }, async ({ page, open }) => {
  await open('/bench');
  await page.locator('#sheet').getByRole('button', { name: 'Start an empty bench' }).click();
  await expect(page).toHaveURL(/:\d+\/$/);
  await page
    .getByRole('navigation')
    .getByRole('link', { name: /^Network/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Read what is there' }).click();
  const read = page.getByRole('dialog', { name: 'What is there already' });
  await read.getByLabel('What it printed').fill(
    JSON.stringify([
      {
        ifindex: 2,
        ifname: 'eth0',
        address: '00:16:3e:00:00:02',
        addr_info: [{ family: 'inet', local: '192.168.7.2', prefixlen: 24 }],
      },
    ]),
  );
  await read.getByRole('button', { name: 'See what it holds' }).click();
  await read.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('region', { name: 'Addresses of Home' })).toContainText('192.168.7.0/24');
});

test(
  'a label is drawn, saved as a picture, and its code reads back',
  { tag: '@whole' },
  async ({ page, open, scratch }) => {
    await open('/box/archive/network');
    await page.getByRole('button', { name: 'Label' }).click();
    const label = page.getByRole('dialog', { name: 'Label of Archive' });
    await expect(label.getByRole('img')).toHaveAccessibleName(/password: the green book/);
    for (const size of ['62 × 29 mm', '99 × 38 mm']) {
      await label.getByRole('radio', { name: size }).check({ force: true });
      const saved = page.waitForEvent('download');
      await label.getByRole('button', { name: 'Save as PNG' }).click();
      const path = join(scratch, 'label.png');
      await (await saved).saveAs(path);
      // zbar-tools, Debian: it reads ISO/IEC 18004 codes out of pictures.
      const read = execFileSync('zbarimg', ['-q', '--raw', path], {
        encoding: 'utf8',
        stdio: ['ignore', 'pipe', 'ignore'],
      });
      expect(read.trim()).toBe('https://10.44.8.20/');
      expect(readFileSync(path).readUInt32BE(16)).toBe(Math.round((Number(size.split(' ')[0]) * 300) / 25.4));
    }
    await axe(page);
  },
);

test('the first start: lines ticked, waiting measured, updates counted, a password that goes nowhere', async ({
  page,
  open,
}) => {
  await open('/box/games-corner/first-start');
  await expect(headline(page)).toContainText('things at the first start');
  const list = page.getByRole('list', { name: 'First start' });
  await expect(list.getByRole('listitem').first()).toContainText('Start it, and let it be');
  await axe(page);
  await page.getByRole('button', { name: 'I press the power button now' }).click();
  await page.getByRole('button', { name: 'It answers' }).click();
  await expect(headline(page)).toContainText('Next: turn the picture');
  await list.getByRole('checkbox', { name: /Turn the picture/ }).check({ force: true });
  await expect(headline(page)).toContainText('Next: language');
  await list
    .getByRole('listitem')
    .filter({ hasText: 'Time zone' })
    .getByRole('button', { name: 'leave it out' })
    .click();
  await expect(list).toContainText('Time zone, left out');
  await page.getByRole('spinbutton', { name: 'Offered' }).fill('12');
  await page.getByRole('button', { name: 'Round done' }).click();
  await expect(page.getByRole('region', { name: 'Updates' })).toContainText('1 round so far, 12 in the last');
  await page.getByRole('button', { name: 'Nothing is offered' }).click();
  await expect(page.getByRole('region', { name: 'Updates' })).toContainText(
    'Nothing is offered any more, after 2 rounds',
  );

  await open('/box/archive/first-start');
  await page.getByRole('button', { name: 'Another one' }).click();
  const password = page.getByLabel('Try it here: it is neither kept nor sent');
  await password.fill('password1');
  await expect(page.getByRole('region', { name: 'Password' })).toContainText('will not do');
  await page.getByRole('button', { name: 'Make a passphrase' }).click();
  await expect(page.getByRole('region', { name: 'Password' })).toContainText('77 bits of chance');
  const phrase = await password.inputValue();
  expect(phrase.length).toBeGreaterThan(20);
  await page.getByLabel('Written down where').fill('the blue book');
  await page.getByRole('button', { name: 'It is set, and written down' }).click();
  await expect(page.getByRole('region', { name: 'Password' })).toContainText('the blue book');
  // Nowhere in what the page keeps: databases and both storages.
  const kept = await page.evaluate(async () => {
    const out: unknown[] = [{ ...localStorage }, { ...sessionStorage }];
    for (const { name } of await indexedDB.databases()) {
      const db = await new Promise<IDBDatabase>((done) => {
        const asked = indexedDB.open(name ?? '');
        asked.onsuccess = () => done(asked.result);
      });
      for (const store of db.objectStoreNames)
        out.push(
          await new Promise((done) => {
            const asked = db.transaction(store).objectStore(store).getAll();
            asked.onsuccess = () => done(asked.result);
          }),
        );
      db.close();
    }
    return JSON.stringify(out);
  });
  expect(kept).toContain('the blue book');
  expect(kept).not.toContain(phrase);
});

test('the bench for gamepads, with a pad that stands in', { tag: '@whole' }, async ({ page, open }) => {
  await page.addInitScript(() => {
    let t = 0;
    let still = false;
    Object.assign(window, { rest: () => (still = true) });
    const pad = (): object => ({
      id: 'Stand-in pad',
      mapping: 'standard',
      index: 0,
      connected: true,
      axes: still ? [0.01, 0, 0, 0] : [Math.sin(t / 5), Math.cos(t / 5), Math.sin(t / 5), Math.cos(t / 5)],
      buttons: Array.from({ length: 17 }, (_, i) => ({
        value: !still && Math.floor(t / 2) % 17 === i ? 1 : 0,
      })),
    });
    Object.defineProperty(navigator, 'getGamepads', {
      value: () => {
        t += 1;
        return [pad(), null, null, null];
      },
    });
  });
  await open('/box/games-corner/first-start');
  await page.getByRole('button', { name: 'The bench for gamepads' }).click();
  const bench = page.getByRole('dialog', { name: 'The bench for gamepads' });
  await expect(bench.getByRole('status').filter({ hasText: 'Lay it down' })).not.toContainText('Press once', {
    timeout: 20_000,
  });
  await page.evaluate(() => (window as unknown as { rest: () => void }).rest());
  await bench.getByRole('button', { name: 'Hands off: measure its rest' }).click();
  await expect(bench).toContainText('All of it works', { timeout: 20_000 });
  await bench.getByRole('button', { name: 'Keep it with the box' }).click();
  await expect(bench.getByRole('region', { name: 'Kept with this box' })).toContainText(
    '17 of 17 buttons, 4 axes, dead zone 1 %',
  );
  await axe(page);
});

test(
  'the test sheet is one file that opens anywhere: what it measures, and left and right',
  { tag: '@whole' },
  async ({ page, open, scratch, context }) => {
    await open('/box/games-corner/first-start');
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'A test sheet to open on the box' }).click();
    const path = join(scratch, 'sheet.html');
    await (await saved).saveAs(path);
    const sheet = await context.newPage();
    const asked: string[] = [];
    sheet.on('request', (r) => asked.push(r.url()));
    const faults: string[] = [];
    sheet.on('pageerror', (e) => faults.push(e.message));
    await sheet.goto(`file://${path}`);
    await expect(sheet.locator('#here')).toContainText('times a second');
    await sheet.getByRole('button', { name: 'Left' }).click();
    await expect(sheet.locator('body')).toHaveAttribute('data-sound', '-1');
    await sheet.keyboard.press('r');
    await expect(sheet.locator('body')).toHaveAttribute('data-sound', '1');
    expect(asked).toEqual([`file://${path}`]);
    expect(faults).toEqual([]);
  },
);

test('the stand-in network is looked at and taken, and a watch sees a host answer', async ({
  page,
  open,
}) => {
  await open('/network');
  await page.getByRole('button', { name: 'Read what is there' }).click();
  const read = page.getByRole('dialog', { name: 'What is there already' });
  await read.getByRole('button', { name: /Or from the stand-in network/ }).click();
  await read.getByRole('button', { name: 'Look at it' }).click();
  await expect(read).toContainText('look report: 7 addresses, gateway 10.44.8.1');
  await expect(read).toContainText('1 host new to you, 6 known');
  await axe(page);
  await read.getByRole('button', { name: 'Take it' }).click();
  await open('/box/archive/network');
  await page.getByRole('button', { name: 'Ask 10.44.8.20 until it answers' }).click();
  await expect(page.getByRole('region', { name: 'Is it back?' })).toContainText('It answers, after');
  await open('/logbook');
  await expect(page.locator('#sheet')).toContainText('Archive answers at 10.44.8.20');
});
