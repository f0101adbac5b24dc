/** Before the first test of a run: the command line is built once, for all that ask it. */
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';

export default function setup(): void {
  execFileSync(process.execPath, [join(__dirname, '../tools/build-cli.mjs')], { stdio: 'inherit' });
}
