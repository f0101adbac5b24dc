import { Readable } from 'node:stream';
import type { Context, Hono } from 'hono';
import { trialKeysSchema, trialRequestSchema } from '@zb/core/model/trial';
import type { Depot } from '../depot';
import { tellNewest } from '../progress';
import { TrialRefusal, type Starter } from './starter';

type Parsed = <T>(c: Context, schema: { safeParse(v: unknown): { data?: T } }) => Promise<T>;

/** A trial, to its end. */
const tellTrial = (c: Context, starter: Starter, id: string): Response =>
  tellNewest(
    c,
    starter.trial(id),
    (tell) => starter.listen(id, tell),
    (now) => now.state === 'over',
  );

/** Trials of images in the emulator. */
export function trialRoutes(app: Hono, starter: Starter, depot: Depot, parsed: Parsed): void {
  app.get('/api/trials', (c) => c.json(starter.desk));
  app.post('/api/trials', async (c) => {
    const order = await parsed(c, trialRequestSchema);
    if (order.image.from === 'upload') {
      if (order.image.container !== 'none' && order.image.innerBytes === null)
        throw new TrialRefusal(
          'What is inside this packed file has not been read yet, so its size is not known. Open it in the image room first. Nothing was started.',
          400,
        );
      return c.json(await starter.open(order, null), 201);
    }
    if (!depot.find(order.image.file)) throw new TrialRefusal('The depot has no such file.', 404);
    const here = await depot.kept(order.image.file);
    if (!here)
      throw new TrialRefusal(
        `The depot cannot keep its file now: ${depot.trouble ?? 'there is no room'}. Nothing was started. Make room, then try again.`,
        507,
      );
    return c.json(await starter.open(order, here), 201);
  });
  app.put('/api/trials/:id/content', async (c) => {
    const stream = c.req.raw.body;
    if (!stream) throw new TrialRefusal('No file came. Nothing was started.', 400);
    const content = Readable.fromWeb(stream as Parameters<typeof Readable.fromWeb>[0]);
    content.on('error', () => undefined);
    const trial = await starter.take(c.req.param('id'), content);
    // Of a trial that was ended meanwhile nobody wants the rest of the file.
    if (trial.state === 'over') c.header('Connection', 'close');
    return c.json(trial);
  });
  app.get('/api/trials/:id/events', (c) =>
    c.req.method === 'HEAD' ? c.body(null, 200) : tellTrial(c, starter, c.req.param('id')),
  );
  app.get('/api/trials/:id/screen', (c) => {
    const picture = starter.picture(c.req.param('id'));
    if (!picture) return c.json({ error: 'There is no picture yet.' }, 404);
    return c.body(new Uint8Array(picture), 200, { 'Content-Type': 'image/png', 'Cache-Control': 'no-store' });
  });
  app.post('/api/trials/:id/keys', async (c) => {
    const { keys } = await parsed(c, trialKeysSchema);
    await starter.press(c.req.param('id'), keys);
    return c.json({ ok: true });
  });
  app.delete('/api/trials/:id', async (c) => c.json(await starter.stop(c.req.param('id'))));
}
