// npm run dev: the server rebuilt at start, and the web application with live reload in front of it.
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { installPackages } from './install.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
installPackages();
const { build } = await import('esbuild');
const { serverBundle } = await import('./bundle.mjs');
await build(serverBundle);
const run = (command, args, env) =>
  spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
const children = [
  run(process.execPath, ['packages/server/dist/main.mjs'], { PORT: '4180', ZB_DEMO: '1', ZB_WEB: 'none' }),
  run(process.execPath, ['node_modules/vite/bin/vite.js', 'packages/web'], {}),
];
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => children.forEach((c) => c.kill(signal)));
for (const child of children) child.on('exit', () => children.forEach((c) => c.kill()));
