import { execFileSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';

export const root = join(__dirname, '../../..');

/** Builds the command line into a bundle of its own beside the real one, so that it does not meet another test's. */
export function bundled(name: string): string {
  const outdir = join(root, `packages/cli/dist/test-${name}`);
  beforeAll(() => {
    execFileSync(
      process.execPath,
      [
        '--input-type=module',
        '-e',
        `import { build } from 'esbuild'; import { cliBundle } from '${root}/tools/bundle.mjs'; await build({ ...cliBundle, outdir: '${outdir}' });`,
      ],
      { cwd: root },
    );
  });
  afterAll(() => rmSync(outdir, { recursive: true, force: true }));
  return join(outdir, 'zb.mjs');
}
