import { Readable } from 'node:stream';
import { relative, join } from 'node:path';
import { serveStatic } from '@hono/node-server/serve-static';
import { Hono, type Context } from 'hono';
import type { DepotImage } from '@zb/core/demo/depot';
import { BodyRefusal, jsonBody } from './body';
import { Depot } from './depot';
import { tellProgress } from './progress';
import { guardRequests, sendHeaders } from './security';
import { WriterRefusal } from './writer/refusal';
import { lanEventSchema, lanTexts } from '@zb/core/model/standInLan';
import { StandInLan } from './lan';
import { askOnce, mayBeAsked } from './watch';
import { stickFaultSchema, plugSchema, writeRequestSchema } from '@zb/core/model/standIns';
import { trialRoutes } from './starter/routes';
import { Starter, TrialRefusal } from './starter/starter';
import { usualPlaces, type Places } from '@zb/emulator/places';
import { Uploads } from './writer/uploads';
import { Writer } from './writer/writer';

export interface ServerOptions {
  dataDir: string;
  /** Folder of the built application; undefined serves the interfaces alone (development, tests). */
  webDir?: string;
  demo: boolean;
  pace: number;
  /** One address of one's own network may be asked whether it answers, when a person asks for it. */
  lan?: boolean;
  /** Seconds without a byte after which an upload is given up. */
  idleSeconds?: number;
  /** Where the emulator for trials is; undefined where Debian puts it. */
  emulator?: Places;
  /** Variables that trials with Secure Boot begin with, where they are not the usual ones. */
  secureVars?: string;
  /** Milliseconds after which a trial that nobody looks at is ended. */
  goneMs?: number;
  /** Bytes a trial may write, and leaves free; undefined: as is usual. */
  trialRoom?: { most: number; free: number };
  /** What the depot offers, where it is not the usual. */
  images?: readonly DepotImage[];
}

export interface App {
  app: Hono;
  writer: Writer;
  depot: Depot;
  starter: Starter;
  /** Resolves when what an earlier run left behind is put right and the depot's files are kept. Never rejects. */
  ready: Promise<void>;
}

const IDLE_SECONDS = 30;
const BAD = 'The request is not as expected; nothing was changed.';
const NO_FILE = 'The depot has no such file.';

