// Builds all that runs: the command line, the server and the web application.
import { build } from 'esbuild';
import { fileURLToPath } from 'node:url';
import { build as buildWeb } from 'vite';
import './build-cli.mjs';
import { serverBundle } from './bundle.mjs';

await build(serverBundle);
await buildWeb({ root: fileURLToPath(new URL('../packages/web', import.meta.url)), logLevel: 'warn' });
