import { join } from 'node:path';
import type { Page } from '@playwright/test';
import type { LanState } from '@zb/core/model/standInLan';
import { addNote, launch, narrow, notes, ready, settled } from './pages';
import { bounded, type Bench, type Part } from './part';
import type { Random } from './random';
import { onStick, sha256, STICKS, BuiltServer } from './server';

const YEAR = 365 * 86_400_000;
/** Milliseconds a clock may be wrong by: a second, an hour of summer time, a flat battery, beyond 2038 and 2106. */
const jump = (random: Random): number =>
  random.pick([
    -1000,
    1000,
    -3_600_000,
    3_600_000,
    -86_400_000,
    -20 * YEAR,
    20 * YEAR,
    90 * YEAR,
    -50 * YEAR,
    0,
  ]);

const shift = (server: BuiltServer, by: number): Promise<void> =>
  bounded(
    'the shift of a clock',
    5000,
    new Promise((done) => {
      server.child.once('message', () => done());
      server.child.send({ shift: by });
    }),
  );

/** A write, a body that trickles and a network, each under a clock that jumps: lengths of time stay what they are. */
async function underServer({ random, count, wrong }: Bench, server: BuiltServer): Promise<void> {
  const stick = random.pick(STICKS.slice(0, 4));
  const content = random.bytes(random.int(100_000, 2_000_000));
  const began = performance.now();
  const job = await server.announce(stick, content);
  if (job.error !== undefined) return wrong(`a write under a shifted clock is refused: ${job.error}`);
  const sent = server.ask('PUT', `/api/writer/jobs/${job.id}/content`, content);
  for (let i = 0; i < 3; i += 1) await shift(server, jump(random));
  await sent;
  const over = await server.over(job.id, 30_000);
  const took = (performance.now() - began) / 1000;
  if (over.state !== 'proven') wrong(`under a clock that jumps: ${over.explanation}`);
  if (sha256(onStick(server.dataDir, stick.id, content.length)) !== job.sha256)
    wrong('proven, and not on the stick');
  for (const seconds of [over.seconds, over.writeSeconds ?? 0])
    if (seconds < 0 || seconds > took + 0.5) wrong(`${seconds} s are said of a write of ${took} s`);
  const lan = await server.json<LanState>('POST', '/api/lan/events', { kind: 'cut' });
  const far = random.pick([-YEAR, -86_400_000, YEAR]) + jump(random);
  await shift(server, far);
  for (const h of lan.hosts) {
    if (h.address === null || !h.plugged) continue;
    const { answers } = await server.json<{ answers: boolean }>(
      'GET',
      `/api/lan/answers?address=${h.address}`,
    );
    if (!answers && Math.abs(far) > 60_000) wrong(`after a clock that jumped ${h.id} never comes back`);
  }
  count('writes under a clock that jumps');
}

/** Notes and undo in a page whose clock jumps: each act is kept once, and what is taken back is the last act by order. */
async function underPage({ random, count, wrong }: Bench, page: Page, round: number): Promise<void> {
  const texts: string[] = [];
  for (let i = 0; i < 4; i += 1) {
    await page.evaluate((by) => Object.assign(globalThis, { shiftedBy: by }), jump(random));
    const text = `stress clock ${round} ${i}`;
    texts.push(text);
    await addNote(page, text);
    await settled(page);
  }
  const last = texts.pop();
  await page.getByRole('button', { name: 'Undo the last act' }).click();
  await settled(page);
  const kept = await notes(page);
  for (const text of texts)
    if (kept.filter((k) => k === text).length !== 1)
      wrong(`under a clock that jumps “${text}” is kept otherwise than once`);
  if (last !== undefined && kept.includes(last))
    wrong(`under a clock that jumps another act than the last is taken back`);
  await page.reload();
  await narrow(page, `stress clock ${round} `);
  for (const text of texts)
    await page
      .getByText(text, { exact: true })
      .waitFor({ timeout: 15_000 })
      .catch(() => wrong(`“${text}” is not shown any more after a clock that jumped`));
  count('acts under a clock that jumps', texts.length + 1);
}

/** Clocks that jump forward and back, of the server and of the page. */
export const clock: Part = async (bench) => {
  const preload = join(process.env.ZB_STRESS_OUT ?? '', 'shiftedClock.mjs');
  const server = await BuiltServer.start({
    dataDir: `${bench.dir}/clock-data`,
    preload,
    pace: '200',
    env: { ZB_DEMO: '1' },
  });
  const context = await launch(join(bench.dir, 'clock-profile'));
  context.setDefaultTimeout(20_000);
  try {
    const page = await context.newPage();
    page.on('pageerror', (error) => bench.wrong(`the page under a clock that jumps: ${error.message}`));
    await page.addInitScript(() => {
      const Real = Date;
      const by = (): number => (globalThis as { shiftedBy?: number }).shiftedBy ?? 0;
      globalThis.Date = new Proxy(Real, {
        construct: (_, given: unknown[]) =>
          given.length === 0 ? new Real(Real.now() + by()) : (Reflect.construct(Real, given) as Date),
        get: (of, key) => (key === 'now' ? () => Real.now() + by() : (Reflect.get(of, key) as unknown)),
      });
    });
    await ready(page, `http://127.0.0.1:${server.port}`);
    for (let round = 1; bench.goOn(); round += 1) {
      await underServer(bench, server);
      await underPage(bench, page, round);
      if (server.said.includes('nobody caught')) bench.wrong(server.said.slice(-2000));
    }
  } finally {
    await context.close();
    await server.end('SIGKILL');
  }
};
