import { ADDRESSES, axe, expect, headline, kept, status, test } from './fixtures';

/** Every fourth one; all of them in `npm run proof pages`. */
const SHOWN = ADDRESSES.filter((_, i) => process.env.ZB_PAGES === 'all' || i % 4 === 0);
const HALF = Math.ceil(SHOWN.length / 2);
for (const part of [0, 1])
  test(`every address lands where it says, passes axe and fits phone and wide screen, half ${part + 1}`, async ({
    page,
    open,
  }) => {
    test.setTimeout(120_000);
    for (const [i, address] of SHOWN.slice(part * HALF, (part + 1) * HALF).entries()) {
      await open(address);
      const words = await headline(page).textContent();
      expect(words).not.toBe('');
      expect(words).not.toContain('undefined');
      // Every other one here, all of them in `npm run proof looks`.
      if (i % 2 === part) await axe(page);
      for (const width of [390, 1920, 1280]) {
        await page.setViewportSize({ width, height: 800 });
        const over = (): Promise<number> =>
          page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
        // What is drawn only where it is seen measures itself anew once the window has its new size.
        await expect.poll(over, { message: `${address} at ${width} px`, timeout: 3000 }).toBe(0);
      }
    }
  });

test('at 1280 × 800 the page itself never scrolls', async ({ page, open }) => {
  for (const address of ['/box/games-corner/verify', '/box/archive/survey', '/match', '/logbook']) {
    await open(address);
    expect(await page.evaluate(() => document.documentElement.scrollHeight <= window.innerHeight)).toBe(true);
  }
});

test('nothing is kept at a wrong address, and that is said', { tag: '@whole' }, async ({ page, open }) => {
  for (const address of [
    '/nowhere',
    '/shelf/ghost',
    '/images/ghost',
    '/box/ghost',
    '/box/ghost/verify',
    '/box/archive/party',
  ]) {
    await open(address);
    await expect(page.getByText(/It may have been removed/)).toBeVisible();
  }
});

test('keys: areas, the sheet of keys, find anything', async ({ page, open }) => {
  await open('/shelf');
  for (const [key, path] of [
    ['m', 'match'],
    ['i', 'images'],
    ['b', ''],
    ['p', 'practice'],
    ['l', 'logbook'],
    ['s', 'shelf'],
  ] as const) {
    await page.keyboard.press(key);
    await expect(page).toHaveURL(new RegExp(`/${path}$`));
    await expect(headline(page)).toBeVisible();
  }
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await axe(page);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('/');
  await expect(page.getByRole('combobox', { name: /Find anything/ })).toBeFocused();
  await page.keyboard.type('7C20');
  await expect(page.getByRole('option').first()).toContainText('Blue stick');
  await axe(page);
  await page.keyboard.press('Enter');
  await expect(headline(page)).toContainText('Blue stick');
  await page.keyboard.press('/');
  await expect(page.getByRole('combobox', { name: /Find anything/ })).toBeFocused();
  await page.keyboard.type('archive: load');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/archive\/load$/);
});

test('the match sheet is walked with the arrows', async ({ page, open }) => {
  await open('/match');
  await page.locator('#cell-0-0').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('#cell-1-1')).toBeFocused();
  await expect(page.locator('aside h2').first()).toContainText('on Grandfather');
});

test('the theme is chosen and remembered', async ({ page, open }) => {
  await open('/shelf');
  await page.getByRole('button', { name: /theme/i }).click();
  await page.getByRole('button', { name: /theme/i }).click();
  await expect(page.locator('html')).toHaveClass(/dark/);
  await kept(page);
  await page.reload();
  await expect(page.locator('html')).toHaveClass(/dark/);
});

