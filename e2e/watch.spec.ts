import { expect, type Page } from '@playwright/test';
import { test } from './one-browser';
import type { Program } from './program';
import { signIn } from './technician';

test.describe.configure({ mode: 'serial' });

let program: Program;
let page: Page;
test.beforeAll(async ({ browser, demo }) => {
  program = demo;
  page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(program.origin);
  await signIn(page, program);
});
test.afterAll(() => page.context().close());

const watch = (query = '') => page.goto(`${program.origin}/watch${query}`);
const DAY_MS = 86_400_000;

test('lanes are live, and say what they said at a moment', async () => {
  await page.keyboard.press('w');
  await page.waitForURL(/\/watch/);
  await watch('?span=300000');
  const lanes = page.getByRole('slider', { name: 'Lanes of Attic agent' });
  await expect(lanes).toHaveAttribute('aria-valuetext', /Gateway: 0\.\d ms; Glue room tablet: /);
  const before = await lanes.getAttribute('aria-valuetext');
  await expect.poll(() => lanes.getAttribute('aria-valuetext')).not.toBe(before);
});

test('it is found when the line was out last week, for how long, and whose fault it was', async () => {
  await watch();
  await page.getByRole('button', { name: 'month' }).click();
  const outages = page.getByRole('region', { name: 'Outages' });
  await expect(outages.getByText('the gateway answered, nothing outside did: the line').first()).toBeVisible();
  await expect(outages.getByText(', 42 s:')).toBeVisible();
  await expect(outages.getByText('the gateway was silent too: ours, by cable')).toBeVisible();
  await expect(page.getByText(/the line was there 99\.9\d+ % of the watched time: silent for/)).toBeVisible();
  const item = outages.getByRole('listitem').filter({ hasText: ', 42 s:' });
  await item.getByRole('button').click();
  await expect(page).toHaveURL(/until=/);
  await expect(page.getByText('over 9 min', { exact: true })).toBeVisible();
});

test('who used the line in the evening is read off, with how much and for how long', async () => {
  await watch(`?span=${2 * DAY_MS}`);
  const busy = page.getByRole('region', { name: 'Busy times' });
  await expect(
    busy.getByText(/8\d\.\d of 100 Mb\/s up were in use, nearly all of it over Archive box at port 6$/).first(),
  ).toBeVisible();
  await expect(busy.getByRole('button', { name: /20:00/ }).first()).toBeVisible();
});

test('a run of that hour says that others used the line, how much, and that nothing is proven against the plan', async () => {
  const from = new Date();
  from.setDate(from.getDate() - 1);
  from.setHours(20, 0, 0, 0);
  const until = new Date(from.getTime() + 30 * 60_000);
  const span = `from=${from.toISOString()}&until=${until.toISOString()}`;
  const answer = await page.request.get(
    `${program.origin}/api/v1/runs?query=${encodeURIComponent('"Attic agent"')}&${span}`,
  );
  const { runs } = (await answer.json()) as { readonly runs: readonly { readonly id: string }[] };
  expect(runs).toHaveLength(1);
  await page.goto(`${program.origin}/runs/${runs[0]!.id}`);
  await expect(
    page.getByText(/others moved 82\.6 Mb\/s up over the line beside the 14\.\d Mb\/s of this run/).first(),
  ).toBeVisible();
  await expect(
    page.getByText('Others used 82.6 Mb/s of it up meanwhile: that way nothing can be said about the plan.').first(),
  ).toBeVisible();
  const conditions = page.getByRole('region', { name: 'Conditions' });
  await expect(conditions.getByText('others on the line')).toBeVisible();
});

test('what the intercom did stands beside its mark, with its interval', async () => {
  await watch(`?span=${DAY_MS}`);
  const marks = page.getByRole('region', { name: 'Marks' });
  await expect(
    marks.getByText(/Glue room tablet: \d+ ms instead of \d\.\d ms \(\d+ ms to \d+ ms more\)/).first(),
  ).toBeVisible();
  await expect(marks.getByText(/No difference that can be told: Gateway/).first()).toBeVisible();
});

test('a mark is begun with M, ended, and removed', async () => {
  await watch();
  await expect(page.getByRole('region', { name: 'Marks' })).toBeVisible();
  await page.keyboard.press('m');
  await page.keyboard.type('Heater on');
  await page.keyboard.press('Enter');
  const mark = page.getByRole('listitem').filter({ hasText: 'Heater on' });
  await expect(mark.getByText(/goes on since/)).toBeVisible();
  await mark.getByRole('button', { name: 'It is over' }).click();
  await mark.getByRole('button', { name: 'remove' }).click();
  await expect(mark).toHaveCount(0);
});

