// Bundles the command line into one file, so that `npx zb` starts without a compiler.
import { build } from 'esbuild';
import { cliBundle } from './bundle.mjs';

await build(cliBundle);
