import { readFileSync } from 'node:fs';
import { axe, expect, headline, status, test } from './fixtures';

const GATE = '/box/guest-gate/load';

test('a broken promise is shown with a packet and its way, mended, and only then are the rules given away', async ({
  page,
  open,
}) => {
  await open(GATE);
  await expect(headline(page)).toContainText(
    'One promise fails: TCP 445 from Guests to Archive gets through',
  );
  await expect(page.getByRole('complementary')).toContainText('The rules break a promise you made');
  await axe(page);
  const promises = page.getByRole('region', { name: 'Promises' });
  await expect(promises.getByRole('row').nth(1)).toContainText('fails');
  await expect(page.getByRole('region', { name: 'That packet, rule by rule' })).toContainText('reading room');

  // While it fails nothing is given away.
  await page.getByRole('button', { name: 'Save the rules' }).click();
  await expect(page.getByRole('dialog')).toContainText('not given away');
  await expect(page.getByRole('dialog').getByLabel('What is written')).toHaveCount(0);
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Name what for: reading room' }).click();
  await expect(headline(page)).toContainText('All 12 promises hold');
  await expect(status(page)).toContainText('Name what for');
  await page.getByRole('button', { name: 'Save the rules' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('What is written')).toContainText('trap');
  await axe(page);
  for (const [form, says] of [
    ['nft', 'table inet gate {'],
    ['dnsmasq', 'interface=eth1.30'],
    ['sysctl', 'ip_forward = 1'],
    ['md', '# Rules of the gate'],
  ] as const) {
    await dialog.getByLabel('As', { exact: true }).selectOption(form);
    await expect(dialog.getByLabel('What is written')).toContainText(says);
  }
  await dialog.getByLabel('As', { exact: true }).selectOption('rollback');
  const saved = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save as a file' }).click();
  expect(readFileSync(await (await saved).path(), 'utf8')).toContain('WAIT=${WAIT:-60}');
  await page.keyboard.press('Escape');

  // Undone, it fails again.
  await page.keyboard.press('ControlOrMeta+z');
  await expect(headline(page)).toContainText('One promise fails');
});

test('by keys alone: from crossing to crossing, something let in, put aside, a promise made', async ({
  page,
  open,
}) => {
  await open(GATE);
  await expect(headline(page)).toContainText('One promise fails');
  await page.getByRole('button', { name: /^Outside to Hall/ }).focus();
  await page.keyboard.press('ArrowDown');
  // Hall does not meet itself: the arrow goes on to Guests.
  await expect(page.getByRole('button', { name: /^Guests to Hall/ })).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('button', { name: /^Guests to Outside/ })).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('button', { name: /^the gate itself to Guests/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText(
    'Nobody in the gate itself begins anything with Guests',
  );
  await page.getByRole('button', { name: 'Let something in' }).press('Enter');
  const form = page.getByRole('dialog');
  await form.getByLabel('Called').fill('a look at the guests');
  await form.getByLabel('From hour').fill('25:00');
  await form.getByRole('checkbox', { name: 'echo' }).check({ force: true });
  await form.getByRole('button', { name: 'Save' }).press('Enter');
  await expect(form).toContainText('is an hour such as');
  await form.getByLabel('From hour').fill('');
  await form.getByRole('button', { name: 'Save' }).press('Enter');
  await expect(page.getByRole('dialog')).toContainText('a look at the guests');
  await axe(page);
  await page.getByRole('dialog').getByRole('button', { name: 'let in', exact: true }).click();
  await expect(page.getByRole('dialog')).toContainText('put aside');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Another promise' }).click();
  const made = page.getByRole('dialog');
  await made.getByLabel('What is promised').selectOption('closed');
  await made.getByLabel('Who begins').selectOption('hall');
  await made.getByRole('checkbox', { name: 'Outside', exact: true }).check({ force: true });
  await made.getByRole('checkbox', { name: 'mail' }).first().check({ force: true });
  await made.getByRole('button', { name: 'Save' }).click();
  await expect(headline(page)).toContainText('2 promises fail');
});

test(
  'any packet is asked, told rule by rule with its answer, and refused where there is none',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open(GATE);
    await expect(headline(page)).toContainText('One promise fails');
    await page.keyboard.press('k');
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Comes in from').selectOption('guests');
    await dialog.getByLabel('Source', { exact: true }).fill('10.44.30');
    await dialog.getByLabel('Destination').fill('10.44.8.20');
    await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
    await expect(dialog.getByLabel('Source', { exact: true })).toHaveAttribute('aria-invalid', 'true');
    await dialog.getByLabel('Source', { exact: true }).fill('10.44.30.41');
    await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
    await expect(dialog.getByRole('table', { name: 'Its way', exact: true })).toContainText('let in');
    await expect(dialog.getByRole('table', { name: 'The way of its answer' })).toContainText(
      'known conversations go on',
    );
    await axe(page);
    await dialog.getByLabel('Destination').fill('10.44.8.90');
    await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
    await expect(dialog).toContainText('is dropped, and nothing answers');
    await dialog.getByLabel('Destination').fill('2001:db8::1');
    await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
    await expect(dialog).toContainText('not of one family');
  },
);

test(
  'sides, ports, names and forwarded ports are laid out, and what cannot be is refused',
  { tag: '@whole' },

  async ({ page, open }) => {
    await open(GATE);
    await page.getByRole('tab', { name: 'Sides and names' }).click();
    await axe(page);
    await page.getByRole('button', { name: 'Another side' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Name', { exact: true }).fill('Sensors');
    await dialog.getByLabel('What lies there').selectOption('things');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('complementary')).toContainText('No port leads to Sensors');
    await page.getByRole('button', { name: 'Another port' }).click();
    await dialog.getByLabel('As its system calls it').fill('eth1');
    await dialog.getByLabel('Number on its wire').fill('9999');
    await dialog.getByLabel('Side', { exact: true }).selectOption('Sensors');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog).toContainText('from 1 to 4094');
    await dialog.getByLabel('Number on its wire').fill('40');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('complementary')).toContainText('no network with a prefix');

    await page.getByRole('button', { name: 'Name services' }).click();
    await dialog.getByLabel('Name', { exact: true }).fill('printing');
    await dialog.getByLabel('Packets').fill('print 9100');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(dialog).toContainText('a line for each protocol');
    await dialog.getByLabel('Packets').fill('tcp 631, 9100-9102');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('region', { name: 'Services by name' })).toContainText('TCP 631, 9100–9102');

    await page.getByRole('button', { name: 'Lead a port in' }).click();
    await dialog.getByLabel('What for').fill('scans page');
    await dialog.getByLabel('Port outside').fill('8080');
    await dialog.getByLabel('To address').fill('192.168.1.1');
    await dialog.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('complementary')).toContainText('lies behind no port of the gate');
  },
);

