// Builds all that runs: the command line, the server and the web application.
import { build } from 'esbuild';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { brotliCompressSync, constants } from 'node:zlib';
import { build as buildWeb } from 'vite';
import './build-cli.mjs';
import { serverBundle } from './bundle.mjs';
import { writeNotices } from './notices.mjs';

await build(serverBundle);
await buildWeb({ root: fileURLToPath(new URL('../packages/web', import.meta.url)), logLevel: 'warn' });

writeNotices();

// Packed beforehand, so that the server sends what is small: each text file lies beside its packed form.
const dist = new URL('../packages/web/dist/', import.meta.url);
for (const name of readdirSync(dist, { recursive: true }))
  if (/\.(js|css|html|svg|txt|wasm|webmanifest)$/.test(name)) {
    const bytes = readFileSync(new URL(name, dist));
    const packed = brotliCompressSync(bytes, {
      params: { [constants.BROTLI_PARAM_QUALITY]: 10, [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length },
    });
    writeFileSync(new URL(`${name}.br`, dist), packed);
  }