test('time is moved and zoomed with the keyboard, and the address holds it', async () => {
  await watch('?span=3600000');
  const lanes = page.getByRole('slider', { name: 'Lanes of Attic agent' });
  await lanes.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page).toHaveURL(/until=/);
  await page.keyboard.press('+');
  await expect(page).toHaveURL(/span=1800000/);
  await page.reload();
  await expect(page.getByText('over 30 min', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'now' }).click();
  await expect(page).not.toHaveURL(/until=/);
});

test('a lane is added and ended; what cannot be asked is said', async () => {
  await watch();
  await page.getByText('Lanes to be asked').click();
  const form = page.getByRole('form', { name: 'New lane' });
  await form.getByRole('textbox', { name: 'to', exact: true }).fill('-f');
  await form.getByRole('button', { name: 'Add the lane' }).click();
  await expect(form.getByRole('alert')).toHaveText('Give a name or an address, such as 192.0.2.1.');
  await form.getByRole('textbox', { name: 'to', exact: true }).fill('203.0.113.77');
  await form.getByLabel('called').fill('A far shop');
  await form.getByRole('button', { name: 'Add the lane' }).click();
  const row = page.getByRole('listitem').filter({ hasText: 'A far shop' });
  await expect(row).toBeVisible();
  await form.getByRole('textbox', { name: 'to', exact: true }).fill('203.0.113.77');
  await form.getByRole('button', { name: 'Add the lane' }).click();
  await expect(form.getByRole('alert')).toContainText('asks there already');
  await row.getByRole('button', { name: 'end it' }).click();
  await expect(row).toHaveCount(0);
});

test('a console that does not answer is said, and what was known stays in sight', async () => {
  await watch();
  await expect(page.getByRole('slider', { name: 'Lanes of Attic agent' })).toBeVisible();
  await page.route('**/watch?from=*', (route) => route.abort());
  await page.getByRole('button', { name: '6 h' }).click();
  await expect(page.getByText('The console does not answer. What is shown is what was known.')).toBeVisible();
  await expect(page.getByRole('slider', { name: 'Lanes of Attic agent' })).toBeVisible();
  await page.unroute('**/watch?from=*');
});

test('a machine is asked for resolvers, a path and a share, and the answer is a sentence', async () => {
  await page.goto(`${program.origin}/look?what=names`);
  await page.getByLabel('more resolvers, with commas').fill('192.0.2.53, 192.0.2.99');
  await page.getByRole('button', { name: 'Look', exact: true }).click();
  const looked = page.getByRole('region', { name: 'What was looked at' });
  await expect(looked.getByText('It looks …')).toBeVisible();
  await expect(looked.getByText('It looks …')).toHaveCount(0);
  await expect(
    looked.getByText(/^Take 192\.0\.2\.53 instead of 198\.51\.100\.1: .* 192\.0\.2\.99 made up addresses/),
  ).toHaveCount(2);
  await page.getByRole('radio', { name: 'a path' }).check();
  await page.getByLabel('to a name or an address').fill('a b');
  await page.getByRole('button', { name: 'Look', exact: true }).click();
  await expect(page.getByRole('alert').first()).toContainText('Give a name or an address');
});

test('a path says where a full line is late, and the office how it is seen from outside', async () => {
  const looked = page.getByRole('region', { name: 'What was looked at' });
  await page.goto(`${program.origin}/look?what=path`);
  await page.getByLabel('to a name or an address').fill('archive.example');
  await page.getByLabel(/and again while the line is full/).check();
  await page.getByRole('button', { name: 'Look', exact: true }).click();
  await expect(looked.getByRole('listitem').first()).toContainText(
    /While 9\d\.\d Mb\/s went up, (?:19|20|21)\d ms were added, between hop 1 and hop 2 \(100\.64\.7\.1\)\./,
  );
  await page.goto(`${program.origin}/look?what=outside`);
  await page.getByLabel(/ports to knock at/).fill('1194, 443');
  await page.getByRole('button', { name: 'Look', exact: true }).click();
  await expect(looked.getByRole('listitem').first()).toContainText(
    /sees 203\.0\.113\.9, which is the office router’s own address: it alone translates \(NAT\).* Port 1194 answers\. Port 443 is silent/,
  );
  await page.getByLabel(/ports to knock at/).fill('1, 2, 3, 4, 5');
  await page.getByRole('button', { name: 'Look', exact: true }).click();
  await expect(page.getByRole('alert').first()).toContainText('At most four ports.');
});

