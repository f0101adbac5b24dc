import { serve } from '@hono/node-server';
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { createApp } from './app';

const env = process.env;
const dataDir = resolve(env.ZB_DATA ?? '.zb-data');
const webDir = resolve(env.ZB_WEB ?? 'packages/web/dist');
const pace = Number(env.ZB_WRITER_PACE ?? '1');
const { app } = createApp({
  dataDir,
  ...(existsSync(webDir) && env.ZB_WEB !== 'none' ? { webDir } : {}),
  demo: env.ZB_DEMO === '1',
  pace: Number.isFinite(pace) && pace >= 0 ? pace : 1,
});
// A file may be long on its way, and longer where it waits for a turn: a request has no end of its own.
const options = {
  fetch: app.fetch,
  hostname: '127.0.0.1',
  port: Number(env.PORT ?? '0'),
  serverOptions: { requestTimeout: 0 },
};
const server = serve(options, (info) => {
  console.log(`Zealous Box is at http://127.0.0.1:${info.port}/`);
  console.log('It answers on this machine only. Ctrl-C stops it.');
});
server.on('error', (error: Error) => {
  console.error(`The server could not start: ${error.message}. Set PORT to a free port.`);
  process.exit(1);
});
const stop = (): void => {
  server.close(() => process.exit(0));
  // Open event streams would keep the server alive; they are cut after a moment.
  setTimeout(() => process.exit(0), 500).unref();
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
