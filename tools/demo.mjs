// npm run demo: install if needed, build, start with the demo bench, print the address.
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { installPackages } from './install.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
installPackages();
console.log('Building…');
await import('./build.mjs');
const server = spawn(process.execPath, ['packages/server/dist/main.mjs'], {
  cwd: root,
  stdio: 'inherit',
  env: {
    ...process.env,
    ZB_DEMO: '1',
    ZB_WEB: `${root}packages/web/dist`,
    ZB_DATA: process.env.ZB_DATA ?? `${root}.zb-data`,
  },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
