// Bundles the command line into one file, so that `npx zb` starts without a compiler.
import { build } from 'esbuild';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
await build({
  absWorkingDir: root,
  entryPoints: ['packages/cli/src/main.ts'],
  outfile: 'packages/cli/dist/zb.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  // One package asks for a module of Node by `require`, which a bundle of ES modules lacks.
  banner: {
    js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
  },
  target: 'node20',
  // Finds its compiled part beside itself, which a bundle would lose.
  external: ['highs'],
  logLevel: 'warning',
});
