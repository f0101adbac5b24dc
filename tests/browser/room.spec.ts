import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { axe, depotFile, dropFiles, expect, headline, kept, sparse, test } from './fixtures';

const LANTERN = 'lantern-arcade-7.2-x64.img';
const sha256 = (path: string): string => createHash('sha256').update(readFileSync(path)).digest('hex');

test('five at once by drag and drop, one list for all of them, and its signature', async ({
  page,
  open,
  server,
  scratch,
}) => {
  const lantern = await depotFile(server, scratch, LANTERN);
  const curtain = await depotFile(server, scratch, 'curtain-player-12-x64.iso');
  const broken = await depotFile(server, scratch, 'tidegate-3-x64.img');
  const packed = join(scratch, 'packed.img.gz');
  writeFileSync(packed, gzipSync(readFileSync(lantern), { level: 1 }));
  const other = sparse(scratch, 'other.img', 5000);
  const list = join(scratch, 'SUMS');
  writeFileSync(
    list,
    [
      `${sha256(lantern)}  ./${LANTERN}`,
      `${'0'.repeat(64)} *tidegate-3-x64.img`,
      `SHA256 (curtain-player-12-x64.iso) = ${sha256(curtain)}`,
      `SIZE (curtain-player-12-x64.iso) = 17`,
      `${sha256(lantern)}  packed.img`,
    ].join('\r\n'),
  );
  const home = join(scratch, 'keys');
  execFileSync('mkdir', ['-m', '700', home]);
  const gpg = (...args: string[]): Buffer =>
    execFileSync('gpg', ['--homedir', home, '--batch', '--quiet', ...args], { stdio: 'pipe' });
  gpg(
    '--passphrase',
    '',
    '--quick-gen-key',
    'Saltmarsh Releases <releases@example.org>',
    'ed25519',
    'sign',
    'never',
  );
  writeFileSync(join(scratch, 'key.asc'), gpg('--armor', '--export'));
  gpg('--output', join(scratch, 'SUMS.sig'), '--detach-sign', list);

  await open('/images');
  await axe(page);
  await dropFiles(page, page.locator('[data-part="dropzone"]'), [lantern, curtain, broken, packed, other]);
  for (const name of [
    LANTERN,
    'curtain-player-12-x64.iso',
    'tidegate-3-x64.img',
    'packed.img.gz',
    'other.img',
  ])
    await expect(page.getByRole('row', { name: new RegExp(name.replace(/\./g, '\\.')) })).toBeVisible({
      timeout: 30_000,
    });
  await expect(page.getByText(/^Reading /)).toHaveCount(0);
  await page.getByLabel('Open a list').setInputFiles(list);
  const row = (name: string) =>
    page.getByRole('table', { name: 'Images on the shelf' }).locator('tr', { hasText: name });
  await expect(row(LANTERN)).toContainText('matches');
  await expect(row('tidegate')).toContainText('differs');
  await expect(row('curtain')).toContainText('list names another size');
  await expect(row('packed.img.gz')).toContainText('matches');
  await expect(row('packed.img.gz')).toContainText('by what is packed inside');
  await expect(row('other.img')).toContainText('not listed');
  await page.getByLabel('Open the publisher’s OpenPGP key').setInputFiles(join(scratch, 'key.asc'));
  await page.getByLabel('Open the signature beside the list').setInputFiles(join(scratch, 'SUMS.sig'));
  await expect(page.getByText(/Signed by “Saltmarsh Releases/)).toBeVisible();
  await expect(page.getByText(/does not prove who that is/)).toBeVisible();
  await axe(page);
  await kept(page);
  await page.reload();
  await expect(row('tidegate')).toContainText('differs');
});

