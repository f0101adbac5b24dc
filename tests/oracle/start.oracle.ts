/**
 * Predictions against observed starts: every image of makeImages.ts is started in the machine emulator with Debian's
 * BIOS and UEFI firmware, as a USB disk and as optical media.
 */
import type { Outcome } from '@zb/core/image/types';
import { inPairs, starts } from './emulator';
import { inspectFile, scratch } from './files';
import { Maker, type Made } from './makeImages';

jest.setTimeout(60_000);
const room = scratch();
afterAll(() => room.clear());

interface Attempt extends Made {
  firmware: 'bios' | 'uefi-x64' | 'uefi-ia32' | 'uefi-aa64';
  attached: Outcome['attached'];
}

/**
 * As optical media every run starts what an optical drive could see something in, and two that it could not. With
 * ZB_STARTS=all (`npm run starts`) every image is started both ways, which takes some minutes more.
 */
const SEEN = /optical|rescue|^ours|without a table|packed by gzip|^GPT, FAT32 loader part$|no boot code$/;
const ALL = process.env.ZB_STARTS === 'all';
const made = new Maker(room).all();
const attempts = made.flatMap((image): Attempt[] =>
  image.firmwares.flatMap((firmware) =>
    firmware === 'uefi-x64-secure'
      ? []
      : (['disk', 'optical'] as const)
          .filter((attached) => attached === 'disk' || ALL || SEEN.test(image.name))
          .map((attached) => ({ ...image, firmware, attached })),
  ),
);
const observed: Promise<PromiseSettledResult<boolean>[]> = inPairs(
  attempts.map(
    ({ path, firmware, attached, token }) =>
      () =>
        starts({ firmware, attached, image: path, token }),
  ),
);
let results: PromiseSettledResult<boolean>[] = [];
let predicted: (Outcome | undefined)[] = [];

beforeAll(async () => {
  results = await observed;
  predicted = [];
  for (const { path, firmware, attached } of attempts) {
    const { outcomes } = await inspectFile(path);
    predicted.push(outcomes.find((o) => o.firmware === firmware && o.attached === attached));
  }
}, 900_000);

it('are at least 36 images', () => expect(new Set(made.map((m) => m.path)).size).toBeGreaterThanOrEqual(36));

it.each(attempts.map((a, i) => [a.name, a.firmware, a.attached, i] as const))(
  '%s: under %s as %s, what is predicted is what happens',
  (_name, _firmware, _attached, i) => {
    const result = results[i];
    if (result?.status !== 'fulfilled') throw new Error(`not observed: ${String(result?.reason)}`);
    const row = predicted[i];
    if (row?.starts === 'unknown') return;
    expect({ starts: row?.starts, because: row?.because }).toEqual({
      starts: result.value ? 'yes' : 'no',
      because: row?.because,
    });
  },
);

it('“cannot tell” is rare: at most one row in twenty', () => {
  const open = attempts.filter((_, i) => predicted[i]?.starts === 'unknown');
  expect(open.length / attempts.length).toBeLessThanOrEqual(0.05);
});
