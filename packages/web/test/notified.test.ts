/** @jest-environment jsdom */
/**
 * What the service worker does when somebody presses a notice of the system's (Notifications API, “notificationclick”), with
 * a stand-in of its scope; and what is asked of the system where it knows notices only of a worker, or none at all.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { runInNewContext } from 'node:vm';
import { onFollowed, tellSystem } from '../src/parts/systemNotice';

const SCRIPT = readFileSync(join(__dirname, '../public/notified.js'), 'utf8');

interface Page {
  said: unknown[];
  focused: number;
}
/** Presses a notice about `data` while so many pages are open; answers what came of it. */
async function pressed(data: unknown, open: number) {
  const pages: Page[] = Array.from({ length: open }, () => ({ said: [], focused: 0 }));
  const opened: string[] = [];
  let closed = 0;
  let work: Promise<unknown> = Promise.resolve();
  let heard: (event: unknown) => void = () => undefined;
  const self = {
    addEventListener: (type: string, listener: typeof heard) => {
      if (type === 'notificationclick') heard = listener;
    },
    clients: {
      matchAll: ({ type }: { type: string }) =>
        Promise.resolve(
          type !== 'window'
            ? []
            : pages.map((p) => ({
                postMessage: (m: unknown) => void p.said.push(m),
                focus: () => Promise.resolve((p.focused += 1)),
              })),
        ),
      openWindow: (to: string) => Promise.resolve(opened.push(to)),
    },
  };
  runInNewContext(SCRIPT, { self });
  heard({
    notification: { close: () => (closed += 1), data },
    waitUntil: (promise: Promise<unknown>) => (work = promise),
  });
  await work;
  return { pages, opened, closed };
}

describe('a notice that is pressed', () => {
  const data = { to: '/box/film-night/run' };
  it('brings the page to the front and there, and the others stay', async () => {
    const { pages, opened, closed } = await pressed(data, 2);
    expect(pages).toEqual([
      { said: [{ followed: data.to }], focused: 1 },
      { said: [], focused: 0 },
    ]);
    expect({ opened, closed }).toEqual({ opened: [], closed: 1 });
  });
  it('opens the page where there is none', async () => {
    expect(await pressed(data, 0)).toEqual({ pages: [], opened: [data.to], closed: 1 });
    expect((await pressed(null, 0)).opened).toEqual(['/']);
  });
});

describe('the system', () => {
  const notice = { title: 't', body: 'b', tag: 'k', to: '/shelf' };
  const put = (name: string, value: unknown, on: object = globalThis): void =>
    void Object.defineProperty(on, name, { value, configurable: true, writable: true });
  const before = Object.getOwnPropertyDescriptor(globalThis, 'Notification');
  afterEach(() => {
    put('serviceWorker', undefined, navigator);
    if (before) Object.defineProperty(globalThis, 'Notification', before);
    else Reflect.deleteProperty(globalThis, 'Notification');
  });
  /** A browser whose notices are made by the page, or throw as those of phones do. */
  const browser = (permission: string, throws = false): unknown[] => {
    const made: unknown[] = [];
    function Notice(title: string, options: object) {
      if (throws) throw new TypeError('Illegal constructor');
      made.push({ title, ...options });
      return {};
    }
    put('Notification', Object.assign(Notice, { permission }));
    return made;
  };

  it('is told through the worker, with where to land', async () => {
    const made = browser('granted');
    const shown: unknown[] = [];
    const active = {
      showNotification: (title: string, o: object) => Promise.resolve(shown.push({ title, ...o })),
    };
    put('serviceWorker', { getRegistration: () => Promise.resolve({ active, ...active }) }, navigator);
    await tellSystem(notice);
    expect(shown).toEqual([{ title: 't', body: 'b', tag: 'k', data: { to: '/shelf' } }]);
    expect(made).toEqual([]);
  });
  it('is told by the page where there is no worker yet', async () => {
    const made = browser('granted');
    put('serviceWorker', { getRegistration: () => Promise.resolve(undefined) }, navigator);
    await tellSystem(notice);
    expect(made).toEqual([{ title: 't', body: 'b', tag: 'k' }]);
  });
  it('is not told where nobody allowed it, and nothing breaks where it cannot be', async () => {
    for (const permission of ['default', 'denied']) {
      const made = browser(permission);
      await tellSystem(notice);
      expect(made).toEqual([]);
    }
    browser('granted', true);
    await expect(tellSystem(notice)).resolves.toBeUndefined();
    Reflect.deleteProperty(globalThis, 'Notification');
    await expect(tellSystem(notice)).resolves.toBeUndefined();
  });
  it('says where to go only to addresses of ours', () => {
    const worker = new EventTarget();
    put('serviceWorker', worker, navigator);
    const went: string[] = [];
    const stop = onFollowed((to) => went.push(to));
    const say = (data: unknown): boolean => worker.dispatchEvent(new MessageEvent('message', { data }));
    for (const data of [{ followed: '/match' }, { followed: 'https://elsewhere.example/' }, null, 7, {}])
      say(data);
    stop();
    say({ followed: '/shelf' });
    expect(went).toEqual(['/match']);
  });
});
