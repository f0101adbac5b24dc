// Bundles the command line, so that `npx zb` starts without a compiler.
import { readdirSync, rmSync } from 'node:fs';
import { basename } from 'node:path';
import { build } from 'esbuild';
import { cliBundle } from './bundle.mjs';

const { metafile } = await build({ ...cliBundle, metafile: true });
// Its parts are named by what they hold: those of before would stay for ever.
const made = new Set(Object.keys(metafile.outputs).map((path) => basename(path)));
const dist = new URL('../packages/cli/dist/', import.meta.url);
for (const name of readdirSync(dist))
  if (!made.has(name)) rmSync(new URL(name, dist), { recursive: true, force: true });
