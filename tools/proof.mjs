// npm run proof [name]: the whole of a proof of which `npm test` runs a selection; without a name, the names.
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const jest = (project, files) => [
  'node_modules/.bin/jest',
  '--selectProjects',
  project,
  '--testPathPatterns',
  files,
];
const PROOFS = {
  starts: {
    about: 'every image started as a disk and as optical media, each by itself',
    command: jest('oracle', 'start.oracle'),
    env: { ZB_STARTS: 'all' },
  },
  programs: {
    about: 'boot code that is itself the program, ours and a memory tester, each started',
    command: jest('oracle', 'programs.oracle'),
    env: { ZB_PROGRAMS: 'all' },
  },
  chains: {
    about: 'every chain of loaders started: whole, absent, renamed, cut and wiped stages',
    command: jest('oracle', 'chain.oracle'),
    env: { ZB_CHAINS: 'all' },
  },
  machines: {
    about: 'the survey under a real kernel in machines of other shapes; writes their reports to the fixtures',
    command: jest('oracle', 'machines.oracle'),
    env: { ZB_MACHINES: 'all' },
  },
  fuzz: {
    about:
      '20 000 damaged images and 6 000 damaged chains read: none throws, none is read without bound, none falsely starts',
    command: jest('oracle', 'fuzz'),
    env: { ZB_FUZZ: 'all' },
  },
  layout: {
    about: '300 random layouts written by sfdisk and sgdisk and read back to the sector',
    command: jest('oracle', 'layout.oracle'),
    env: { ZB_LAYOUT: 'all' },
  },
  order: {
    about:
      'every order of drives, stick in and out, under UEFI and BIOS in the emulator, and drives gone since',
    command: jest('oracle', 'order.oracle'),
    env: { ZB_ORDER: 'all' },
  },
  installers: {
    about: 'installers of ours on a real kernel: the drive each overwrites, 18 worlds',
    command: jest('oracle', 'installers.oracle'),
    env: { ZB_INSTALLERS: 'all' },
  },
  plan: {
    about:
      'seven whole plans in the emulator, start by start; 600 benches by dice against a second engine of the rules of a plan',
    command: jest('oracle', 'plan(Rules)?.oracle'),
    env: { ZB_PLAN: 'all', ZB_FUZZ: 'all' },
  },
  rehearse: {
    about: '500 plans by dice against a second engine that walks every world of every set of precautions',
    command: jest('oracle', 'rehearse.oracle'),
    env: { ZB_REHEARSE: 'all', ZB_FUZZ: 'all' },
  },
  network: {
    about:
      '4 000 addresses against Python, 40 clients on a real server, every order of returns, what seven tools take and print',
    command: jest('oracle', '(addresses|dhcp|networkFiles).oracle'),
    env: { ZB_NETWORK: 'all' },
  },
  space: {
    about: 'the room of every file system from 1 to 18 000 GiB, foretold and made',
    command: jest('oracle', 'space.oracle'),
    env: { ZB_SPACE: 'all' },
  },
  rules: {
    about:
      '31 plans by dice and four rulesets of others in the kernel, 3 000 packets each; roll-back played; 300 guests and seeds taken',
    command: jest('oracle', '(rules|guests).oracle'),
    env: { ZB_RULES: 'all', ZB_GUESTS: 'all', ZB_FUZZ: 'all', TZ: 'UTC' },
  },
  pools: {
    about:
      '212 sets of unequal drives filled until nothing more fits, every failure mounted, rows of real size made',
    command: jest('oracle', 'pool.oracle'),
    env: { ZB_POOLS: 'all' },
  },
  content: {
    about:
      'names on made file systems, clusters by mtools, doubles and lists by a shell, 400 trees renamed and undone',
    command: jest('oracle', 'content.oracle'),
    env: { ZB_CONTENT: 'all' },
  },
  tune: {
    about:
      'statistics against SciPy; 2 000 evenings on the stand-in for coverage and as many for false alarms; logs of real tools',
    command: jest('oracle', '(statistics|tune|tuneLogs).oracle'),
    env: { ZB_TUNE: 'all' },
  },
  calibration: {
    about: 'ranges of eight in ten held by seven kinds of simulated owners, twelve of each',
    command: jest('unit', 'core/test/learning'),
    env: { ZB_RUNS: 'all' },
  },
  trials: {
    about:
      'every image of the tools and the demo tried through the server, under BIOS, UEFI and Secure Boot; 8 GiB sent to it',
    command: jest('oracle', 'oracle/trials'),
    env: { ZB_TRIALS: 'all' },
  },
  properties: {
    about: 'every property over all its runs, of which npm test does a quarter',
    command: ['node_modules/.bin/jest', '--selectProjects', 'unit'],
    env: { ZB_RUNS: 'all' },
  },
  exports: {
    about: 'every file there is over a bench of hostile texts, with each of 35 texts in turn in every field',
    command: jest('unit', 'core/test/exports'),
    env: {},
    // Each in a process of its own: one fills its memory.
    each: Array.from({ length: 35 }, (_, turn) => ({ ZB_EXPORTS: String(turn) })),
  },
  hostile: {
    about:
      'lists of millions of lines and archives without end, read in bounded memory; every token of every reader 60 000 times',
    command: jest('unit', '(cli/test/hostile|core/test/repeatToken)'),
    env: { ZB_HOSTILE: 'all' },
  },
  pages: {
    about: 'every browser test, of which npm test leaves half out, and every screen at three widths',
    command: ['node_modules/.bin/playwright', 'test'],
    env: { ZB_PAGES: 'all' },
  },
  looks: {
    about:
      'every screen in light, in the dark, under forced colours and at 200 % zoom by axe, and the focus seen on everything Tab reaches',
    command: ['node_modules/.bin/playwright', 'test', 'looks.spec'],
    env: { ZB_LOOKS: 'all' },
  },
  practice: {
    about: 'every exercise solved and lost in the page',
    command: ['node_modules/.bin/playwright', 'test', 'practice.spec'],
    env: { ZB_PRACTICE: 'all' },
  },
  stress: {
    about: 'all parts of the stress test, for 75 minutes',
    command: ['tools/stress.mjs', '--seconds', '4500'],
    env: {},
  },
};

const [name] = process.argv.slice(2);
const proof = PROOFS[name];
if (!proof) {
  for (const [n, { about }] of Object.entries(PROOFS)) console.log(`npm run proof ${n}  ${about}`);
  process.exit(name === undefined ? 0 : 2);
}
let failed = 0;
for (const env of proof.each ?? [{}]) {
  const { status } = spawnSync(process.execPath, proof.command, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...proof.env, ...env },
  });
  if (status !== 0) {
    failed += 1;
    if (proof.each) console.error(`Failed with ${JSON.stringify(env)}.`);
  }
}
if (proof.each) console.log(`${proof.each.length - failed} of ${proof.each.length} turns hold.`);
process.exit(failed === 0 ? 0 : 1);
