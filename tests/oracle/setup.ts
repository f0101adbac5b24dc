/** Before the oracles: the command line is built, and there is a place for what several of them start from. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import build from '../setup';

export default function setup(): void {
  build();
  process.env.ZB_MADE = mkdtempSync(join(tmpdir(), 'zb-made-'));
}
