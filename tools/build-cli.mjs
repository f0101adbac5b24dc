// Bundles the command line, so that `npx zb` starts without a compiler.
import { build } from 'esbuild';
import { cliBundle } from './bundle.mjs';

await build(cliBundle);