test('a packed image: what is inside, its picture walked by keys, and the evidence one click away', async ({
  page,
  open,
  server,
  scratch,
}) => {
  const lantern = await depotFile(server, scratch, LANTERN);
  const packed = join(scratch, 'lantern.img.zst');
  execFileSync('zstd', ['-q', lantern, '-o', packed]);
  await open('/images');
  await page.getByLabel('Image file').setInputFiles(packed);
  await expect(page.getByText('Packed as zstd')).toBeVisible();
  await expect(page.getByText(/Inside is one image, 33.554.432 bytes/)).toBeVisible({ timeout: 20_000 });
  await expect(headline(page)).toContainText('it starts under BIOS and UEFI x64');
  await expect(page.getByText(/Written as it is, it starts nothing/)).toBeVisible();
  const parts = page.getByRole('list', { name: 'Parts of the image by offset' });
  await parts.getByRole('button').first().focus();
  await page.keyboard.press('ArrowDown');
  await expect(parts.getByRole('button', { name: /GPT, first copy/ })).toBeFocused();
  await page.keyboard.press('Enter');
  const fields = page.getByRole('region', { name: /Fields and bytes of GPT, first copy/ });
  await expect(fields).toContainText('both CRC-32 agree');
  await expect(fields).toContainText('45 46 49 20 50 41 52 54');
  await page.keyboard.press('End');
  await expect(parts.getByRole('button', { name: /GPT, second copy/ })).toBeFocused();
  await page.getByRole('button', { name: /loader BOOTX64.EFI on FAT part 2/ }).click();
  await expect(page.getByText(/machine type 8664h/)).toBeVisible();
  await axe(page);
});

test(
  'an image against a dump of the stick: the first difference, the part, and what the pattern means',
  { tag: '@whole' },
  async ({ page, open, server, scratch }) => {
    const lantern = await depotFile(server, scratch, LANTERN);
    const bytes = readFileSync(lantern);
    const lying = join(scratch, 'lying.img');
    writeFileSync(
      lying,
      Buffer.concat([bytes.subarray(0, 6 * 1024 * 1024), Buffer.alloc(bytes.length - 6 * 1024 * 1024)]),
    );
    const bit = join(scratch, 'bit.img');
    const turned = Buffer.from(bytes);
    turned.writeUInt8(turned.readUInt8(20_000_000) ^ 8, 20_000_000);
    writeFileSync(bit, turned);
    await open('/images');
    await page.getByLabel('Image file').setInputFiles(lantern);
    await expect(headline(page)).toContainText('it starts under');
    await page.getByText('Compare with a dump of the stick').click();
    const dump = page.getByLabel('Dump or other image');
    await dump.setInputFiles(lying);
    await expect(page.getByText(/claims more than it has: its real size is about 6.00 MiB/)).toBeVisible({
      timeout: 20_000,
    });
    await dump.setInputFiles(bit);
    await expect(page.getByText(/One single bit differs/)).toBeVisible({ timeout: 20_000 });
    await expect(page.getByText('20000000')).toBeVisible();
    await dump.setInputFiles(lantern);
    await expect(page.locator('[data-part="stamp"]', { hasText: 'SAME BYTES' })).toBeVisible({
      timeout: 20_000,
    });
    await axe(page);
    await kept(page);
    await page.reload();
    await page.getByText('Compare with a dump of the stick').click();
    await page.getByLabel(/again: the browser forgets files/).setInputFiles(bit.replace('bit', 'lying'));
    await expect(page.getByLabel('Dump or other image')).toBeVisible();
  },
);

