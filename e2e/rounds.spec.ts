import { expect, test, type Browser, type Page } from '@playwright/test';
import { answer, measure, resultShown } from './device';
import { newDataFolder, startProgram, type Program } from './program';
import { signIn } from './technician';

test.describe.configure({ mode: 'serial' });

let program: Program;
test.beforeAll(async () => {
  program = await startProgram({ mode: 'demo', port: 4930, data: newDataFolder() });
});
test.afterAll(() => program.interrupt());

/** A device of its own that has measured once and stands by. */
async function standingDevice(browser: Browser, name: string): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const page = await context.newPage();
  await page.goto(`${program.origin}/j/${program.code}?profile=quick`);
  await answer(page, { name, reach: 'inside the office only' });
  await measure(page);
  await resultShown(page);
  await expect(page.getByText('Standing by: the technician can start the next run')).toBeVisible();
  return page;
}

test('a device that stands by is seen at once, is asked by name, runs, and is seen to go', async ({
  browser,
  page,
}) => {
  await signIn(page, program);
  const laptop = await standingDevice(browser, 'Finishing laptop');
  const row = page.getByRole('row').filter({ hasText: 'Finishing laptop' });
  await expect(row.getByText('stands by')).toBeVisible({ timeout: 3000 });

  await row.getByRole('button', { name: 'Run internet on Finishing laptop' }).focus();
  await page.keyboard.press('Enter');
  await expect(laptop.getByRole('heading', { name: 'Ines asks this device to measure' })).toBeVisible();
  await expect(laptop.getByRole('heading', { name: /Downloading/ })).toBeVisible({ timeout: 20_000 });
  const queue = page.getByRole('region', { name: 'Queue' });
  await expect(queue.getByText('Finishing laptop')).toBeVisible();
  await expect(queue.getByText('asked by Ines')).toBeVisible();
  await resultShown(laptop);
  await expect(page.getByRole('link', { name: /^Finishing laptop, .* · internet:/ })).toBeVisible();
  await expect(queue.getByText('Nothing runs and nothing waits.')).toBeVisible();

  await laptop.context().close();
  await expect(row.getByText('stands by')).toHaveCount(0, { timeout: 3000 });
});

test('whoever sits at the device may refuse, and nothing is measured', async ({ browser, page }) => {
  await signIn(page, program);
  const desk = await standingDevice(browser, 'Busy desk');
  const row = page.getByRole('row').filter({ hasText: 'Busy desk' });
  await row.getByRole('button', { name: 'Run internet on Busy desk' }).click();
  await desk.getByRole('button', { name: 'Not now' }).click();
  const queue = page.getByRole('region', { name: 'Queue' });
  await expect(queue.getByText('Nothing runs and nothing waits.')).toBeVisible();
  await desk.waitForTimeout(5000);
  await expect(desk.getByRole('button', { name: /Run again/ })).toBeVisible();
  await desk.context().close();
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

test('a round is put into the queue with the keyboard alone and makes a set of each device', async ({
  browser,
  page,
}) => {
  test.setTimeout(240_000);
  await signIn(page, program);
  const devices = [await standingDevice(browser, 'Shelf one'), await standingDevice(browser, 'Shelf two')];
  await expect(page.getByRole('row').filter({ hasText: 'Shelf two' }).getByText('stands by')).toBeVisible();
  await page.getByRole('button', { name: 'Start a round' }).focus();
  await page.keyboard.press('Enter');
  const form = page.getByRole('form', { name: 'A round' });
  await expect(form.getByLabel('Shelf one')).toBeChecked();
  await expect(form.getByLabel('Press desk')).not.toBeChecked();
  await form.getByLabel('local').focus();
  await page.keyboard.press('Space');
  await form.getByLabel('how thoroughly').selectOption('quick');
  await form.getByRole('button', { name: 'Put it in the queue' }).focus();
  await page.keyboard.press('Enter');
  const queue = page.getByRole('region', { name: 'Queue' });
  await expect(queue.getByRole('listitem')).toHaveCount(6);
  await expect(queue.getByText(/over the same line/).first()).toBeVisible();
  await expect(queue.getByText('Nothing runs and nothing waits.')).toBeVisible({ timeout: 150_000 });
  for (const name of ['Shelf one', 'Shelf two']) {
    const cell = page.getByRole('link', { name: new RegExp(`^${name}, .* · internet:`) });
    await expect(cell).toContainText('3 ×');
  }
  await Promise.all(devices.map((device) => device.context().close()));
});