test('a port that was looked at once is watched from then on', async () => {
  await page.goto(`${program.origin}/look`);
  const look = page.getByRole('listitem').filter({ hasText: 'The ports of 198.51.100.3' }).first();
  await look.getByRole('group').evaluate((details: HTMLDetailsElement) => (details.open = true));
  const keep = look.getByRole('button', { name: /^Keep watching / }).first();
  const name = (await keep.getAttribute('aria-label'))!.replace('Keep watching ', '');
  await keep.click();
  await expect(look.getByText('from now on.')).toBeVisible();
  await watch('?span=300000');
  const lanes = page.getByRole('slider', { name: 'Lanes of Attic agent' });
  for (const way of ['in', 'out'])
    await expect(lanes).toHaveAttribute('aria-valuetext', new RegExp(`${name}, ${way}: `));
  await page.getByText('Lanes to be asked').click();
  for (const way of ['in', 'out']) {
    const lane = page.getByRole('listitem').filter({ hasText: `${name}, ${way}` });
    await lane.getByRole('button', { name: 'end it' }).click();
    await expect(lane).toHaveCount(0);
  }
});

test('which channel to take, which cable is bad, and what everybody moves are each said in a sentence', async () => {
  const looked = page.getByRole('region', { name: 'What was looked at' });
  for (const [what, sentence] of [
    ['the air', /Larkspur is on channel 6 .* On channel 1 it would share it with .*: move it there\./],
    ['the line’s own counters', /By office router, everybody together moves [\d.]+ Mb\/s down/],
  ] as const) {
    await page.goto(`${program.origin}/look`);
    await page.getByRole('radio', { name: what }).check();
    await page.getByRole('button', { name: 'Look', exact: true }).click();
    await expect(looked.getByRole('listitem').first()).toContainText(sentence);
  }
  await page.goto(`${program.origin}/look?what=ports`);
  await page.getByLabel('router or switch').fill('198.51.100.3');
  await page.getByLabel('community (2c)').fill('otter-pillow');
  await page.getByRole('button', { name: 'Look', exact: true }).click();
  await expect(looked.getByRole('listitem').first()).toContainText(
    'port 3 damaged 37 frames meanwhile: its cable, or a plug.',
  );
  expect(await page.content()).not.toContain('otter-pillow');
});

test('what was slow is told, for how long and whose fault it was', async () => {
  await watch(`?span=${DAY_MS}`);
  const slow = page.getByRole('region', { name: 'Slow times' });
  const told = slow.getByText(
    /Glue room tablet took \d+ ms instead of [45]\.\d ms while the gateway answered as ever: inside/,
  );
  await expect(told.first()).toBeVisible();
  await expect(slow.getByRole('listitem').first()).toContainText(/1\d min: inside/);
  await slow.getByRole('button').first().click();
  await expect(page).toHaveURL(/until=/);
  await watch('?span=300000');
  await expect(slow.getByText('Shown over an hour and more')).toBeVisible();
});

test('the air says which channel to take, where it is bad, and who hears what', async () => {
  await page.keyboard.press('a');
  await page.waitForURL(/\/air$/);
  await expect(page.getByText(/On channel 1 it would share it with .*: move it there\./)).toBeVisible();
  const spots = page.getByRole('table', { name: 'Spots, the worst first' }).getByRole('row');
  await expect(spots.nth(1)).toContainText(/Glue room.*2\.4 GHz.*−?-?7\d/);
  await expect(spots.nth(1).getByRole('img')).toHaveAttribute('aria-label', /Signal, from -?−?7\d to -?−?[67]\d dBm/);
  await expect(page.getByRole('table', { name: 'Devices by access point' })).toContainText('Accounts laptop');
});

test('how long a copy takes goes by the store where that is slower', async () => {
  await page.goto(`${program.origin}/copy`);
  const from = page.getByLabel('from where, how far');
  const attic = await from.locator('option', { hasText: /Attic agent.*local/ }).getAttribute('value');
  expect(attic).not.toBeNull();
  await from.selectOption(attic);
  const byStore = page.getByRole('checkbox', { name: /by way of the share \/mnt\/store/ });
  await expect(byStore).toBeChecked();
  const slow = await page.getByRole('heading', { name: 'to fetch it' }).locator('xpath=..').innerText();
  await byStore.uncheck();
  await expect(page.getByRole('heading', { name: 'to fetch it' }).locator('xpath=..')).not.toHaveText(slow);
});
