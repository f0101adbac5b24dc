// Builds all that runs: the command line, the server and the web application.
import { build } from 'esbuild';
import { fileURLToPath } from 'node:url';
import { build as buildWeb } from 'vite';
import './build-cli.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
await build({
  absWorkingDir: root,
  entryPoints: ['packages/server/src/main.ts'],
  outfile: 'packages/server/dist/main.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  logLevel: 'warning',
});
await buildWeb({ root: `${root}packages/web`, logLevel: 'warn' });
