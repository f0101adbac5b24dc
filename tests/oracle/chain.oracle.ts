/**
 * How far a start comes, foretold and observed: images whose loader starts and whose next stage is whole, absent, renamed,
 * cut or wiped (makeChains.ts) are started in the machine emulator. What is looked for is the last stage's own words.
 */
import type { Outcome, Rung } from '@zb/core/model/inspection';
import { inPairs, starts } from './emulator';
import { inspectFile } from './files';
import { allChains } from './makeChains';

jest.setTimeout(60_000);
/** A selection in every run: of each kind of chain one that holds or one that breaks. All in `npm run proof chains`. */
const SELECTED =
  /FAT: kernel absent|ext4: kernel cut|^shim.*whole$|entries: whole$|^ISOLINUX: (configuration absent|a loader wrapped)|^a distribution/;
const ALL = process.env.ZB_CHAINS === 'all';
const made = allChains();
const attempts = made
  .flatMap((c) => c.firmwares.map((firmware) => ({ ...c, firmware })))
  .filter((c) => ALL || SELECTED.test(c.name));
let foretold: (Outcome | undefined)[] = [];
let observed: PromiseSettledResult<boolean>[] = [];

beforeAll(async () => {
  foretold = [];
  for (const { path, firmware, attached } of attempts) {
    const { outcomes } = await inspectFile(path);
    foretold.push(outcomes.find((o) => o.firmware === firmware && o.attached === attached));
  }
  observed = await inPairs(
    attempts.map(
      ({ firmware, attached, path, token }) =>
        () =>
          starts({ firmware, attached, image: path, token }),
    ),
  );
}, 900_000);

it('are at least 20 images', () => expect(made.length).toBeGreaterThanOrEqual(20));

it.each(attempts.map((a, i) => [a.name, a.firmware, i] as const))(
  '%s: under %s the last stage speaks where that is foretold',
  (_name, _firmware, i) => {
    const result = observed[i];
    if (result?.status !== 'fulfilled') throw new Error(`not observed: ${String(result?.reason)}`);
    const row = foretold[i];
    expect({ starts: row?.starts, chain: row?.chain.map(brief) }).toEqual({
      starts: result.value ? 'yes' : 'no',
      chain: row?.chain.map(brief),
    });
  },
);

const brief = (r: Rung): string => `${r.rung} ${r.state}: ${JSON.stringify(r.why)}`;

it('every chain that is made is told: none is left open', async () => {
  const open: string[] = [];
  for (const { name, path, firmwares, attached } of made) {
    const { outcomes } = await inspectFile(path);
    const row = outcomes.find((o) => o.firmware === firmwares[0] && o.attached === attached);
    const last = row?.chain.at(-1);
    // What names a breaking chain is its own name: whole ones hold, all others break.
    const holds =
      /whole|through a link|default, by its id|lead to it|as a program$|is entered$|in a folder|removable path$|a distribution/.test(
        name,
      );
    if (row?.starts !== (holds ? 'yes' : 'no'))
      open.push(`${name}: ${row?.starts} ${last ? brief(last) : ''}`);
  }
  expect(open).toEqual([]);
});
