import { createApp } from './app';
import { listen } from './listen';
import { settingsFrom, SettingsFault } from './settings';

/** The last net. Nothing is known to reach it; a fault that does is told in full and takes nobody else along. */
process.on('unhandledRejection', (fault) => console.error('A fault that nobody caught:', fault));
process.on('uncaughtException', (fault) => console.error('A fault that nobody caught:', fault));

function end(words: string): never {
  console.error(words);
  process.exit(1);
}

async function start(): Promise<void> {
  const { port: wanted, ...options } = settingsFrom(process.env);
  const { app, ready, starter } = createApp(options);
  const { server, port } = await listen(app, wanted).catch((error: Error) =>
    end(`The server could not start: ${error.message}. Set PORT to a free port.`),
  );
  console.log(`Zealous Box is at http://127.0.0.1:${port}/`);
  console.log('It answers on this machine only. Ctrl-C stops it.');
  const stop = (): void => {
    starter
      .close()
      .catch((error: unknown) => console.error('A trial could not be ended:', error))
      .finally(() => server.close(() => process.exit(0)));
    // Open event streams would keep the server alive; they are cut after a moment.
    setTimeout(() => process.exit(0), 500).unref();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  await ready;
}

start().catch((error: unknown) =>
  end(error instanceof SettingsFault ? error.message : `The server could not start: ${String(error)}.`),
);
