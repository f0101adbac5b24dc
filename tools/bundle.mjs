// How the parts that run in Node are bundled into one file each, so that they start without a compiler.
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

/** Settings for one bundle: from an entry point to a file, both from the project's root. */
export const bundle = (entryPoint, outfile) => ({
  absWorkingDir: root,
  entryPoints: [entryPoint],
  outfile,
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
export const serverBundle = bundle('packages/server/src/main.ts', 'packages/server/dist/main.mjs');
export const cliBundle = bundle('packages/cli/src/main.ts', 'packages/cli/dist/zb.mjs');