test(
  'rules that run are held beside the plan, what goes through is noted, and the stand-ins try it out',
  { tag: '@whole' },
  async ({ page, open }) => {
    await open(GATE);
    await page.getByRole('button', { name: 'Hold beside the old ones' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('What the gate prints').fill('table inet filter { }');
    await dialog.getByRole('button', { name: 'Hold it against the plan' }).click();
    await expect(dialog).toContainText('That is not JSON');
    const rules = {
      nftables: [
        {
          chain: {
            family: 'inet',
            table: 't',
            name: 'f',
            type: 'filter',
            hook: 'forward',
            prio: 0,
            policy: 'accept',
          },
        },
        {
          rule: {
            family: 'inet',
            table: 't',
            chain: 'f',
            handle: 3,
            expr: [{ match: { op: '==', left: { meta: { key: 'skuid' } }, right: 0 } }, { drop: null }],
          },
        },
      ],
    };
    await dialog.getByLabel('What the gate prints').fill(JSON.stringify(rules));
    await dialog.getByRole('button', { name: 'Hold it against the plan' }).click();
    await expect(dialog.getByRole('table', { name: 'Promises of the running rules' })).toContainText('fails');
    await expect(dialog).toContainText('1 part not understood');
    await expect(dialog.getByRole('table', { name: 'Packets that change fate' })).toContainText('dropped');
    await axe(page);
    await page.keyboard.press('Escape');

    await page.getByRole('button', { name: 'Try it out' }).click();
    await expect(dialog).toContainText('things are tried');
    await expect(dialog.getByRole('table', { name: 'What is tried' })).toContainText('somebody in Guests');
    await dialog
      .getByRole('row', { name: /somebody in Outside.*its page.*the gate/ })
      .getByRole('button')
      .click();
    await expect(dialog.getByRole('img')).toHaveAccessibleName(/dropped/);
    await axe(page);
    await page.keyboard.press('Escape');

    await page.getByRole('tab', { name: 'How much goes through' }).click();
    await page.getByLabel('Mb/s, or what').fill('quick');
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.getByText('neither a number of Mb/s')).toBeVisible();
    await page
      .getByLabel('Mb/s, or what')
      .fill('{"start":{},"end":{"sum_received":{"bits_per_second":941000000}}}');
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.getByRole('table', { name: 'Measured' })).toContainText('941 Mb/s');
    await axe(page);
  },
);

test(
  'on a phone the crossings are gone through sideways, and a mend is pressed by touch',
  { tag: '@whole' },
  async ({ browser, server }) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 800 }, hasTouch: true });
    const page = await context.newPage();
    await page.goto(`${server.address}${GATE}`);
    await expect(headline(page)).toContainText('One promise fails');
    await page.getByRole('button', { name: 'Name what for: reading room' }).tap();
    await expect(headline(page)).toContainText('promises hold');
    await page.getByRole('button', { name: /^Guests to Hall/ }).tap();
    await expect(page.getByRole('dialog')).toContainText('reading room');
    await axe(page);
    await context.close();
  },
);
