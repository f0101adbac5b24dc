import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Command } from 'commander';
import { addresses } from './addresses';
import { clock } from './clock';
import { events } from './events';
import { faults } from './faults';
import { files } from './files';
import { floods } from './floods';
import { kills } from './kills';
import { matrix } from './matrix';
import { mutants } from './mutants';
import { Random } from './random';
import { readers } from './readers';
import { roundTrips } from './roundTrips';
import { scale } from './scale';
import { scripts } from './scripts';
import { smallDisk } from './smallDisk';
import { tabs } from './tabs';
import { testBoots } from './testBoots';
import type { Part } from './part';

/** The parts, with the share of the time each takes. */
const PARTS: Record<string, { part: Part; share: number }> = {
  kills: { part: kills, share: 0.18 },
  faults: { part: faults, share: 0.1 },
  smallDisk: { part: smallDisk, share: 0.1 },
  floods: { part: floods, share: 0.06 },
  matrix: { part: matrix, share: 0.04 },
  addresses: { part: addresses, share: 0.03 },
  mutants: { part: mutants, share: 0.1 },
  readers: { part: readers, share: 0.07 },
  files: { part: files, share: 0.07 },
  scripts: { part: scripts, share: 0.04 },
  roundTrips: { part: roundTrips, share: 0.05 },
  testBoots: { part: testBoots, share: 0.05 },
  clock: { part: clock, share: 0.04 },
  events: { part: events, share: 0.03 },
  tabs: { part: tabs, share: 0.1 },
  // Measured once, and only where it is asked for.
  scale: { part: scale, share: 0 },
};

const options = new Command('stress')
  .option('--seconds <n>', 'how long it takes in all', '600')
  .option('--seed <n>', 'the seed of an earlier run, to do it again')
  .option('--only <parts>', `some of ${Object.keys(PARTS).join(', ')}`)
  .option('--results <file>', 'where to write how many parts held, as JSON')
  .parse()
  .opts<{ seconds: string; seed?: string; only?: string; results?: string }>();
const seed = Number(options.seed ?? Date.now() % 1_000_000);
const chosen = Object.entries(PARTS).filter(([name]) =>
  options.only === undefined ? PARTS[name]?.share !== 0 : options.only.split(',').includes(name),
);
const shares = chosen.reduce((sum, [, { share }]) => sum + share, 0) || 1;
const dir = mkdtempSync(join(tmpdir(), 'zb-stress-'));
let failures = 0;
let passed = 0;
let failed = 0;
console.log(`A stress test of ${options.seconds} s with the seed ${seed}.`);

for (const [name, { part, share }] of chosen) {
  const counts = new Map<string, number>();
  const begun = Date.now();
  const end = begun + (1000 * Number(options.seconds) * share) / shares;
  let mine = 0;
  const bench = {
    random: new Random(seed),
    dir,
    // Every part does at least one round, however short the time.
    goOn: () => counts.size === 0 || Date.now() < end,
    count: (what: string, by = 1) => void counts.set(what, (counts.get(what) ?? 0) + by),
    wrong: (words: string) => {
      mine += 1;
      if (mine <= 20) console.error(`WRONG (${name}, seed ${seed}): ${words}`);
    },
  };
  try {
    await part(bench);
  } catch (error) {
    bench.wrong(`it broke off: ${error instanceof Error ? error.stack : String(error)}`);
  }
  failures += mine;
  if (mine === 0) passed += 1;
  else failed += 1;
  const figures = [...counts].map(([what, n]) => `${n} ${what}`).join(', ');
  console.log(`${name}: ${figures}; ${mine} wrong; ${((Date.now() - begun) / 1000).toFixed(0)} s`);
}
rmSync(dir, { recursive: true, force: true });
if (options.results !== undefined) writeFileSync(options.results, JSON.stringify({ passed, failed }));
console.log(
  failures === 0 ? 'Nothing went wrong.' : `${failures} things went wrong; again with --seed ${seed}.`,
);
process.exit(failures === 0 ? 0 : 1);
