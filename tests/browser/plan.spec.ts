import { axe, expect, headline, kept, test } from './fixtures';

test('a plan that does not reach its end says what is lacking, and leads to where it is decided', async ({
  page,
  open,
}) => {
  await open('/box/film-night/run');
  await page.getByRole('button', { name: 'Show what is lacking' }).click();
  const end = page.getByRole('region', { name: 'Where the plan ends' });
  await expect(end.getByRole('heading')).toHaveText('The plan does not reach its end: 1 thing is lacking.');
  await expect(end).toContainText('Nobody has chosen the stick.');
  await expect(end).toContainText('“Scans drive” keeps what is on it.');
  await axe(page);
  await end.getByRole('button', { name: 'Decide it at Write' }).click();
  await expect(page).toHaveURL(/\/box\/film-night\/write$/);
});

test('a step that cannot be done yet wants a reason, and leads to where that is decided', async ({
  page,
  open,
}) => {
  await open('/box/film-night/run');
  const done = page.getByRole('button', { name: 'Done' });
  for (const title of [/^Fetch /, /^Compare its sum/, /^Unplug at the writing machine/]) {
    await expect(headline(page)).toHaveText(title);
    await done.click();
  }
  await expect(headline(page)).toHaveText(/^Write the stick/);
  await expect(page.getByRole('main')).toContainText('Nobody has chosen the stick.');
  await expect(done).toBeDisabled();
  await page.keyboard.press('Space');
  await expect(headline(page)).toHaveText(/^Write the stick/);
  await page.getByLabel('Why you go on all the same').fill('written elsewhere');
  await expect(done).toBeEnabled();
  await axe(page);
  await page.getByRole('main').getByRole('button', { name: 'Decide it at Write' }).click();
  await expect(page).toHaveURL(/\/box\/film-night\/write$/);
});

test('a stage that is marked as done ticks no step, and what was ticked says by what it is known', async ({
  page,
  open,
}) => {
  await open('/box/archive/run');
  await page.keyboard.press('l');
  const steps = page.getByRole('dialog').getByRole('table', { name: 'Steps' });
  await expect(steps.getByRole('row', { name: /Read what Old Oak is/ })).toContainText(
    'done, seen in the bench',
  );
  await expect(steps.getByRole('row', { name: /Fetch Coldstore/ })).toContainText('done, by your word');
  await expect(steps.getByRole('row', { name: /Compare its sum/ })).toContainText('not recorded');
  await steps.getByRole('button', { name: /Compare its sum/ }).click();
  await expect(headline(page)).toHaveText(/Compare its sum/);
  await expect(page.getByText('Not recorded.')).toBeVisible();
  await page.getByRole('button', { name: 'Done' }).click();
  await kept(page);
  await page.keyboard.press('l');
  await expect(steps.getByRole('row', { name: /Compare its sum/ })).toContainText('done, by your word');
});

test('a setting that is corrected by hand is a change, or a mistake of the record', async ({
  page,
  open,
}) => {
  await open('/shelf/tern');
  await page.getByRole('button', { name: 'Correct Secure Boot' }).click();
  await page.getByLabel(/Secure Boot/).selectOption('on');
  await page.getByRole('button', { name: 'I have changed it' }).click();
  await kept(page);
  await open('/logbook');
  await expect(page.getByRole('row', { name: /Secure Boot.*off.*on/ })).toBeVisible();
});
