import { expect } from '@playwright/test';
import { test } from './one-browser';
import { signIn } from './technician';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';

test.describe.configure({ mode: 'serial' });

let program: Program;
test.beforeAll(async () => {
  program = await startProgram({ mode: 'start', port: newPort(), data: newDataFolder() });
});
test.afterAll(() => program.interrupt());
test.beforeEach(({ page }) => signIn(page, program));

test('starts empty, without demo parts, and asks for the office first', async ({ page }) => {
  expect(program.code).toBeNull();
  expect(program.childrenWith('dist/')).toHaveLength(2);
  for (const place of ['/', '/ledger', '/set-up']) {
    await page.goto(program.origin + place);
    await expect(page.getByRole('heading', { name: 'Which office is this?' })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Open the board' }).click();
  await expect(page.getByText('Give the office a name.')).toBeVisible();
  await page.goto(`${program.origin}/j`);
  await expect(page.getByLabel(/code/i)).toBeVisible();
});

test('names the office and shows how devices join', async ({ page }) => {
  await page.goto(program.origin);
  await page.getByLabel('name of the office').fill('Larkspur Bindery');
  await page.getByRole('button', { name: 'Open the board' }).click();
  await expect(page.getByRole('heading', { name: 'No device has been here yet' })).toBeVisible();
  await page.goto(`${program.origin}/ledger`);
  await expect(page.getByText('Nothing has been measured yet.')).toBeVisible();
});

test('refuses a plan that cannot be before it is sent, says why beside the field, and keeps what was typed', async ({
  page,
}) => {
  await page.goto(`${program.origin}/set-up`);
  const sent: string[] = [];
  page.on('request', (request) => request.method() === 'POST' && sent.push(request.url()));
  const form = page.getByRole('form', { name: 'Line and plan' });
  await form.getByLabel('name of the line').fill('Tarnfell Fibre 500/100');
  await form.getByLabel('advertised, down').fill('-500');
  await form.getByLabel('advertised, up').fill('100');
  await form.getByLabel('least, up').fill('120');
  await form.getByRole('button', { name: 'Save the line' }).click();
  await expect(form.getByText('A rate is more than 0 Mb/s.')).toBeVisible();
  await expect(form.getByLabel('advertised, down')).toHaveValue('-500');
  await expect(form.getByLabel('advertised, down')).toBeFocused();
  await form.getByLabel('advertised, down').fill('500');
  await expect(form.getByText('A rate is more than 0 Mb/s.')).toHaveCount(0);
  await form.getByRole('button', { name: 'Save the line' }).click();
  await expect(form.getByText('The least rate cannot be above the advertised one.')).toBeVisible();
  await expect(form.getByLabel('name of the line')).toHaveValue('Tarnfell Fibre 500/100');
  expect(sent).toEqual([]);
  await form.getByLabel('least, up').fill('60');
  await form.getByRole('button', { name: 'Save the line' }).click();
  await expect(form.getByText('Saved.')).toBeVisible();
  await page.reload();
  await expect(form.getByLabel('advertised, down')).toHaveValue('500');
  await page.goto(program.origin);
  await expect(page.getByText('Tarnfell Fibre 500/100')).toBeVisible();
});

test('adds, corrects and removes a device, whatever its name', async ({ page }) => {
  const odd = `مكتب الطباعة <i>Press</i> 📚 ${'long '.repeat(8)}`.trim();
  await page.goto(`${program.origin}/set-up`);
  await page.getByText('Add a device').click();
  const fresh = page.getByRole('form', { name: 'New device' });
  await fresh.getByLabel('name', { exact: true }).fill(odd);
  await fresh.getByLabel('connected').selectOption({ label: 'by cable' });
  await fresh.getByLabel('came up at, if known').fill('1000');
  await fresh.getByRole('button', { name: 'Add the device' }).click();
  await expect(page.locator('summary').filter({ hasText: odd })).toContainText('wired, 1000 Mb/s');

  await page.locator('summary').filter({ hasText: odd }).click();
  const form = page.getByRole('form', { name: odd });
  await form.getByLabel('name', { exact: true }).fill('Press desk');
  await form.getByRole('button', { name: 'Save the device' }).click();
  await page.goto(program.origin);
  await expect(page.getByRole('rowheader', { name: 'Press desk' })).toBeVisible();

  await page.goto(`${program.origin}/set-up`);
  await page.locator('summary').filter({ hasText: 'Press desk' }).click();
  await page.getByRole('form', { name: 'Press desk' }).getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('Its runs stay in the ledger');
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page.locator('summary').filter({ hasText: 'Press desk' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Put Press desk back' }).click();
  await expect(page.locator('summary').filter({ hasText: 'Press desk' })).toContainText('wired, 1000 Mb/s');
  await expect(page.getByRole('region', { name: 'Removed lately' })).toHaveCount(0);
});

test('says when something that answers is not a peer', async ({ page }) => {
  await page.goto(`${program.origin}/set-up`);
  await page.getByText('Add a peer').click();
  const form = page.getByRole('form', { name: 'New peer' });
  await form.getByLabel('name', { exact: true }).fill('Somewhere');
  await form.getByLabel('address').fill('198.51.100.7');
  await form.getByRole('button', { name: 'Add the peer' }).click();
  await expect(form.getByText(/Write an address such as/)).toBeVisible();
  await form.getByLabel('address').fill('http://127.0.0.1:4991');
  await form.getByRole('button', { name: 'Add the peer' }).click();
  await expect(page.getByText('Nothing answers at http://127.0.0.1:4991.')).toBeVisible();
});

test('the paper can be made dark and stays so', async ({ page }) => {
  await page.goto(program.origin);
  const background = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  expect(await background()).toBe('rgb(251, 247, 239)');
  await page.getByLabel('Paper colour').selectOption('dark');
  await expect.poll(background).toBe('rgb(22, 32, 43)');
  await page.reload();
  expect(await background()).toBe('rgb(22, 32, 43)');
});

test('samples are kept as long as is said, and what that takes is told', async ({ page }) => {
  await page.goto(`${program.origin}/set-up`);
  const keeping = page.getByRole('form', { name: 'Keeping' });
  await expect(page.getByText(/^\d+ runs?, \d+ with samples: .+ on disk, .+ of it samples\./)).toBeVisible();
  await expect(keeping.getByLabel('keep samples for')).toHaveValue('400');
  await keeping.getByLabel('keep samples for').fill('soon');
  await keeping.getByRole('button', { name: 'Save' }).click();
  await expect(keeping.getByText('Write a number, such as 500 or 2.5.')).toBeVisible();
  await keeping.getByLabel('keep samples for').fill('90');
  await keeping.getByRole('button', { name: 'Save' }).click();
  await expect(keeping.getByText('Saved.')).toBeVisible();
  await page.reload();
  await expect(keeping.getByLabel('keep samples for')).toHaveValue('90');
});

test('takes a backup line into use at a moment, and keeps the one before', async ({ page }) => {
  await page.goto(`${program.origin}/set-up`);
  await page.getByText('Add a second line, such as a backup').click();
  const form = page.getByRole('form', { name: 'New line' });
  await form.getByLabel('name of the line').fill('Heron Radio 80/20');
  await form.getByLabel('advertised, down').fill('80');
  await form.getByLabel('advertised, up').fill('20');
  await form.getByRole('button', { name: 'Save the line' }).click();
  await page.getByRole('button', { name: 'Put Heron Radio 80/20 in use now' }).click();
  await expect(page.getByRole('list', { name: 'Which line was taken into use when' })).toContainText(
    /now Heron Radio 80\/20, since .*before Tarnfell Fibre 500\/100/,
  );
  await page.goto(program.origin);
  await expect(page.getByText('Heron Radio 80/20')).toBeVisible();
});

test('two devices that are one are made one, and two again', async ({ page }) => {
  await page.goto(`${program.origin}/set-up`);
  await page.getByText('Add a device').click();
  const fresh = page.getByRole('form', { name: 'New device' });
  await fresh.getByLabel('name', { exact: true }).fill('Desk by the press');
  await fresh.getByRole('button', { name: 'Add the device' }).click();
  const entry = page.locator('summary').filter({ hasText: 'Desk by the press' });
  await entry.click();
  await page.getByLabel('It is the same as').selectOption({ label: 'Press desk' });
  await page.getByRole('button', { name: 'Make them one' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Make them one' }).click();
  await expect(entry).toHaveCount(0);
  await page.getByRole('button', { name: 'Part Desk by the press again' }).click();
  await expect(entry).toHaveCount(1);
});

test('a second office is made, looked at, and stands beside the first', async ({ page }) => {
  await page.getByRole('button', { name: /^Office:/ }).click();
  await page.getByRole('menuitem', { name: /All offices/ }).click();
  await page.getByText('Add an office').click();
  await page.getByLabel('name', { exact: true }).fill('Quay Street');
  await page.getByRole('button', { name: 'Add the office' }).click();
  await expect(page).toHaveURL(/set-up/);
  await expect(page.getByRole('button', { name: 'Office: Quay Street' })).toBeVisible();
  await page.goto(`${program.origin}/sites`);
  await expect(page.getByRole('heading', { level: 2 })).toHaveText(['Larkspur Bindery', 'Quay Street']);
  await page.getByRole('button', { name: 'Open its board' }).first().click();
  await expect(page.getByRole('button', { name: 'Office: Larkspur Bindery' })).toBeVisible();
});

test('a board that is open elsewhere shows what the set-up changes, without being loaded again', async ({ page }) => {
  await page.goto(`${program.origin}/set-up`);
  const board = await page.context().newPage();
  await board.goto(program.origin);
  await expect(board.getByRole('heading', { level: 1 })).toBeVisible();
  await board.evaluate(() => Object.assign(window, { stillHere: true }));
  await page.getByText('Add a device').click();
  const fresh = page.getByRole('form', { name: 'New device' });
  await fresh.getByLabel('name', { exact: true }).fill('Guillotine tablet');
  await fresh.getByRole('button', { name: 'Add the device' }).click();
  await expect(board.getByRole('rowheader', { name: 'Guillotine tablet' })).toBeVisible();
  expect(await board.evaluate(() => 'stillHere' in window)).toBe(true);
  await board.close();
});
