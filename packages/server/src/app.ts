import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { serveStatic } from '@hono/node-server/serve-static';
import { Hono, type Context } from 'hono';
import { streamSSE } from 'hono/streaming';
import { relative } from 'node:path';
import { Depot } from './depot';
import { guardRequests } from './security';
import { isOver } from '@zb/core/media/job';
import { faultSchema, plugSchema, startSchema } from './writer/types';
import { Uploads } from './writer/uploads';
import { Writer, WriterRefusal } from './writer/writer';

export interface ServerOptions {
  dataDir: string;
  /** Folder of the built application; undefined serves the interfaces alone (development, tests). */
  webDir?: string;
  demo: boolean;
  pace: number;
}

const BAD = 'The request is not as expected; nothing was changed.';

async function body(c: Context): Promise<unknown> {
  try {
    return await c.req.json();
  } catch {
    return undefined;
  }
}

/** The server: built application, stand-in depot, stand-in writer. State lives in `dataDir` only. */
export function createApp(options: ServerOptions): { app: Hono; writer: Writer; depot: Depot } {
  const depot = new Depot(options.dataDir);
  const writer = new Writer(`${options.dataDir}/writer`, options.pace);
  const uploads = new Uploads(writer, `${options.dataDir}/uploads`);
  const app = new Hono();
  app.use(guardRequests);
  app.onError((error, c) => {
    if (error instanceof WriterRefusal) return c.json({ error: error.message }, 409);
    return c.json({ error: `The server failed: ${error.message}. Nothing on your bench was changed.` }, 500);
  });

  app.get('/api/health', (c) => c.json({ ok: true, demo: options.demo }));
  app.get('/api/depot', (c) => c.json(depot.files.map(({ path: _path, ...rest }) => rest)));
  app.get('/api/depot/SHA256SUMS', (c) => c.text(depot.sums));
  app.get('/api/depot/:file', (c) => {
    const found = depot.find(c.req.param('file'));
    if (!found) return c.json({ error: 'The depot has no such file.' }, 404);
    const stream = Readable.toWeb(createReadStream(found.path)) as ReadableStream;
    return c.body(stream, 200, {
      'Content-Type': 'application/octet-stream',
      'Content-Length': String(found.bytes),
    });
  });

  app.get('/api/writer/sticks', (c) => c.json([...writer.sticks.values()]));
  app.post('/api/writer/sticks', async (c) => {
    const parsed = plugSchema.safeParse(await body(c));
    return parsed.success ? c.json(writer.plug(parsed.data), 201) : c.json({ error: BAD }, 400);
  });
  app.delete('/api/writer/sticks/:id', (c) => {
    writer.unplug(c.req.param('id'));
    return c.json({ ok: true });
  });
  app.put('/api/writer/sticks/:id/fault', async (c) => {
    const parsed = faultSchema.safeParse(await body(c));
    if (!parsed.success) return c.json({ error: BAD }, 400);
    const { realBytes, weakAt, pulledAt } = parsed.data;
    const fault = {
      ...(realBytes === undefined ? {} : { realBytes }),
      ...(weakAt === undefined ? {} : { weakAt }),
      ...(pulledAt === undefined ? {} : { pulledAt }),
    };
    return c.json(writer.setFault(c.req.param('id'), fault));
  });

  app.post('/api/writer/sticks/:id/probe', async (c) => c.json(await writer.probe(c.req.param('id'))));

  app.get('/api/writer/jobs', (c) => c.json(writer.list()));
  app.post('/api/writer/jobs', async (c) => {
    const parsed = startSchema.safeParse(await body(c));
    if (!parsed.success) return c.json({ error: BAD }, 400);
    const { image } = parsed.data;
    if (image.from === 'upload') return c.json(uploads.open(parsed.data, image), 201);
    const found = depot.find(image.file);
    if (!found) return c.json({ error: 'The depot has no such file.' }, 404);
    const job = writer.open(parsed.data, found.bytes);
    void writer.run(job.id, createReadStream(found.path));
    return c.json(job, 201);
  });
  app.put('/api/writer/jobs/:id/content', async (c) => {
    const stream = c.req.raw.body;
    if (!stream) return c.json({ error: BAD }, 400);
    const content = Readable.fromWeb(stream as Parameters<typeof Readable.fromWeb>[0]);
    return c.json(await uploads.take(c.req.param('id'), content));
  });
  app.post('/api/writer/jobs/:id/cancel', (c) => {
    const job = writer.cancel(c.req.param('id'));
    return job ? c.json(job) : c.json({ error: 'No such write.' }, 404);
  });
  app.get('/api/writer/jobs/:id/events', (c) => {
    const id = c.req.param('id');
    const job = writer.job(id);
    if (!job) return c.json({ error: 'No such write.' }, 404);
    return streamSSE(c, async (stream) => {
      await stream.writeSSE({ data: JSON.stringify(job) });
      if (isOver(job)) return;
      // Messages go out one after the other, and the stream stays open until the last of them is on its way.
      let sending: Promise<void> = Promise.resolve();
      await new Promise<void>((resolve) => {
        const stop = writer.listen(id, (now) => {
          const data = JSON.stringify(now);
          sending = sending.then(() => stream.writeSSE({ data }));
          if (!isOver(now)) return;
          stop();
          resolve();
        });
        stream.onAbort(() => {
          stop();
          resolve();
        });
      });
      await sending;
    });
  });
  app.all('/api/*', (c) => c.json({ error: 'No such address.' }, 404));

  if (options.webDir !== undefined) {
    const root = relative(process.cwd(), options.webDir) || '.';
    app.use('/assets/*', async (c, next) => {
      await next();
      c.header('Cache-Control', 'public, max-age=31536000, immutable');
    });
    app.use('*', serveStatic({ root, precompressed: true }));
    // Every other address is one of the application's own: deep links land on the page that reads them.
    app.get('*', serveStatic({ root, path: 'index.html' }));
  }
  return { app, writer, depot };
}
