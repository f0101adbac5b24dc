import { execFileSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';

export const root = join(__dirname, '../../..');

/** Builds the command line into a bundle of its own beside the real one, so that it does not meet another test's. */
export function bundled(name: string): string {
  const zb = join(root, `packages/cli/dist/zb-${name}-test.mjs`);
  beforeAll(() => {
    execFileSync(
      process.execPath,
      [
        '--input-type=module',
        '-e',
        `import { build } from 'esbuild'; import { cliBundle } from '${root}/tools/bundle.mjs'; await build({ ...cliBundle, outfile: '${zb}' });`,
      ],
      { cwd: root },
    );
  });
  afterAll(() => rmSync(zb, { force: true }));
  return zb;
}
