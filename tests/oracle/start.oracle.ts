/**
 * Predictions against observed starts: every image of makeImages.ts is started in the machine emulator with Debian's
 * BIOS and UEFI firmware, as a USB disk and as optical media.
 */
import { readFileSync } from 'node:fs';
import type { Outcome } from '@zb/core/model/inspection';
import { inPairs, startTogether } from './emulator';
import { inspectFile } from './files';
import { allImages, type Made } from './makeImages';

jest.setTimeout(60_000);

interface Attempt extends Made {
  firmware: 'bios' | 'uefi-x64' | 'uefi-ia32' | 'uefi-aa64';
  attached: Outcome['attached'];
}

/**
 * What is worth starting as optical media: what an optical drive could see something in, and two that it could not. Of all
 * that is worth it every run starts a selection; with ZB_STARTS=all (`npm run proof starts`) every image is started both
 * ways, which takes some minutes more.
 */
const SEEN = /optical|rescue|^ours|without a table|packed by gzip|^GPT, FAT32 loader part$|no boot code$/;
const ALL = process.env.ZB_STARTS === 'all';
const made = allImages();
/** Under BIOS a sector 0 without any code runs nothing, whatever lies behind it: four of those show it in every run. */
const MOST_CODELESS = 4;
let codeless = 0;
function worthStarting(image: Made, firmware: string, attached: Outcome['attached']): boolean {
  if (ALL) return true;
  if (attached === 'optical') return SEEN.test(image.name);
  if (
    firmware !== 'bios' ||
    readFileSync(image.path)
      .subarray(0, 440)
      .some((b) => b !== 0)
  )
    return true;
  codeless += 1;
  return codeless <= MOST_CODELESS;
}
const matrix = made.flatMap((image): Attempt[] =>
  image.firmwares.flatMap((firmware) =>
    firmware === 'uefi-x64-secure'
      ? []
      : (['disk', 'optical'] as const)
          .filter((attached) => worthStarting(image, firmware, attached))
          .map((attached) => ({ ...image, firmware, attached })),
  ),
);
/** So many of each firmware and way of attaching in every run, spread over all images. */
const MOST = { disk: 3, optical: 2 };
const attempts = matrix.filter((a) => {
  if (ALL) return true;
  const alike = matrix.filter((b) => b.firmware === a.firmware && b.attached === a.attached);
  const step = Math.max(1, alike.length / MOST[a.attached]);
  const at = alike.indexOf(a);
  return Math.floor(at / step) !== Math.floor((at - 1) / step);
});
type Settled = PromiseSettledResult<boolean>;
const results: Settled[] = [];
/** Of all that is worth starting; of those that are started, in their order. */
const foretold = new Map<Attempt, Outcome | undefined>();
let predicted: (Outcome | undefined)[] = [];
/** How many one machine takes: USB ports for disks, the places of two IDE channels for optical drives. */
const TOGETHER = { disk: 6, optical: 4 };

/**
 * Attempts that one start of the emulator can serve: under UEFI those foretold not to start, each other one by itself (BIOS
 * firmware tries only the first of several disks).
 */
function groups(): number[][] {
  const out: number[][] = [];
  const open = new Map<string, number[]>();
  attempts.forEach(({ firmware, attached }, i) => {
    // The whole matrix starts each image by itself, which also shows that starting several at once tells the same.
    if (ALL || firmware === 'bios' || predicted[i]?.starts !== 'no') {
      out.push([i]);
      return;
    }
    const key = `${firmware} ${attached}`;
    const group = open.get(key);
    if (group && group.length < TOGETHER[attached]) group.push(i);
    else {
      const fresh = [i];
      open.set(key, fresh);
      out.push(fresh);
    }
  });
  return out;
}

beforeAll(async () => {
  foretold.clear();
  for (const attempt of matrix) {
    const { path, firmware, attached } = attempt;
    const { outcomes } = await inspectFile(path);
    foretold.set(
      attempt,
      outcomes.find((o) => o.firmware === firmware && o.attached === attached),
    );
  }
  predicted = attempts.map((a) => foretold.get(a));
  const together = groups();
  const observed = await inPairs(
    together.map((group) => () => {
      const made = group.flatMap((i) => attempts[i] ?? []);
      const [{ firmware, attached } = { firmware: 'bios', attached: 'disk' } as const] = made;
      return startTogether(
        { firmware, attached },
        made.map(({ path, token }) => ({ image: path, token })),
      );
    }),
  );
  together.forEach((group, g) => {
    const seen = observed[g];
    group.forEach((i, n) => {
      results[i] =
        seen?.status === 'fulfilled'
          ? { status: 'fulfilled', value: seen.value[n] ?? false }
          : { status: 'rejected', reason: seen?.reason as unknown };
    });
  });
}, 900_000);

it('are at least 36 images', () => expect(new Set(made.map((m) => m.path)).size).toBeGreaterThanOrEqual(36));

it.each(attempts.map((a, i) => [a.name, a.firmware, a.attached, i] as const))(
  '%s: under %s as %s, what is predicted is what happens',
  (_name, _firmware, _attached, i) => {
    const result = results[i];
    if (result?.status !== 'fulfilled') throw new Error(`not observed: ${String(result?.reason)}`);
    const row = predicted[i];
    if (row?.starts === 'unknown') return;
    expect({ starts: row?.starts, reason: row?.reason }).toEqual({
      starts: result.value ? 'yes' : 'no',
      reason: row?.reason,
    });
  },
);

it('“cannot tell” is rare: at most three rows in a hundred', () => {
  const open = matrix.filter((a) => foretold.get(a)?.starts === 'unknown');
  expect(open.length / matrix.length).toBeLessThanOrEqual(0.03);
});
