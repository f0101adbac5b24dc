/** What one stage decides or does, the others show: benches of the plans' fixtures, opened as a person opens a file. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { doneStep } from '@zb/core/acts/run';
import { runSheetOf } from '@zb/core/box/runSheet';
import { findBox, type Bench, type Box } from '@zb/core/model/bench';
import { applyChanges } from '@zb/core/model/changes';
import { benchToText } from '@zb/core/model/file';
import { emptyStopRecords } from '@zb/core/model/stopRecords';
import { planFixtures } from '../../packages/core/test/planFixtures';
import { expect, headline, kept, test } from './fixtures';

const fixture = (name: string): { bench: Bench; box: Box } => {
  const found = planFixtures.find((f) => f.name === name);
  if (!found) throw new Error(name);
  return found;
};
const boxIn = (bench: Bench): Box => {
  const found = findBox(bench, 'build');
  if (!found) throw new Error('no build');
  return found;
};
let made = 0;
/** Every step done, one after the other. */
function finished(bench: Bench): Bench {
  let now = bench;
  for (;;) {
    const { next } = runSheetOf(now, boxIn(now));
    if (!next) return now;
    made += 1;
    const at = new Date(Date.UTC(2026, 5, 1, 9, made)).toISOString();
    const id = (): string => `made-${(made += 1)}`;
    now = applyChanges(now, doneStep(now, boxIn(now), next, 'x', { now: at, id }).changes);
  }
}
/** The bench with a second build beside the first. */
const withNext = (bench: Bench, more: Partial<Box>): Bench => {
  const next: Box = {
    ...boxIn(bench),
    ...emptyStopRecords(),
    id: 'next',
    name: 'Next build',
    machineId: boxIn(bench).machineId,
    profileId: boxIn(bench).profileId,
    run: null,
    decisions: [],
    signoffs: [],
    createdAt: '2026-06-02T09:00:00.000Z',
    ...more,
  };
  return { ...bench, boxes: [...bench.boxes, next] };
};
async function opened(
  page: Page,
  open: (path: string) => Promise<void>,
  dir: string,
  bench: Bench,
): Promise<void> {
  const file = join(dir, 'bench.json');
  writeFileSync(file, benchToText(bench));
  await open('/bench');
  await page.getByLabel('Bench file').setInputFiles(file);
  await page.getByRole('button', { name: 'Put it in place' }).click();
  await expect(page.getByText('Put it in place')).toHaveCount(0);
  await kept(page);
}

test('a finished drive holds its system and is kept: another build of it meets a Stop', async ({
  page,
  open,
  scratch,
}) => {
  const done = finished(fixture('wipe the only drive').bench);
  const layout = boxIn(done).layout;
  await opened(page, open, scratch, withNext(done, { machineId: 'desk', layout, targetSerial: null }));
  await open('/shelf/a');
  await expect(page.getByRole('main')).toContainText('Small System');
  await expect(page.getByRole('main')).toContainText('in use by Build');
  await open('/box/next/install');
  await expect(page.getByRole('complementary').last()).toContainText('Stop');
  await expect(page.getByRole('complementary').last()).toContainText('Drive a');
  // What boots is what was installed, not the stick that was in.
  await open('/box/build/firmware');
  await expect(page.getByRole('main')).toContainText('Small System');
  await open('/box/build/run');
  await expect(headline(page)).toBeVisible();
  await expect(page.getByRole('main')).not.toContainText('does not reach its end');
});

test('a stick that was written for another build since is told where it was written first', async ({
  page,
  open,
  scratch,
}) => {
  const { bench } = fixture('wipe the only drive');
  const write = runSheetOf(bench, boxIn(bench)).steps.find((s) => s.key === 'write:write');
  if (!write) throw new Error('no write');
  const stamp = (n: number) => ({ now: `2026-06-01T09:0${n}:00.000Z`, id: () => `write-${n}` });
  const first = applyChanges(bench, doneStep(bench, boxIn(bench), write, 'x', stamp(1)).changes);
  const [system] = first.profiles;
  if (!system) throw new Error('no system');
  const two = { ...first, profiles: [system, { ...system, id: 'other', name: 'Other System' }] };
  const { targetSerial } = boxIn(first);
  const both = withNext(two, { profileId: 'other', targetSerial, layout: null });
  const next = findBox(both, 'next');
  const again = next && runSheetOf(both, next).steps.find((s) => s.key === 'write:write');
  if (!next || !again) throw new Error('no second write');
  const second = applyChanges(both, doneStep(both, next, again, 'x', stamp(2)).changes);
  await opened(page, open, scratch, second);
  await open('/box/build/write');
  await expect(page.getByRole('complementary').last()).toContainText('Stick stick');
  await expect(page.getByRole('complementary').last()).toContainText('Other System');
});

test('a suggested drive is nothing until it is chosen, and a drive of one build is marked in another', async ({
  page,
  open,
  scratch,
}) => {
  const { bench, box } = fixture('wipe the only drive');
  const open2: Bench = { ...bench, boxes: [{ ...box, layout: null }] };
  await opened(page, open, scratch, open2);
  await open('/box/build/install');
  await expect(page.getByRole('complementary').last()).toContainText('is suggested: choose it, or another');
  await open('/box/build/run');
  await expect(page.getByRole('complementary', { name: 'This step' })).toContainText(
    'does not reach its end',
  );
  await opened(page, open, scratch, withNext(bench, { machineId: null, layout: null, targetSerial: null }));
  await open('/shelf/a');
  await expect(page.getByRole('main')).toContainText('reserved for Build');
});

test('the installer’s medium that is the system’s drive is a Stop', async ({ page, open, scratch }) => {
  const { bench, box } = fixture('wipe the only drive');
  await opened(page, open, scratch, { ...bench, boxes: [{ ...box, targetSerial: 'SN-2026-a' }] });
  await open('/box/build/write');
  await expect(page.getByRole('complementary').last()).toContainText('Choose another medium for one of them');
});

test('an adapter that is not there is lacking, and a drive written in one goes out and in again', async ({
  page,
  open,
  scratch,
}) => {
  const { bench, box } = fixture('written in an adapter');
  const without = { ...bench, items: bench.items.filter((i) => i.kind !== 'adapter') };
  await opened(page, open, scratch, { ...without, boxes: [box] });
  await open('/box/build/gather');
  await expect(page.getByRole('main')).toContainText('to buy');
  await open('/box/build/run');
  await page.getByRole('button', { name: 'Show what is lacking' }).click();
  await expect(page.getByRole('region', { name: 'Where the plan ends' })).toContainText(
    'No adapter on the shelf',
  );
  await opened(page, open, scratch, { ...bench, boxes: [box] });
  await open('/box/build/install/opening');
  await expect(headline(page)).toContainText('“Drive a” out');
  await expect(headline(page)).toContainText('“Drive a” in');
});

test('a chain loader is made, goes in, stands first and stays', async ({ page, open, scratch }) => {
  await opened(page, open, scratch, fixture('a chain loader').bench);
  await open('/box/build/run');
  await page.getByRole('button', { name: 'All steps' }).click();
  const all = page.getByRole('dialog');
  const rows = all.getByRole('row').filter({ hasText: 'Stick chain' });
  await expect(rows).toHaveCount(3);
  await expect(all).not.toContainText('does not reach its end');
});
