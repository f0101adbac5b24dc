// npm run stress: torments the built application for a chosen time and prints figures. `--help` tells its options.
import { build } from 'esbuild';
import { execFileSync, spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { bundle } from './bundle.mjs';
import { installPackages } from './install.mjs';
import { installDebianPackages } from './packages.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const out = `${root}node_modules/.cache/zb-stress`;
installPackages();
if ((await installDebianPackages()).length > 0) process.exit(1);
if (!process.env.ZB_STRESS_BUILT)
  execFileSync(process.execPath, ['tools/build.mjs'], { cwd: root, stdio: 'inherit' });
for (const name of ['main', 'faultyFs', 'shiftedClock'])
  await build({
    ...bundle(`tests/stress/${name}.ts`, `${out}/${name}.mjs`),
    // What brings files of its own beside it is not bundled.
    external: ['highs', '@playwright/test', 'jsdom'],
    alias: {
      '@zb/core': `${root}packages/core/src`,
      '@zb/server': `${root}packages/server/src`,
      '@zb/emulator': `${root}packages/emulator/src`,
    },
  });
// Small disks are mounted in a view of the file system of its own, which is gone with the process (unshare(1)).
const view = process.getuid() === 0 ? ['-m'] : ['-Urm'];
const { status } = spawnSync(
  'unshare',
  [...view, process.execPath, '--enable-source-maps', `${out}/main.mjs`, ...process.argv.slice(2)],
  { cwd: root, stdio: 'inherit', env: { ...process.env, ZB_STRESS_OUT: out } },
);
process.exit(status ?? 1);
