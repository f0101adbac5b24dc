import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { axe, expect, headline, status, test, unfold, kept } from './fixtures';

const addNote = async (page: Page, text: string): Promise<void> => {
  await page.getByLabel('Text').fill(text);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
};

test('an empty browser loads the demo by itself and says so; the line can be hidden', async ({
  page,
  open,
}) => {
  await open('/');
  await expect(headline(page)).toContainText('Film night must not go on yet');
  await expect(page.getByText('This is the demo bench')).toBeVisible();
  await page.getByRole('button', { name: 'Hide this line' }).click();
  await kept(page);
  await page.reload();
  await expect(headline(page)).toBeVisible();
  await expect(page.getByText('This is the demo bench')).toHaveCount(0);
});

test(
  'undo by key and by button, twenty deep, with a visible line',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/box/archive/keep');
    for (let i = 1; i <= 21; i += 1) {
      await addNote(page, `note ${i}`);
      await expect(page.getByRole('row', { name: `note ${i}`, exact: false }).first()).toBeVisible();
    }
    await page.getByRole('button', { name: 'Undo the last act' }).click();
    await expect(status(page)).toHaveText('Undone: Note added');
    // Exactly: the day of the next row follows “note 2” in the text of the whole table.
    await expect(page.getByText('note 21', { exact: true })).toHaveCount(0);
    await page.locator('#sheet').focus();
    for (let i = 20; i >= 1; i -= 1) {
      await page.keyboard.press('Control+z');
      await expect(page.getByText(`note ${i}`, { exact: true })).toHaveCount(0);
    }
    await kept(page);
    await page.reload();
    await expect(headline(page)).toBeVisible();
    await expect(page.getByText('note 1', { exact: true })).toHaveCount(0);
  },
);

test('Tab goes through the line that says what was done, and on: it is no trap', async ({ page, open }) => {
  await open('/box/archive/keep');
  await addNote(page, 'once');
  await page.locator('#sheet').focus();
  const inside = () => page.evaluate(() => document.activeElement?.closest('[data-scope="toast"]') !== null);
  const press = async (until: boolean, most: number) => {
    for (let i = 0; i < most; i += 1) {
      if ((await inside()) === until) return true;
      await page.keyboard.press('Tab');
    }
    return false;
  };
  expect(await press(true, 200)).toBe(true);
  // The line, its undo and its close; then the page begins anew, and stays begun.
  expect(await press(false, 5)).toBe(true);
  for (let i = 0; i < 4; i += 1) {
    await page.keyboard.press('Tab');
    expect(await inside()).toBe(false);
  }
});

test('typing keeps its own undo', { tag: '@whole' }, async ({ page, open }) => {
  await open('/box/archive/keep');
  await addNote(page, 'kept');
  await page.getByLabel('Text').fill('draft');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('row', { name: /kept/ })).toBeVisible();
});

test('what one tab does appears in the other', async ({ page, open, context, server }) => {
  await open('/box/archive/keep');
  const second = await context.newPage();
  await second.goto(`${server.address}/box/archive/keep`);
  await expect(second.locator('h1')).toBeVisible();
  await addNote(page, 'from the first tab');
  await expect(second.getByRole('row', { name: /from the first tab/ })).toBeVisible();
  await second.locator('#sheet').focus();
  await second.keyboard.press('Control+z');
  await expect(page.getByText('from the first tab')).toHaveCount(0);
});

