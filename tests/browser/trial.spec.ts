import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Page } from '@playwright/test';
import { axe, depotFile, expect, headline, kept, startServer, test, unfold } from './fixtures';

async function fetched(page: Page): Promise<void> {
  const fetch = page.getByRole('button', { name: 'Fetch lantern-arcade-7.2-x64.img' });
  await unfold(page.getByRole('button', { name: /Nothing at hand/ }));
  await fetch.click();
  await kept(page);
}

test('an image of the depot is started before anything is written: its real screen, what was foretold, and both are kept', async ({
  page,
  open,
  server,
}) => {
  test.setTimeout(120_000);
  await open('/images');
  await fetched(page);
  await page.getByRole('button', { name: 'Start it on trial' }).click();
  await expect(headline(page)).toContainText('really do when it is started');
  await axe(page);
  await page.getByRole('radio', { name: 'BIOS', exact: true }).check({ force: true });
  await page.getByRole('button', { name: 'Start it', exact: true }).click();
  await expect(headline(page)).toHaveText('It started, as foretold', { timeout: 30_000 });
  await expect(page.getByRole('img', { name: /Lantern Arcade 7.2 starts here/ })).toBeVisible();
  await expect(page.getByLabel('Serial line')).toContainText('Lantern Arcade 7.2 starts here');
  // Keys go to the machine, and not to the page.
  await page.getByRole('application').focus();
  await page.keyboard.press('b');
  await expect(headline(page)).toHaveText('It started, as foretold');
  await axe(page);
  await page.getByRole('button', { name: 'End it, and keep what was seen' }).click();
  await expect(
    page.getByRole('row', { name: /BIOS, as a stick.*it starts.*it started.*as foretold/ }),
  ).toBeVisible();
  await kept(page);
  await page.reload();
  await expect(page.getByRole('row', { name: /BIOS, as a stick/ })).toHaveCount(1);
  // Left in the middle it ends, and the next can begin.
  await page.getByRole('button', { name: 'Start it', exact: true }).click();
  await expect(page.getByRole('img', { name: /./ }).first()).toBeVisible({ timeout: 30_000 });
  await open('/images');
  await expect
    .poll(
      async () =>
        (
          (await (await page.request.get(`${server.address}/api/trials`)).json()) as {
            current: { state: string };
          }
        ).current.state,
      {
        timeout: 20_000,
      },
    )
    .toBe('over');
});

test(
  'a packed image is unpacked on its way to the machine; opened again after a reload, another file is refused',
  { tag: '@whole' },
  async ({ page, open, server, scratch }) => {
    test.setTimeout(120_000);
    const lantern = await depotFile(server, scratch, 'lantern-arcade-7.2-x64.img');
    const packed = join(scratch, 'lantern.img.gz');
    writeFileSync(packed, gzipSync(readFileSync(lantern)));
    const other = join(scratch, 'other.img.gz');
    writeFileSync(other, gzipSync(readFileSync(lantern), { level: 1 }));
    await open('/images');
    await page.getByLabel('Image file').setInputFiles(packed);
    await page.getByRole('button', { name: 'Start it on trial' }).click();
    await expect(headline(page)).toContainText('really do when it is started');
    await kept(page);
    await page.reload();
    // A browser keeps no files: it is asked for again.
    const start = page.getByRole('button', { name: 'Start it', exact: true });
    await expect(start).toBeDisabled();
    await page.getByLabel('The image file again').setInputFiles(other);
    await expect(page.getByText(/Pick the one that was opened/)).toBeVisible();
    await expect(start).toBeDisabled();
    await page.getByLabel('The image file again').setInputFiles(packed);
    await page.getByRole('radio', { name: 'BIOS', exact: true }).check({ force: true });
    await start.click();
    await expect(headline(page)).toHaveText('It started, as foretold', { timeout: 30_000 });
    await page.getByRole('button', { name: 'End it, and keep what was seen' }).click();
    await expect(page.getByRole('row', { name: /BIOS, as a stick.*as foretold/ })).toBeVisible();
  },
);

test('without an emulator it says what to install, and all else works', async ({ page }) => {
  const dir = mkdtempSync(join(tmpdir(), 'zb-bare-'));
  const bare = await startServer(dir, '0', '4', { ZB_EMULATOR_PATH: dir, ZB_EMULATOR_FIRMWARE: dir });
  try {
    await page.goto(`${bare.address}/images`);
    await fetched(page);
    await page.getByRole('button', { name: 'Start it on trial' }).click();
    await expect(page.getByText('apt install qemu-system-x86 ovmf')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Start it', exact: true })).toBeDisabled();
    await axe(page);
  } finally {
    await bare.stop();
    rmSync(dir, { recursive: true, force: true });
  }
});
