// Writes the types of our theme's tokens and recipes where the component library looks for them, so that a token or a variant
// that is not there does not compile. Run by itself, and by whatever checks types.
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

export const writeThemeTypes = () =>
  execFileSync(
    `${root}node_modules/.bin/chakra`,
    ['typegen', 'packages/web/src/theme/index.ts', '--strict'],
    {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
    },
  );

if (process.argv[1] === fileURLToPath(import.meta.url)) writeThemeTypes();