test(
  'a tab that has not heard of another changes the same box: other values are both kept, the same value is told',
  { tag: '@whole' },
  async ({ page, open, context, server }) => {
    // Two pages that are loaded whole, one of them twice.
    test.slow();
    await open('/box/archive/keep');
    const deaf = await context.newPage();
    // What the other tab tells does not arrive, as in the moment before it does.
    await deaf.addInitScript(() => {
      BroadcastChannel.prototype.addEventListener = () => undefined;
    });
    await deaf.goto(`${server.address}/box/archive/load`);
    await expect(deaf.locator('h1')).toBeVisible();
    const rename = async (tab: typeof page, name: string): Promise<void> => {
      await unfold(tab.getByRole('button', { name: 'Rename or remove this box' }));
      await tab.getByLabel('Name of the box').fill(name);
      await tab.getByRole('button', { name: 'Rename' }).click();
      await kept(tab);
    };
    const rail = (tab: typeof page) => tab.getByRole('navigation', { name: 'Bench' });
    await rename(page, 'Stone store');
    await expect(rail(deaf)).not.toContainText('Stone store');
    await deaf.getByRole('button', { name: /^Sign off/ }).click();
    for (const tab of [page, deaf]) {
      const box = rail(tab).getByRole('link', { name: /Stone store/ });
      await expect(box.getByRole('img')).toHaveAccessibleName(/^10 of 12 stops/);
    }
    await deaf.goto(`${server.address}/box/archive/keep`);
    await expect(deaf.locator('h1')).toBeVisible();
    await rename(page, 'First');
    await rename(deaf, 'Second');
    // It says that it was overtaken and by what, and shows the one name that is kept.
    const told = deaf.getByRole('alert').filter({ hasText: 'Another tab was first' });
    await expect(told).toContainText('“First”');
    for (const tab of [page, deaf]) await expect(rail(tab)).toContainText('First');
    await axe(deaf);
    await deaf.getByRole('button', { name: 'Understood' }).click();
    await expect(told).toHaveCount(0);
  },
);

test('export and import: a round trip to the byte, a preview, one undo', async ({ page, open, scratch }) => {
  await open('/bench');
  const save = async (): Promise<string> => {
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save the bench to a file' }).click();
    return readFileSync(await (await saved).path(), 'utf8');
  };
  const first = await save();
  const file = join(scratch, 'bench.json');
  writeFileSync(file, first);
  await page.locator('main').getByRole('button', { name: 'Start an empty bench' }).click();
  await expect(headline(page)).toHaveText('What is the first box to be?');
  await axe(page);
  await open('/bench');
  await page.getByLabel('Bench file').setInputFiles(file);
  await expect(headline(page)).toHaveText('Put “Saltmarsh Hall” in place of this bench?');
  await expect(page.getByRole('row', { name: /Boxes/ })).toContainText('6');
  await axe(page);
  await page.getByRole('button', { name: 'Put it in place' }).click();
  await expect(headline(page)).toContainText('Film night must not go on yet');
  await open('/bench');
  expect(await save()).toBe(first);
  await page.locator('#sheet').focus();
  await page.keyboard.press('Control+z');
  await expect(status(page)).toContainText('Undone: Bench “Saltmarsh Hall” opened');
  await expect(page.getByText('None yet.')).toBeVisible();
});

test('a bad file: the path of the wrong field and why, and nothing changed', async ({
  page,
  open,
  scratch,
}) => {
  await open('/bench');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the bench to a file' }).click();
  const raw = JSON.parse(readFileSync(await (await saved).path(), 'utf8')) as {
    boxes: { purpose: string }[];
    items: unknown[];
  };
  const [box] = raw.boxes;
  if (box) box.purpose = 'toasting';
  const bad = join(scratch, 'bad.json');
  writeFileSync(bad, JSON.stringify(raw));
  await page.getByLabel('Bench file').setInputFiles(bad);
  await expect(page.getByRole('alert')).toContainText('boxes[0].purpose');
  await expect(page.getByRole('alert')).toContainText('Nothing on your bench was changed');
  writeFileSync(bad, '{"oops"');
  await page.getByLabel('Bench file').setInputFiles(bad);
  await expect(page.getByRole('alert')).toContainText('not readable JSON');
  await expect(page.getByRole('link', { name: /Games corner/ })).toBeVisible();
});

