// A million frame times read and judged in the page, on its own thread for it, as a ratio to NumPy reading the same file and
// working out the same percentiles without any interval, in the same run.
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';

const NUMPY = `
import sys, time, numpy as np
t = time.perf_counter()
x = np.loadtxt(sys.argv[1])
np.percentile(x, [50, 95, 99, 99.9]); x.mean(); np.sort(x)[-len(x)//100:].mean(); np.median(np.abs(np.diff(x)))
print(time.perf_counter() - t)
`;

/** Frame times that hang together, with a hitch now and then; the same each time. */
function frames(count) {
  let seed = 7;
  const random = () => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return seed / 2 ** 32;
  };
  let near = 0;
  return Array.from({ length: count }, () => {
    near = 0.8 * near + (random() - 0.5);
    return (16 * Math.exp(0.1 * near) + (random() < 0.003 ? 20 : 0)).toFixed(3);
  });
}

/** Seconds until the figures of a million frames stand on the sheet, three times. */
export async function benchTune(browser, address, dir) {
  const file = join(dir, 'frames.txt');
  writeFileSync(file, `${frames(1_000_000).join('\n')}\n`);
  const context = await browser.newContext({ serviceWorkers: 'block' });
  const page = await context.newPage();
  await page.goto(`${address}/box/games-corner/tune`);
  const ratios = [];
  for (let run = 1; run <= 3; run += 1) {
    const reference = Number(execFileSync('/usr/bin/python3', ['-c', NUMPY, file], { encoding: 'utf8' }));
    await page.getByRole('button', { name: 'Open a log', exact: true }).click();
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Open a log file' }).click();
    const since = performance.now();
    await (await chooser).setFiles(file);
    await page.getByText('1,000,000 frames').first().waitFor({ timeout: 60_000 });
    const ours = (performance.now() - since) / 1000;
    ratios.push(ours / reference);
    console.log(
      `run ${run}: a million frames read and judged with intervals ${ours.toFixed(2)} s (aim: under 2), NumPy without intervals ${reference.toFixed(2)} s`,
    );
    await page.keyboard.press('Escape');
  }
  ratios.sort((a, b) => a - b);
  console.log(`a million frames: ${ratios[1].toFixed(2)} of NumPy's time (median of 3)`);
  await context.close();
}
