import { join } from 'node:path';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { addNote, launch, notes, ready, settled } from './pages';
import { bounded, type Part } from './part';
import { BuiltServer } from './server';

/** What a tab may hear: of this version, of another, and of none. */
const MESSAGES: unknown[] = [
  { kind: 'changed' },
  { kind: 'who has a bench' },
  { kind: 'has a bench', name: 'x'.repeat(5000) },
  { kind: 'changed', done: null },
  { kind: 'changed', done: {} },
  { kind: 'changed', done: { label: 'x', revision: 'many', mark: 1, changes: 'all' } },
  {
    kind: 'changed',
    done: { label: 'x', revision: 1e9, mark: '', changes: [{ in: 'nowhere', id: 'x', to: {} }] },
  },
  {
    kind: 'changed',
    done: { label: 'x', revision: 2, mark: '', changes: [{ in: 'boxes', id: 'archive', to: null }] },
  },
  {
    kind: 'changed',
    done: {
      label: 'x',
      revision: 3,
      mark: '',
      changes: [{ in: 'items', id: 'x', edits: [{ path: ['__proto__'], to: 1 }] }],
    },
  },
  { kind: 'another' },
  'text',
  42,
  null,
  [],
];
const WINDOW_EVENTS = [
  'resize',
  'scroll',
  'online',
  'offline',
  'storage',
  'focus',
  'blur',
  'visibilitychange',
  'hashchange',
  'pageshow',
  'languagechange',
  'message',
  'beforeprint',
  'afterprint',
  'pointermove',
  'wheel',
  'keyup',
];

/** Floods of messages of other tabs and of events of the browser: the page goes on, and nothing on the bench changes. */
export const events: Part = async ({ random, dir, goOn, count, wrong }) => {
  const server = await BuiltServer.start({ dataDir: `${dir}/events-data`, env: { ZB_DEMO: '1' } });
  const context = await launch(join(dir, 'events-profile'));
  context.setDefaultTimeout(20_000);
  try {
    const page = await context.newPage();
    page.on('pageerror', (error) => wrong(`the page in a flood: ${error.message}`));
    await ready(page, `http://127.0.0.1:${server.port}`);
    const boxes = saltmarshHall().boxes.map((b) => b.name);
    for (let round = 1; goOn(); round += 1) {
      const messages = Array.from({ length: random.int(100, 3000) }, () => random.pick(MESSAGES));
      const names = Array.from({ length: random.int(100, 5000) }, () => random.pick(WINDOW_EVENTS));
      await bounded(
        'a flood of events',
        60_000,
        page.evaluate(
          ([all, kinds]) => {
            const channel = new BroadcastChannel('zealous-box');
            for (const m of all) channel.postMessage(m);
            channel.close();
            for (const name of kinds) {
              window.dispatchEvent(new Event(name));
              document.dispatchEvent(new Event(name, { bubbles: true }));
            }
          },
          [messages, names] as const,
        ),
      );
      count('messages', messages.length);
      count('events', 2 * names.length);
      const text = `stress events ${round}`;
      const since = performance.now();
      await addNote(page, text);
      await settled(page);
      await page.getByText(text, { exact: true }).waitFor();
      const waited = performance.now() - since;
      if (waited > 15_000) wrong(`after a flood an act takes ${Math.round(waited)} ms`);
      if ((await notes(page)).filter((n) => n === text).length !== 1) wrong(`“${text}” is not kept once`);
      const rail = await page.getByRole('navigation', { name: 'Bench' }).innerText();
      for (const name of boxes)
        if (!rail.includes(name)) wrong(`“${name}” is not on the bench any more after a flood`);
    }
  } finally {
    await context.close();
    await server.end('SIGKILL');
  }
};
