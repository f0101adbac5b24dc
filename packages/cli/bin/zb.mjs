#!/usr/bin/env node
import { existsSync } from 'node:fs';

const built = new URL('../dist/zb.mjs', import.meta.url);
if (!existsSync(built)) await import('../../../tools/build-cli.mjs');
await import(built.href);
