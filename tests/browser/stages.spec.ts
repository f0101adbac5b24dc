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
import { boxIn, doAll, stamp } from '../../packages/core/test/doAll';
import { planFixtures } from '../../packages/core/test/planFixtures';
import { expect, headline, kept, test } from './fixtures';

const fixture = (name: string): { bench: Bench; box: Box } => {
  const found = planFixtures.find((f) => f.name === name);
  if (!found) throw new Error(name);
  return found;
};
/** The bench with a second build beside the first. */
const withNext = (bench: Bench, more: Partial<Box>): Bench => {
  const next: Box = {
    ...boxIn(bench, 'build'),
    ...emptyStopRecords(),
    id: 'next',
    name: 'Next build',
    machineId: boxIn(bench, 'build').machineId,
    profileId: boxIn(bench, 'build').profileId,
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

const ledger = (page: Page) => page.getByRole('complementary', { name: 'Ledger' });

test('a finished drive holds its system and is kept: another build of it meets a Stop', async ({
  page,
  open,
  scratch,
}) => {
  const done = doAll(fixture('wipe the only drive').bench, 'build').bench;
  const layout = boxIn(done, 'build').layout;
  await opened(page, open, scratch, withNext(done, { machineId: 'desk', layout, targetSerial: null }));
  await open('/shelf/a');
  await expect(page.getByRole('main')).toContainText('Small System');
  await expect(page.getByRole('main')).toContainText('in use by Build');
  await open('/box/next/install');
  await expect(ledger(page)).toContainText('Stop');
  await expect(ledger(page)).toContainText('Drive a');
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
  const write = runSheetOf(bench, boxIn(bench, 'build')).steps.find((s) => s.key === 'write:write');
  if (!write) throw new Error('no write');
  const first = applyChanges(bench, doneStep(bench, boxIn(bench, 'build'), write, 'x', stamp()).changes);
  const [system] = first.profiles;
  if (!system) throw new Error('no system');
  const two = { ...first, profiles: [system, { ...system, id: 'other', name: 'Other System' }] };
  const { targetSerial } = boxIn(first, 'build');
  const both = withNext(two, { profileId: 'other', targetSerial, layout: null });
  const next = findBox(both, 'next');
  const again = next && runSheetOf(both, next).steps.find((s) => s.key === 'write:write');
  if (!next || !again) throw new Error('no second write');
  const second = applyChanges(both, doneStep(both, next, again, 'x', stamp()).changes);
  await opened(page, open, scratch, second);
  await open('/box/build/write');
  await expect(ledger(page)).toContainText('Stick stick');
  await expect(ledger(page)).toContainText('Other System');
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
  await expect(ledger(page)).toContainText('is suggested: choose it, or another');
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
  await expect(ledger(page)).toContainText('Choose another medium for one of them');
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
