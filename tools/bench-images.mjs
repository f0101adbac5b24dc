// Reading images: how little an inspection reads, and packed images in Chromium against the native tools.
import { execFileSync } from 'node:child_process';
import { closeSync, openSync, readSync, rmSync, statSync, writeFileSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { bundle } from './bundle.mjs';

const MIB = 1024 ** 2;
const GIB = 1024 ** 3;

/** Core functions as one module that Node can load. */
async function core(dir, source) {
  const entry = join(dir, 'bench-core.ts');
  writeFileSync(entry, source);
  const outfile = join(dir, 'bench-core.mjs');
  await build({ ...bundle(entry, outfile), absWorkingDir: process.cwd() });
  return import(pathToFileURL(outfile).href);
}

/** Stretches as an image has them: text that packs well, noise that does not, and free room. */
function makeImage(path, bytes) {
  const fd = openSync(path, 'w');
  const block = Buffer.alloc(4 * MIB);
  let x = 88172645;
  for (let at = 0; at < bytes; at += block.length) {
    const kind = (at / block.length) % 4;
    if (kind === 3) block.fill(0);
    else
      for (let i = 0; i < block.length; i += 4) {
        x ^= x << 13;
        x ^= x >>> 17;
        x ^= x << 5;
        block.writeInt32LE(kind === 0 ? x | 0 : x & 0x0f0f0f0f, i);
      }
    writeSync(fd, block);
  }
  closeSync(fd);
}

const seconds = (work) => {
  const since = performance.now();
  work();
  return (performance.now() - since) / 1000;
};
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** An image of 16 GiB, mostly holes: what its inspection reads of it. */
export async function benchInspect(dir, root) {
  const { depotImages, inspectImage } = await core(
    dir,
    `export { depotImages } from '${root}packages/core/src/demo/depot';\nexport { inspectImage } from '${root}packages/core/src/starting/inspect';\n`,
  );
  const path = join(dir, 'sixteen.img');
  execFileSync('truncate', ['-s', '16G', path]);
  execFileSync('sfdisk', ['-q', path], {
    input: 'label: gpt\nstart=2048, size=65536, type=U\nsize=20971520, type=L\ntype=L\n',
    env: { ...process.env, PATH: `${process.env.PATH}:/usr/sbin:/sbin` },
  });
  const esp = depotImages.find((d) => d.file.startsWith('tidegate')).build();
  const out = openSync(path, 'r+');
  writeSync(out, esp, 0, esp.length, MIB);
  closeSync(out);
  const fd = openSync(path, 'r');
  let read = 0;
  const { size } = statSync(path);
  const since = performance.now();
  const seen = await inspectImage({
    size,
    read: (offset, length) => {
      const buffer = new Uint8Array(Math.max(0, Math.min(length, size - offset)));
      read += buffer.length > 0 ? readSync(fd, buffer, 0, buffer.length, offset) : 0;
      return Promise.resolve(buffer);
    },
  });
  closeSync(fd);
  rmSync(path);
  const starts = seen.outcomes.filter((o) => o.starts === 'yes').map((o) => o.firmware);
  console.log(
    `inspect only, ${(size / GIB).toFixed(0)} GiB sparse: ${(read / MIB).toFixed(2)} MiB read in ${((performance.now() - since) / 1000).toFixed(2)} s, starts ${starts.join(', ')} (aim: under 8 MiB)`,
  );
}

/** Packed images unpacked, digested and read inside in Chromium, against the native tool piped into sha256sum. */
export async function benchPacked(browser, address, dir) {
  const plain = join(dir, 'plain.img');
  makeImage(plain, 256 * MIB);
  const page = await browser.newPage();
  const client = await page.context().newCDPSession(page);
  const memory = async () => {
    await client.send('HeapProfiler.collectGarbage');
    return (await client.send('Runtime.getHeapUsage')).usedSize;
  };
  for (const [kind, pack, unpack] of [
    ['gzip', 'gzip -1 -c', 'gzip -dc'],
    ['xz', 'xz -1 -T2 -c', 'xz -dc'],
    ['zstd', 'zstd -q -3 -c', 'zstd -qdc'],
  ]) {
    const file = join(dir, `plain.img.${kind}`);
    execFileSync('sh', ['-c', `${pack} "$1" > "$2"`, 'sh', plain, file]);
    const ratios = [];
    let grown = 0;
    for (let run = 0; run < 3; run += 1) {
      await page.goto(`${address}/images`);
      await page.waitForSelector('text=Open image files');
      await page.waitForTimeout(1500);
      const reference = seconds(() => execFileSync('sh', ['-c', `${unpack} "$1" | sha256sum`, 'sh', file]));
      const before = await memory();
      const since = performance.now();
      await page.getByLabel('Image file').setInputFiles(file);
      await page.waitForSelector('text=SHA-256 inside', { timeout: 300_000 });
      const ours = (performance.now() - since) / 1000;
      grown = Math.max(grown, (await memory()) - before);
      ratios.push(ours / reference);
      console.log(
        `  ${kind} run ${run + 1}: ${unpack} | sha256sum ${reference.toFixed(2)} s, in Chromium ${ours.toFixed(2)} s`,
      );
    }
    console.log(
      `${kind} of 256 MiB: ${median(ratios).toFixed(2)} × the native tool (median of 3; aim: at most 1.8); page memory grew by ${(grown / 1e6).toFixed(1)} MB (aim: under 64)`,
    );
    rmSync(file);
  }
  await page.close();
  rmSync(plain);
}
