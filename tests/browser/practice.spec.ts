import type { Page } from '@playwright/test';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import type { PracticeAct } from '@zb/core/model/practice';
import { exercises, findExercise } from '@zb/core/practice/exercises';
import { ownExercise, ownSetup } from '@zb/core/practice/own';
import { Playing, type Exercise } from '@zb/core/practice/play';
import { offerWords } from '@zb/core/words/practice/say';
import { careless, perfect } from '../../packages/core/test/practicePlayers';
import { axe, expect, headline, kept, test } from './fixtures';

/** A selection in `npm test`, one of each kind; all of them in `npm run proof practice`. */
const CHOSEN =
  process.env.ZB_PRACTICE === 'all'
    ? exercises
    : exercises.filter((e) => ['the-gate', 'one-of-four'].includes(e.id));
const SEED = 11;
/** The first seed at which carelessness meets its luck's end. */
const unlucky = (exercise: Exercise): number => {
  for (let seed = SEED; ; seed += 1)
    if (careless(exercise, seed).played.happened.some((h) => h.lost !== null)) return seed;
};

/** Does in the page what a scripted player did, by the names of what is on offer. */
async function act(
  page: Page,
  exercise: Exercise,
  seed: number,
  acts: readonly PracticeAct[],
): Promise<void> {
  const playing = new Playing(exercise, seed);
  for (const one of acts) {
    const offer = playing.stands().offers.find((o) => o.act.do === one.do && o.act.on === one.on);
    if (!offer) throw new Error(`${one.do} is not on offer`);
    await page.getByRole('button', { name: offerWords(exercise.id, offer), exact: true }).click();
    playing.take(one);
    // Each act is answered by what it led to; only then is the next one done.
    const { score, minute } = playing.stands();
    await expect(page.getByText(`${score} of 100`)).toBeVisible();
    await expect(page.getByText('Minutes of its evening').locator('..')).toContainText(String(minute));
  }
}

/** Time goes by only when it is told to. */
const byHand = async (page: Page, exercise: Exercise, seed: number): Promise<void> => {
  const machine = new Playing(exercise, seed).stands().panels.some((p) => p.kind === 'machine');
  if (machine) await page.getByText('by hand', { exact: true }).click();
};

for (const exercise of CHOSEN)
  test(`“${exercise.id}” is solved and lost in the page`, async ({ page, open }) => {
    test.setTimeout(180_000);
    await open(`/practice/${exercise.id}?seed=${SEED}`);
    await byHand(page, exercise, SEED);
    const good = perfect(exercise, SEED);
    await act(page, exercise, SEED, good.done);
    await expect(page.getByText('Without a fault, 100')).toBeVisible();
    await axe(page);
    await page.getByRole('button', { name: 'Again, the same' }).click();
    await expect(page.getByText('100 of 100')).toBeVisible();
    const seed = unlucky(exercise);
    await open(`/practice/${exercise.id}?seed=${seed}`);
    const bad = careless(exercise, seed);
    await act(page, exercise, seed, bad.done);
    await expect(page.getByText(`${bad.played.score} of 100`)).toBeVisible();
    await expect(page.getByText('Would have been lost').first()).toBeVisible();
    await kept(page);
    await page.getByRole('link', { name: 'All exercises' }).click();
    await expect(headline(page)).toContainText('1 of');
  });

test(
  'a key is caught by the keyboard while the machine wakes, and a try is found again after a reload',
  { tag: '@whole' },
  async ({ page, open }) => {
    const exercise = findExercise('start-once') as Exercise;
    await open(`/practice/start-once?seed=${SEED}`);
    await page.getByText('slow', { exact: true }).click();
    // The real rehearsal stands beside it.
    await page.getByRole('button', { name: 'Its rehearsal' }).click();
    await expect(page.getByText(/can be|may have to be done again|Every scenario/).first()).toBeVisible();
    await page.getByRole('button', { name: 'Put the stick in' }).click();
    await page.reload();
    await expect(page.getByRole('button', { name: 'Take the stick out' })).toBeVisible();
    await page.getByRole('button', { name: 'Press power' }).click();
    const note = await page.getByText(/^Setup is at/).innerText();
    const menu = /menu for once at (\w+)/.exec(note)?.[1] ?? '';
    const key = { Del: 'Delete', Esc: 'Escape' }[menu] ?? menu;
    const caught = page.getByText(`${menu} was caught: the menu for once.`);
    for (let n = 0; n < 60 && !(await caught.isVisible()); n += 1) {
      await page.keyboard.press(key);
      await page.waitForTimeout(250);
    }
    await expect(caught).toBeVisible();
    await page.getByRole('button', { name: /^A hint/ }).click();
    await expect(page.getByText('96 of 100')).toBeVisible();
    await axe(page);
    // What was left in the middle is on record as left.
    await page.getByRole('button', { name: 'Draw another' }).click();
    await kept(page);
    await page.getByRole('link', { name: 'All exercises' }).click();
    await page
      .getByRole('row', { name: new RegExp('Start it once') })
      .getByRole('link', { name: 'left' })
      .click();
    await expect(page.getByRole('main').getByText('was caught: the menu for once')).toBeVisible();
    expect(exercise.stop).toBe('firmware');
  },
);

test('one’s own box becomes an exercise, and one that cannot says why', async ({ page, open }) => {
  test.setTimeout(120_000);
  const bench = saltmarshHall();
  const box = bench.boxes.find((b) => b.id === 'film-night');
  const own = box && ownSetup(bench, box);
  if (!own || 'code' in own) throw new Error('the film night makes an exercise');
  await open('/practice');
  await axe(page);
  await page
    .getByRole('table', { name: 'Made from your boxes' })
    .getByRole('link', { name: 'Film night' })
    .click();
  const seed = Number(/\d+/.exec(await page.getByText(/^seed \d+$/).innerText())?.[0]);
  const exercise = ownExercise(own);
  await byHand(page, exercise, seed);
  await act(page, exercise, seed, perfect(exercise, seed).done);
  await expect(page.getByText('Without a fault, 100')).toBeVisible();
  await open('/practice/own:tea-room-music');
  await expect(headline(page)).toContainText('no exercise');
});
