import { expect, type Page } from '@playwright/test';
import { test } from './one-browser';
import { answer, measure, resultShown } from './device';
import { addPageLane, endLane, expectHeard } from './page-lane';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';
import { signIn } from './technician';

test.describe.configure({ mode: 'serial' });

let program: Program;
/** A device that has measured once and stands by, all through. */
let laptop: Page;

test.beforeAll(async ({ browser }) => {
  program = await startProgram({ mode: 'demo', port: newPort(), data: newDataFolder(), slowLines: true });
  laptop = await (await browser.newContext({ viewport: { width: 360, height: 740 } })).newPage();
  await laptop.goto(`${program.origin}/j/${program.code}?profile=delay`);
  await answer(laptop, { name: 'Finishing laptop', reach: 'inside the office only' });
  await measure(laptop);
  await resultShown(laptop);
});
test.afterAll(() => program.interrupt());
test.beforeEach(({ page }) => signIn(page, program));

const rowOf = (page: Page) => page.getByRole('row').filter({ hasText: 'Finishing laptop' });
const queueOf = (page: Page) => page.getByRole('region', { name: 'Queue' });

test('a device that stands by is asked by name, with the keyboard, and runs', async ({ page }) => {
  await expect(laptop.getByText('Standing by: the technician can start the next run')).toBeVisible();
  await expect(rowOf(page).getByText('stands by')).toBeVisible();
  await page.getByRole('button', { name: 'Run internet on Finishing laptop' }).focus();
  await page.keyboard.press('Enter');
  await expect(laptop.getByRole('heading', { name: 'Ines asks this device to measure' })).toBeVisible();
  await expect(laptop.getByRole('heading', { name: /Downloading/ })).toBeVisible({ timeout: 20_000 });
  await expect(queueOf(page).getByText('asked by Ines')).toBeVisible();
  await resultShown(laptop);
  await expect(page.getByRole('link', { name: /^Finishing laptop, .* · internet:/ })).toBeVisible();
  await expect(queueOf(page).getByText('Nothing runs and nothing waits.')).toBeVisible();
});

test('whoever sits at the device may refuse, and nothing is measured', async ({ page }) => {
  await page.getByRole('button', { name: 'Run internet on Finishing laptop' }).click();
  await laptop.getByRole('button', { name: 'Not now' }).click();
  const refused = queueOf(page).getByRole('listitem').filter({ hasText: 'said not now' });
  await expect(refused).toContainText('Finishing laptop');
  await expect(refused.getByRole('button', { name: /Withdraw/ })).toHaveCount(0);
  await expect(laptop.getByRole('button', { name: /Run again/ })).toBeVisible();
  await expect(queueOf(page).getByText(/is asked|runs for/)).toHaveCount(0);
});

test('its page asks a peer once a second, until the device leaves, and again when it is back', async ({ page }) => {
  await page.goto(`${program.origin}/watch?span=60000`);
  const row = await addPageLane(page, 'Finishing laptop');
  await expect(laptop.getByText('Meanwhile it asks Hilltop exchange once a second')).toBeVisible();
  await expectHeard(page, 'Finishing laptop');
  const machine = page.getByRole('region', { name: 'Finishing laptop' });
  const opened = laptop.url();
  await laptop.goto('about:blank');
  await expect(machine.getByText('its page is closed')).toBeVisible();
  await laptop.goto(opened);
  await expect(laptop.getByText('Meanwhile it asks Hilltop exchange once a second')).toBeVisible();
  await expect(machine.getByText('stands by')).toBeVisible();
  await expectHeard(page, 'Finishing laptop');
  // A browser that starts no worker says so, and goes on standing by.
  await laptop.addInitScript(() => Reflect.deleteProperty(window, 'Worker'));
  await laptop.reload();
  await expect(laptop.getByText('the delay from here, which this browser cannot keep measuring')).toBeVisible();
  await expect(laptop.getByText('Standing by')).toBeVisible();
  await endLane(row);
  await expect(laptop.getByText('Meanwhile it asks')).toHaveCount(0);
});

test('two devices never measure over one line at once: the second waits, is told for whom, and then runs', async ({
  browser,
}) => {
  const contexts = await Promise.all([browser.newContext(), browser.newContext()]);
  const [first, second] = (await Promise.all(contexts.map((context) => context.newPage()))) as [Page, Page];
  for (const [index, page] of [first, second].entries()) {
    await page.goto(`${program.origin}/j/${program.code}?profile=quick`);
    await answer(page, { name: `Reading desk ${index + 1}`, reach: 'out to the internet' });
  }
  await measure(first);
  await expect(first.getByRole('heading', { name: /quiet line|Downloading/ })).toBeVisible();
  await measure(second);
  await expect(second.getByRole('heading', { name: 'Waiting for its turn' })).toBeVisible();
  await expect(second.getByText('Reading desk 1 is measuring over the same line')).toBeVisible();
  await resultShown(first);
  await resultShown(second);
  for (const page of [first, second]) await expect(page.getByText(/The plan is 500 down/)).toBeVisible();
  await Promise.all(contexts.map((context) => context.close()));
});

test('a device that goes is seen to be gone within three seconds', async ({ page }) => {
  await expect(rowOf(page).getByText('stands by')).toBeVisible();
  await laptop.context().close();
  await expect(rowOf(page).getByText('stands by')).toHaveCount(0, { timeout: 3000 });
});