test('storage that is full: the screen keeps what was done, says so, and keeps it later', async ({
  page,
  open,
}) => {
  await open('/box/archive/keep');
  // A second load, so that the demo itself is kept before storage fills up.
  await kept(page);
  await page.reload();
  await expect(headline(page)).toBeVisible();
  await page.evaluate(() => {
    const own = IDBObjectStore.prototype as unknown as {
      put: (...a: unknown[]) => unknown;
      kept?: (...a: unknown[]) => unknown;
    };
    own.kept = own.put;
    own.put = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  await addNote(page, 'must not be lost');
  await expect(page.getByRole('alert')).toContainText('Not saved: 1 act is on this screen only');
  await expect(page.getByRole('row', { name: /must not be lost/ })).toBeVisible();
  await axe(page);
  const asked = page.waitForEvent('dialog');
  await page.evaluate(() => void setTimeout(() => location.reload()));
  const question = await asked;
  expect(question.type()).toBe('beforeunload');
  await question.dismiss();
  await expect(page.getByRole('row', { name: /must not be lost/ })).toBeVisible();
  await page.evaluate(() => {
    const own = IDBObjectStore.prototype as unknown as { put: unknown; kept: unknown };
    own.put = own.kept;
  });
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await kept(page);
  await page.reload();
  await expect(page.getByRole('row', { name: /must not be lost/ })).toBeVisible();
});

test(
  'storage that is blocked: said plainly, and the bench can be saved to a file',
  { tag: '@whole' },
  async ({ page, open }) => {
    await page.addInitScript(() => {
      Object.defineProperty(window, 'indexedDB', {
        value: {
          open: () => {
            throw new DOMException('blocked', 'SecurityError');
          },
        },
      });
    });
    await open('/box/archive/keep');
    await expect(page.getByRole('alert')).toContainText('Nothing is kept in this browser');
    await addNote(page, 'while the page is open');
    await expect(page.getByRole('row', { name: /while the page is open/ })).toBeVisible();
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save to a file' }).click();
    expect(readFileSync(await (await saved).path(), 'utf8')).toContain('while the page is open');
  },
);

test(
  'a bench that cannot be read: where it is wrong, all of it handed out, and only then let go',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open('/shelf');
    await kept(page);
    await page.evaluate(
      () =>
        new Promise<void>((resolve, reject) => {
          const asked = indexedDB.open('zealous-box');
          asked.onerror = () => reject(new Error('no database'));
          asked.onsuccess = () => {
            const tx = asked.result.transaction('boxes', 'readwrite');
            tx.objectStore('boxes').put({ id: 'broken', name: 7 });
            tx.oncomplete = () => {
              asked.result.close();
              resolve();
            };
          };
        }),
    );
    await kept(page);
    await page.reload();
    await expect(headline(page)).toHaveText('The bench kept in this browser cannot be read');
    await expect(page.getByText(/boxes\[\d+\]\.name/)).toBeVisible();
    await axe(page);
    await expect(page.getByRole('button', { name: 'Begin anew' })).toBeDisabled();
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save what is kept to a file' }).click();
    expect(readFileSync(await (await saved).path(), 'utf8')).toContain('Games corner');
    await page.getByRole('button', { name: 'Begin anew' }).click();
    await expect(headline(page)).toHaveText('9 machines and what goes into them');
  },
);

test('a photo is made small and kept', async ({ page, open, scratch }) => {
  await open('/box/archive/keep');
  const png = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    canvas.width = 3000;
    canvas.height = 2000;
    canvas.getContext('2d')?.fillRect(0, 0, 1500, 900);
    return canvas.toDataURL('image/png');
  });
  writeFileSync(join(scratch, 'p.png'), Buffer.from(png.split(',')[1] ?? '', 'base64'));
  await page.getByRole('radio', { name: 'Photo' }).check({ force: true });
  await page.getByLabel('Picture').setInputFiles(join(scratch, 'p.png'));
  await page.getByLabel('What it shows').fill('cable order');
  await expect(page.getByAltText('The picture to add')).toBeVisible();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const size = await page
    .getByAltText('cable order')
    .evaluate((img: HTMLImageElement) => [img.naturalWidth, img.naturalHeight]);
  expect(size).toEqual([1280, 853]);
  writeFileSync(join(scratch, 'bad.png'), 'no picture');
  await page.getByRole('radio', { name: 'Photo' }).check({ force: true });
  await page.getByLabel('Picture').setInputFiles(join(scratch, 'bad.png'));
  await expect(page.getByRole('alert')).toContainText('not a picture');
});
