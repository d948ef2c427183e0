import { expect, test, type Page } from '@playwright/test';
import { answer, measure, resultShown } from './device';
import { newDataFolder, startProgram, type Program } from './program';
import { signIn } from './technician';

test.describe.configure({ mode: 'serial' });

let program: Program;
/** A device that has measured once and stands by, all through. */
let laptop: Page;

test.beforeAll(async ({ browser }) => {
  program = await startProgram({ mode: 'demo', port: 4930, data: newDataFolder() });
  laptop = await (await browser.newContext({ viewport: { width: 360, height: 740 } })).newPage();
  await laptop.goto(`${program.origin}/j/${program.code}?profile=quick`);
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
  await expect(queueOf(page).getByText('Nothing runs and nothing waits.')).toBeVisible();
  await laptop.waitForTimeout(5000);
  await expect(laptop.getByRole('button', { name: /Run again/ })).toBeVisible();
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

test('a round is put into the queue with the keyboard alone, makes a set, and the set is judged as one', async ({
  page,
}) => {
  test.setTimeout(180_000);
  await page.getByRole('button', { name: 'Start a round' }).focus();
  await page.keyboard.press('Enter');
  const form = page.getByRole('form', { name: 'A round' });
  await expect(form.getByLabel('Finishing laptop')).toBeChecked();
  await expect(form.getByLabel('Attic agent')).not.toBeChecked();
  // The demo's own devices stand by too.
  for (const device of await form.getByRole('group', { name: 'which devices' }).getByRole('checkbox').all())
    if (await device.isChecked()) await device.uncheck();
  await form.getByLabel('Finishing laptop').check();
  await form.getByLabel('tunnel', { exact: true }).uncheck();
  await form.getByLabel('how often each').selectOption('once');
  await form.getByLabel('how thoroughly').selectOption('quick');
  await form.getByRole('button', { name: 'Put it in the queue' }).focus();
  await page.keyboard.press('Enter');
  await expect(queueOf(page).getByRole('listitem')).toHaveCount(2);
  await expect(queueOf(page).getByText('this device has another run before it')).toBeVisible();
  await expect(queueOf(page).getByText('Nothing runs and nothing waits.')).toBeVisible({ timeout: 120_000 });
  const cell = page.getByRole('link', { name: /^Finishing laptop, .* · local:/ });
  // The run by which it joined, under the same conditions, belongs to the set.
  await expect(cell).toContainText('2 ×');
  await cell.click();
  const set = page.getByRole('region', { name: 'Set' });
  await expect(set.getByRole('row')).toHaveCount(3);
  await expect(set).toContainText(/median of 2 runs/);
});

test('a device that goes is seen to be gone within three seconds', async ({ page }) => {
  await expect(rowOf(page).getByText('stands by')).toBeVisible();
  await laptop.context().close();
  await expect(rowOf(page).getByText('stands by')).toHaveCount(0, { timeout: 3000 });
});