/** The server: built application, stand-in depot, stand-in writer. State lives in `dataDir` only. */
export function createApp(options: ServerOptions): App {
  const depot = new Depot(options.dataDir, options.images);
  const writer = new Writer(join(options.dataDir, 'writer'), options.pace);
  const idleMs = 1000 * (options.idleSeconds ?? IDLE_SECONDS);
  const uploads = new Uploads(writer, join(options.dataDir, 'uploads'), idleMs);
  const recovered = writer.recover();
  const lan = new StandInLan(options.dataDir);
  const starter = new Starter(
    join(options.dataDir, 'trials'),
    options.emulator ?? usualPlaces({}),
    options.goneMs,
    options.secureVars,
    options.trialRoom,
  );
  const app = new Hono();
  app.use(sendHeaders);
  app.use(guardRequests);
  app.onError((error, c) => {
    if (error instanceof WriterRefusal || error instanceof BodyRefusal || error instanceof TrialRefusal)
      return c.json({ error: error.message }, error.status);
    console.error('A request failed:', error);
    return c.json({ error: 'The server failed at this request. Nothing on your bench was changed.' }, 500);
  });

  app.get('/api/health', async (c) => {
    // What could not be kept is tried again: there may be room by now.
    lan.tryAgain();
    await depot.tryAgain();
    return c.json({
      ok: true,
      demo: options.demo,
      lan: options.lan === true,
      troubles: [
        ...(lan.trouble === null ? [] : [`The stand-in network cannot be kept: ${lan.trouble}.`]),
        ...(writer.book.trouble === null
          ? []
          : [`The record of writes cannot be kept: ${writer.book.trouble}.`]),
        ...(depot.trouble === null ? [] : [`The depot: ${depot.trouble}.`]),
      ],
    });
  });
  app.get('/api/depot', (c) => c.json(depot.files));
  app.get('/api/depot/SHA256SUMS', (c) => c.text(depot.sums));
  app.get('/api/depot/:file', (c) => {
    const found = depot.find(c.req.param('file'));
    if (!found) return c.json({ error: NO_FILE }, 404);
    const headers = {
      'Content-Type': 'application/octet-stream',
      'Content-Length': String(found.bytes),
    };
    if (c.req.method === 'HEAD') return c.body(null, 200, headers);
    const stream = Readable.toWeb(Readable.from(depot.pieces(found.file))) as ReadableStream;
    return c.body(stream, 200, headers);
  });

  // Nothing touches the sticks before the probes of an earlier run are taken back.
  app.use('/api/writer/*', async (_c, next) => {
    await recovered;
    await next();
  });
  const parsed = async <T>(c: Context, schema: { safeParse(v: unknown): { data?: T } }): Promise<T> => {
    const { data } = schema.safeParse(await jsonBody(c));
    if (data === undefined) throw new BodyRefusal(400, BAD);
    return data;
  };
  app.get('/api/writer/sticks', (c) => c.json(writer.book.sticks.list()));
  app.post('/api/writer/sticks', async (c) => c.json(writer.plug(await parsed(c, plugSchema)), 201));
  app.delete('/api/writer/sticks/:id', (c) => {
    writer.unplug(c.req.param('id'));
    return c.json({ ok: true });
  });
  app.put('/api/writer/sticks/:id/fault', async (c) => {
    const fault = await parsed(c, stickFaultSchema);
    return c.json(writer.setFault(c.req.param('id'), fault));
  });
  app.post('/api/writer/sticks/:id/probe', async (c) => c.json(await writer.probe(c.req.param('id'))));

  app.get('/api/writer/jobs', (c) => c.json(writer.book.list()));
  app.post('/api/writer/jobs', async (c) => {
    const request = await parsed(c, writeRequestSchema);
    const { image, stickId, serialTail, tag, shelf } = request;
    if (image.from === 'upload') return c.json(uploads.open(request, image), 201);
    const found = depot.find(image.file);
    if (!found) return c.json({ error: NO_FILE }, 404);
    const { bytes: total, sha256, file: imageName } = found;
    const job = writer.open({ stickId, serialTail, tag, shelf, imageName, total, sha256 });
    writer
      .run(job.id, () => depot.pieces(imageName))
      .catch((error: unknown) => console.error('A write ended in a way it never should:', error));
    return c.json(job, 201);
  });
  app.put('/api/writer/jobs/:id/content', async (c) => {
    const stream = c.req.raw.body;
    if (!stream) throw new BodyRefusal(400, BAD);
    const content = Readable.fromWeb(stream as Parameters<typeof Readable.fromWeb>[0]);
    // Whoever reads it meets its faults there; one that comes after the last read is nobody's.
    content.on('error', () => undefined);
    return c.json(await uploads.take(c.req.param('id'), content));
  });
  app.post('/api/writer/jobs/:id/cancel', (c) => {
    const job = writer.cancel(c.req.param('id'));
    return job ? c.json(job) : c.json({ error: 'No such write.' }, 404);
  });
  app.get('/api/writer/jobs/:id/events', (c) => {
    const job = writer.book.job(c.req.param('id'));
    if (!job) return c.json({ error: 'No such write.' }, 404);
    // Who asks for the head alone does not listen.
    return c.req.method === 'HEAD' ? c.body(null, 200) : tellProgress(c, job, writer.book);
  });
  trialRoutes(app, starter, depot, parsed);
  app.get('/api/lan', (c) => c.json(lan.state));
  app.post('/api/lan/events', async (c) =>
    lan.happen(await parsed(c, lanEventSchema))
      ? c.json(lan.state)
      : c.json({ error: 'The stand-in network has no such host.' }, 404),
  );
  app.get('/api/lan/look', (c) => {
    const what = lanTexts.find((t) => t === (c.req.query('as') ?? 'look'));
    return what === undefined ? c.json({ error: BAD }, 400) : c.text(lan.text(what));
  });
  app.get('/api/lan/answers', (c) => {
    const answers = lan.answers(c.req.query('address') ?? '');
    return c.json({ answers, millis: answers ? 1 : null });
  });
  app.get('/api/watch', async (c) => {
    if (options.lan !== true)
      return c.json(
        { error: 'Nobody is asked: start the server with ZB_LAN=1 to let it ask one address.' },
        403,
      );
    const address = mayBeAsked(c.req.query('address') ?? '');
    const port = Number(c.req.query('port'));
    if (!Number.isInteger(port) || port < 1 || port > 65_535 || address === undefined)
      return c.json({ error: 'Only an address of your own network is asked, at one port.' }, 400);
    return c.json(await askOnce(address, port));
  });
  app.all('/api/*', (c) => c.json({ error: 'No such address.' }, 404));

  if (options.webDir !== undefined) servePage(app, options.webDir);
  return { app, writer, depot, starter, ready: recovered.then(() => depot.keepAll()) };
}

function servePage(app: Hono, webDir: string): void {
  const root = relative(process.cwd(), webDir) || '.';
  app.use('/assets/*', async (c, next) => {
    await next();
    // Their names carry their content; what is not there must not be remembered for a year.
    if (c.res.status === 200) c.header('Cache-Control', 'public, max-age=31536000, immutable');
  });
  app.use('*', serveStatic({ root, precompressed: true }));
  app.all('/assets/*', (c) => c.text('No such file.', 404));
  // Every other address is one of the application's own: deep links land on the page that reads them.
  app.get('*', serveStatic({ root, path: 'index.html' }));
  app.all('*', (c) => c.text('No such address.', 404));
}
