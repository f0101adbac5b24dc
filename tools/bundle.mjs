// How the parts that run in Node are bundled, so that they start without a compiler.
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

const settings = (entryPoint) => ({
  absWorkingDir: root,
  entryPoints: [entryPoint],
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
/** Settings for a bundle of one file: from an entry point to it, both from the project's root. */
export const bundle = (entryPoint, outfile) => ({ ...settings(entryPoint), outfile });
export const serverBundle = bundle('packages/server/src/main.ts', 'packages/server/dist/main.mjs');
/** Of the command line only the part is read that is asked for. */
export const cliBundle = {
  ...settings('packages/cli/src/main.ts'),
  splitting: true,
  outdir: 'packages/cli/dist',
  entryNames: 'zb',
  outExtension: { '.js': '.mjs' },
};