test(
  'hostile files are read, named and change nothing else',
  { tag: '@whole' },
  async ({ page, open, scratch }) => {
    const make = (name: string, bytes: Uint8Array): string => {
      writeFileSync(join(scratch, name), bytes);
      return join(scratch, name);
    };
    const noise = Uint8Array.from({ length: 100_000 }, (_, i) => (Math.imul(i + 1, 2654435761) >>> 9) & 255);
    const chain = new Uint8Array(65536);
    chain.set([0x55, 0xaa], 510);
    chain.set([0, 0, 0, 0, 5, 0, 0, 0, 1, 0, 0, 0, 0xff, 0xff, 0xff, 0x7f], 446);
    chain.set([0x55, 0xaa], 1022);
    chain.set([0, 0, 0, 0, 5, 0, 0, 0, 0, 0, 0, 0, 0xff, 0xff, 0xff, 0x7f], 512 + 462);
    const files = [
      make('empty.img', new Uint8Array(0)),
      make('<img src=x onerror=alert(1)>.img', noise),
      make('circle.img', chain),
      make('lying.img.gz', Uint8Array.from([0x1f, 0x8b, 8, 0, ...noise])),
      make(
        'bomb.img.bz2',
        execFileSync('sh', ['-c', 'head -c 60000000 /dev/zero | bzip2 -9'], { maxBuffer: 1e8 }),
      ),
    ];
    await open('/images');
    await page.getByLabel('Image file').setInputFiles(files);
    await expect(page.getByRole('row', { name: /bomb/ })).toBeVisible({ timeout: 40_000 });
    await expect(page.getByRole('row', { name: /onerror/ })).toContainText('nothing for certain');
    await page.getByRole('button', { name: 'circle.img', exact: true }).click();
    await expect(page.getByText(/runs in a circle|has no end mark|goes on beyond/)).toBeVisible();
    await page.getByRole('button', { name: 'Open another image' }).click();
    await page.getByRole('button', { name: 'lying.img.gz', exact: true }).click();
    await expect(page.getByText(/damaged or cut short/)).toBeVisible();
    await page.getByRole('button', { name: 'Open another image' }).click();
    await page.getByRole('button', { name: 'bomb.img.bz2', exact: true }).click();
    await expect(page.getByText(/Inside is one image, 60.000.000 bytes/)).toBeVisible();
  },
);

test(
  'a 6 GiB file is read at once, and what waits behind it can be cancelled',
  { tag: '@whole' },
  async ({ page, open, server, scratch }) => {
    const large = await depotFile(server, scratch, LANTERN, 'large.img');
    truncateSync(large, 6 * 1024 ** 3);
    const second = sparse(scratch, 'second.img', 1000);
    await open('/images');
    await page.getByLabel('Image file').setInputFiles([large, second]);
    await expect(page.getByText('Reading large.img')).toBeVisible();
    await expect(page.getByText('Then second.img.')).toBeVisible();
    await page.getByRole('button', { name: 'Cancel all' }).click();
    await expect(page.getByText(/^Reading /)).toHaveCount(0);
    await expect(page.getByRole('row', { name: /second.img/ })).toHaveCount(0);
    // What the tables say was read before the digest began, and stays.
    await page.getByRole('button', { name: 'large.img', exact: true }).click();
    await expect(page.getByText(/the file is 6.408.896.512 bytes larger/)).toBeVisible();
  },
);

test(
  'a system is begun from an image: each value says where it is from, guesses are asked',
  { tag: '@whole' },
  async ({ page, open, server, scratch }) => {
    const curtain = await depotFile(server, scratch, 'curtain-player-12-x64.iso');
    await open('/images');
    await page.locator('input[type=file]').first().setInputFiles(curtain);
    await expect(page.getByRole('region', { name: 'What it says of itself' })).toBeVisible();
    await page.getByRole('button', { name: 'Begin a system from it' }).click();
    await expect(page.getByRole('button', { name: 'Save the profile' })).toBeVisible();
    const asked = page.locator('[data-part="said-check"]').filter({ hasText: 'guess' });
    const before = Number(/\d+/.exec((await asked.textContent()) ?? '')?.[0]);
    expect(before).toBeGreaterThan(10);
    await page.getByRole('tab', { name: /^Needs/ }).click();
    await page.getByRole('button', { name: 'Memory: it is right' }).click();
    await page.getByLabel('Cores', { exact: true }).first().fill('3');
    await axe(page);
    await page.getByRole('button', { name: 'Save the profile' }).click();
    await expect(asked).toContainText(`${before - 2} values`);
    await kept(page);
    await page.reload();
    await expect(asked).toContainText(`${before - 2} values`);
  },
);
