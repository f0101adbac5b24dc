// npm test: sets up a fresh machine, then lint, layers, types, unit, build, browser and oracle tests; one closing line for all.
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { stripVTControlCharacters } from 'node:util';
import { installPackages } from './install.mjs';
import { writeThemeTypes } from './theme-types.mjs';
import { installDebianPackages } from './packages.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const results = `${root}node_modules/.cache/zb-results`;
let passed = 0;
let failed = 0;
/** What failed and how, said once more at the end: between a thousand lines it is not found. */
const said = [];
const began = Date.now();

function run(command, args, env = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    });
    child.on('exit', (code) => resolve(code ?? 1));
    child.on('error', () => resolve(1));
  });
}

const LAYERS = ['--config', '.dependency-cruiser.mjs', 'packages', 'tests', 'tools'];
// The compiler in machine code; the one in JavaScript, whose syntax trees lint and layers read, has the same name in .bin.
const TYPES = `${root}node_modules/typescript-native/bin/tsc`;
const bin = (name) => `${root}node_modules/.bin/${name}`;

/** A step that either holds or does not; counts as one. */
async function check(title, command, args) {
  const since = Date.now();
  const code = await run(command, args);
  console.log(`${code === 0 ? 'holds' : 'FAILS'}: ${title} (${((Date.now() - since) / 1000).toFixed(0)} s)`);
  if (code === 0) passed += 1;
  else failed += 1;
}

/** A test runner that leaves its counts in a JSON file; a runner that leaves none has failed as a whole. */
async function suite(title, command, args, env, file, read) {
  const since = Date.now();
  const code = await run(command, args, env);
  let counts = { passed: 0, failed: 1 };
  try {
    counts = read(JSON.parse(readFileSync(file, 'utf8')));
    said.push(...(counts.said ?? []));
    if (code !== 0 && counts.failed === 0) counts.failed = 1;
    if (counts.passed + counts.failed === 0) counts.failed = 1;
  } catch {
    console.error(`${title} left no result.`);
  }
  console.log(
    `${title}: ${counts.passed} passed, ${counts.failed} failed (${((Date.now() - since) / 1000).toFixed(0)} s)`,
  );
  passed += counts.passed;
  failed += counts.failed;
}

const shortly = (text) => stripVTControlCharacters(text).split('\n').slice(0, 24).join('\n');

const fromJest = (r) => ({
  said: r.testResults
    .filter((file) => file.status === 'failed')
    .map((file) => `${file.name}\n${shortly(file.message)}`),
  passed: r.numPassedTests,
  // A test that was not run counts as failed: none may be skipped because something is missing.
  failed: r.numFailedTests + r.numPendingTests + r.numTodoTests + r.numRuntimeErrorTestSuites,
});
const specsOf = (suites) => suites.flatMap((s) => [...(s.specs ?? []), ...specsOf(s.suites ?? [])]);
const fromPlaywright = (r) => ({
  said: specsOf(r.suites)
    .filter((spec) => !spec.ok)
    .map((spec) => {
      const results = spec.tests.flatMap((t) => t.results);
      const errors = results.flatMap((result) => result.errors.map((e) => shortly(e.message)));
      return [`${spec.file}:${spec.line} ${spec.title}`, ...errors].join('\n');
    }),
  passed: r.stats.expected,
  // What passes only on a later try has failed once.
  failed: r.stats.unexpected + r.stats.skipped + r.stats.flaky,
});

const jest = (project, workers) =>
  suite(
    `${project} tests`,
    bin('jest'),
    [
      '--selectProjects',
      project,
      `--maxWorkers=${workers}`,
      '--json',
      `--outputFile=${results}/${project}.json`,
      '--silent',
    ],
    {},
    `${results}/${project}.json`,
    fromJest,
  );

// They are fetched and unpacked while what needs none of them goes on.
const debian = installDebianPackages();
installPackages();
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
writeThemeTypes();
// What neither starts a browser nor waits for one goes on beside it.
const lint = check('lint', bin('eslint'), ['.']);
await check('format', bin('prettier'), ['--check', '--log-level=warn', '.']);
await check('layers, and no circle', bin('depcruise'), LAYERS);
await check('types of core alone', process.execPath, [TYPES, '-p', 'packages/core']);
await check('types', process.execPath, [TYPES, '-p', 'tsconfig.json']);
await check('lint by types', bin('oxlint'), ['--type-aware']);
await check('build', process.execPath, ['tools/build.mjs']);
const missing = await debian;
if (missing.length > 0) {
  console.error(`Still missing: ${missing.join(' ')}`);
  failed += missing.length;
}
await Promise.all([lint, jest('unit', 2)]);
// From here one suite after the other, each on both cores: a page that has to wait for another is a page that is late.
await suite(
  'browser tests',
  bin('playwright'),
  // The rest, and these, are `npm run proof pages`.
  ['test', '--grep-invert', '@whole', '--reporter=line,json'],
  { PLAYWRIGHT_JSON_OUTPUT_NAME: `${results}/browser.json` },
  `${results}/browser.json`,
  fromPlaywright,
);
await suite(
  'stress test, a selection of a quarter of a minute',
  process.execPath,
  ['tools/stress.mjs', '--seconds', '15', '--seed', '1', '--results', `${results}/stress.json`],
  { ZB_STRESS_BUILT: '1' },
  `${results}/stress.json`,
  (r) => r,
);
// One more than there are cores: a trial waits for what its machine does.
await jest('oracle', 3);
if (said.length > 0) console.log(`What failed:\n\n${said.join('\n\n')}\n`);
console.log(`All of it took ${((Date.now() - began) / 60000).toFixed(1)} minutes.`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