test(
  '200 things on the shelf, 2000 lines of the log: only what is seen is drawn, and all can be found',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/shelf');
    for (let i = 0; i < 3; i += 1) {
      await page.getByRole('button', { name: 'Add a machine' }).click();
      await expect(headline(page)).toContainText('New machine');
      await page.getByRole('link', { name: /^Shelf/ }).click();
    }
    await open('/bench');
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save the bench to a file' }).click();
    const stream = await (await saved).createReadStream();
    let text = '';
    for await (const piece of stream) text += String(piece);
    const bench = JSON.parse(text) as {
      items: { id: string; kind: string; name: string }[];
      log: { id: string }[];
    };
    for (let i = 0; i < 2000; i += 1) bench.log.push({ ...bench.log[0], id: `line-${i}` });
    const blue = bench.items.find((i) => i.id === 'blue');
    for (let i = 0; i < 200; i += 1)
      bench.items.push({
        ...blue,
        id: `extra-${i}`,
        name: `Extra stick ${String(i).padStart(3, '0')}`,
        serial: `EX-${i}`,
      } as never);
    await page.getByLabel('Bench file').setInputFiles({
      name: 'big.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify(bench)),
    });
    await page.getByRole('button', { name: 'Put it in place' }).click();
    await expect(page).not.toHaveURL(/bench$/);
    await open('/shelf');
    expect(await page.getByRole('row').count()).toBeLessThan(60);
    // So many things are shown as a table, which finds by itself.
    await page.getByLabel('Find in shelf').fill('Extra stick 199');
    await page.getByRole('link', { name: 'Extra stick 199' }).click();
    await expect(headline(page)).toContainText('Extra stick 199');
    await open('/logbook');
    await expect(page.getByText(/^20\d\d lines$/).first()).toBeVisible();
    expect(await page.getByRole('row').count()).toBeLessThan(80);
  },
);

test('a long name breaks nothing', async ({ page, open }) => {
  await open('/box/archive/keep');
  await page.getByText('Rename or remove this box').click();
  await page
    .getByLabel('Name of the box')
    .fill(`The${' very'.repeat(20)} longnamewithoutanybreakatallinitwhichgoesonandonandon`);
  await page.keyboard.press('Enter');
  await expect(status(page)).toContainText('renamed');
  for (const width of [390, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    expect(
      await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
    ).toBe(0);
  }
});

test(
  'the dump of a drive’s table says what lies on it; what is none changes nothing',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/shelf/blue');
    await page.getByText('From what a tool prints of its table').click();
    const dump = page.getByLabel('What sfdisk, lsblk');
    await dump.fill('not a dump');
    await page.getByRole('button', { name: 'Take the parts over' }).click();
    await expect(page.getByRole('alert')).toContainText('Nothing was changed');
    await expect(dump).toHaveValue('not a dump');
    await dump.fill('label: dos\nunit: sectors\n\nx1 : start=2048, size=409600, type=83, bootable\n');
    await page.getByRole('button', { name: 'Take the parts over' }).click();
    await expect(page.getByText(/read from a dump/)).toBeVisible();
    await page.getByRole('button', { name: 'Save' }).click();
    await kept(page);
    await page.reload();
    await expect(page.getByText(/read from a dump/)).toBeVisible();
  },
);

test('what the sheets are made of: every component in light and dark passes axe, and the table is walked by keys', async ({
  page,
  server,
}) => {
  await page.goto(`${server.address}/design`);
  await expect(page.getByRole('heading', { name: 'What the sheets are made of' })).toBeVisible();
  await axe(page);
  const [grid] = await page.getByRole('grid', { name: 'Drives' }).all();
  if (!grid) throw new Error('no table');
  await grid.getByRole('gridcell', { name: 'Boot drive' }).focus();
  await page.keyboard.press('End');
  await page.keyboard.press('ArrowDown');
  await expect(grid.getByRole('gridcell', { name: 'keep' })).toBeFocused();
  await page.getByRole('button', { name: 'A sheet over it' }).first().click();
  await expect(page.getByRole('dialog', { name: 'Serials' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'From the side' }).first().click();
  await expect(page.getByRole('dialog', { name: 'Boxes' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Do something' }).first().click();
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByText('Taken back')).toBeVisible();
});
