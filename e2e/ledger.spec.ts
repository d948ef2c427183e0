import { gzipSync } from 'node:zlib';
import { expect, type Page, type Request } from '@playwright/test';
import { test } from './one-browser';
import type { Program } from './program';
import { signIn } from './technician';

let program: Program;

test.describe.configure({ mode: 'serial' });
test.beforeAll(({ demo }) => {
  program = demo;
});
test.beforeEach(async ({ page }) => {
  await signIn(page, program, '/ledger');
});

const narrow = (page: Page) => page.getByRole('combobox', { name: 'Narrow the ledger' });
const matching = (page: Page) =>
  page
    .getByRole('status')
    .filter({ hasText: /runs?( match)?$/ })
    .first();
const countOf = async (page: Page) => Number(/\d+/.exec(await matching(page).innerText())![0]);
const rows = (page: Page) => page.locator('tbody tr[data-row]');

test('what is meant is offered while one types, and the address holds the view', async ({ page }) => {
  await narrow(page).click();
  await narrow(page).pressSequentially('ver');
  await expect(page.getByRole('listbox', { name: 'What may be meant' }).getByRole('option')).toHaveText([/^verdict=/]);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.keyboard.type('sta');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(narrow(page)).toHaveValue('verdict=starved ');
  await page.keyboard.type('reach=internet');
  await expect(page).toHaveURL(/q=verdict%3Dstarved\+reach%3Dinternet/);
  await expect(narrow(page)).toBeFocused();
  await expect(rows(page).first()).toContainText('starved');
  await expect(rows(page).filter({ hasText: 'local' })).toHaveCount(0);
  const count = await countOf(page);
  await page.reload();
  await expect(narrow(page)).toHaveValue('verdict=starved reach=internet');
  expect(await countOf(page)).toBe(count);
});

test('opening a page asks the console for that page, and for no other one beforehand', async ({ page }) => {
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await page.goto(`${program.origin}/ledger`);
  await expect(rows(page).first()).toBeVisible();
  // Whoever hovers may be about to follow it: the row of places is not fetched for that either.
  await page.getByRole('link', { name: 'Agents' }).hover();
  await page.waitForLoadState('networkidle');
  const pages = asked.filter((url) => !url.includes('/_next/static/') && !url.includes('/api/'));
  expect(pages.map((url) => new URL(url).pathname)).toEqual(['/ledger']);
});

/** The script that a page brings with it, gzipped, bytes. */
async function scriptBytes(page: Page, url: string): Promise<number> {
  const scripts = new Set<string>();
  const note = (request: Request) => void (request.resourceType() === 'script' && scripts.add(request.url()));
  page.on('request', note);
  await page.goto(url, { waitUntil: 'networkidle' });
  page.off('request', note);
  const sizes = [...scripts].map(async (script) => gzipSync(await (await page.request.get(script)).body()).byteLength);
  return (await Promise.all(sizes)).reduce((sum, bytes) => sum + bytes, 0);
}

test('the page of a device brings less than 14.6 kB of script with it, over a page that has none', async ({ page }) => {
  const none = await scriptBytes(page, `${program.origin}/nothing/is/here`);
  const device = await scriptBytes(page, `${program.origin}/j/${program.code}`);
  expect(none).toBeGreaterThan(100_000);
  expect(device - none).toBeGreaterThan(1000);
  expect(device - none).toBeLessThan(14_600);
});

test('what means nothing is said, with what would, and the rest holds', async ({ page }) => {
  await page.goto(`${program.origin}/ledger?q=colour%3Dred+verdict%3Dfull&sort=nonsense&way=up`);
  await expect(page.getByRole('alert').filter({ hasText: '“colour=red” was left out' })).toBeVisible();
  await expect(rows(page).first()).toContainText('full');
});

test('it is sorted by its heads, and goes on as one scrolls to the last', async ({ page }) => {
  await page.getByRole('button', { name: 'down Mb/s' }).click();
  await expect(page.getByRole('columnheader', { name: /down Mb\/s/ })).toHaveAttribute('aria-sort', 'descending');
  await expect(rows(page).first()).toContainText(/9\d\d/);
  const count = await countOf(page);
  expect(count).toBeGreaterThan(200);
  const last = page.locator(`tr[aria-rowindex="${count + 1}"]`);
  await expect(async () => {
    await page.mouse.wheel(0, 20_000);
    await expect(last).toBeVisible({ timeout: 500 });
  }).toPass();
  // Only what is in sight is drawn.
  expect(await rows(page).count()).toBeLessThan(80);
  await expect(last).toContainText(/unfinished/);
});

test('many are chosen by keyboard, tagged, noted, left out and taken in again', async ({ page }) => {
  await narrow(page).fill('device="scan room"');
  await expect(page).toHaveURL(/scan/);
  await rows(page).first().focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  const bar = page.getByRole('region', { name: 'Chosen runs' });
  await expect(bar).toContainText('3 runs chosen');
  await expect(bar.getByRole('group', { name: 'The chosen runs over time' })).toContainText(
    /down: 9\d\.\d to 9\d\.\d Mb\/s, median 9\d/,
  );
  await bar.getByRole('button', { name: 'Tag' }).click();
  await bar.getByLabel('One word').fill('old cable');
  await bar.getByRole('button', { name: 'Put it on' }).click();
  await expect(bar.getByRole('alert')).toHaveText('One word, without commas and quotes.');
  await bar.getByLabel('One word').fill('old-cable');
  await bar.getByRole('button', { name: 'Put it on' }).click();
  await expect(rows(page).filter({ hasText: 'old-cable' })).toHaveCount(3);
  await bar.getByRole('button', { name: 'Leave out' }).click();
  await bar.getByLabel('Why they do not count').fill('it was being dusted');
  await bar.getByRole('button', { name: 'Leave out' }).last().click();
  await expect(rows(page).filter({ hasText: 'left out: it was being dusted' })).toHaveCount(3);
  await narrow(page).fill('counts=left-out');
  await expect(matching(page)).toHaveText('3 runs match');
  await bar.getByRole('button', { name: 'Count again' }).click();
  await expect(page.getByText('No run matches.')).toBeVisible();
  await narrow(page).fill('tag=old-cable');
  await expect(matching(page)).toHaveText('3 runs match');
});

test('what is removed can be put back where one stands', async ({ page }) => {
  const before = await countOf(page);
  await rows(page).first().getByRole('checkbox').check();
  await page.getByRole('button', { name: /^choose all/ }).click();
  await expect(page.getByRole('region', { name: 'Chosen runs' })).toContainText(`${before} runs chosen`);
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('Nothing has been measured yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Put them back' }).click();
  await expect.poll(() => countOf(page)).toBe(before);
});

test('a view is kept under a name, with its columns', async ({ page }) => {
  await narrow(page).fill('verdict=thin');
  await expect(page).toHaveURL(/thin/);
  await page.getByRole('button', { name: 'columns' }).click();
  await page.getByLabel('spot').check();
  await page.getByLabel('strip').uncheck();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('columnheader', { name: 'spot' })).toBeVisible();
  await page.getByRole('button', { name: /^views/ }).click();
  await page.getByLabel('Name of the view').fill('Thin ones');
  await page.getByRole('button', { name: 'Keep' }).click();
  await page.goto(`${program.origin}/ledger`);
  // The columns are this browser's from now on.
  await expect(page.getByRole('columnheader', { name: 'strip' })).toHaveCount(0);
  await page.getByRole('button', { name: /^views/ }).click();
  await page.getByRole('button', { name: 'Thin ones', exact: true }).click();
  await expect(narrow(page)).toHaveValue('verdict=thin');
  await expect(rows(page).first()).toContainText('thin');
});

const OLD_RUNS = [
  'When;Device;Link;Download (Mbit/s);Upload (Mbit/s);Ping ms;Weather',
  '20.10.2026 09:00;Press desk;LAN;402,1;88,2;13;rain',
  '20.10.2026 13:00;Owner’s laptop;5 GHz;310,5;77,1;16;rain',
  '20.10.2026 17:00;Press desk;pigeon;400,0;88,0;13;fog',
];
const chooseFile = (page: Page, lines: readonly string[], name = 'old runs.csv') =>
  page
    .locator('input[type=file]')
    .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(`${lines.join('\r\n')}\r\n`) });

test('runs of another program are brought in: looked at, read as they are meant, and gone again in one step', async ({
  page,
}) => {
  await page.getByRole('button', { name: 'in and out' }).click();
  await page.getByRole('menuitem', { name: 'Bring runs in from a file' }).click();
  await chooseFile(page, OLD_RUNS);
  await expect(page.getByText('3 lines: 2 runs to bring in.')).toBeVisible();
  await expect(page.getByText('“pigeon” is none that is known under link')).toBeVisible();
  await expect(page.getByRole('row', { name: /Press desk wired internet 402 88\.2 13 ms/ })).toBeVisible();
  const bring = page.getByRole('button', { name: 'Bring 2 runs in' });
  await expect(bring).toBeDisabled();

  // The column was megabytes after all: all that follows from it is seen before anything is done.
  await page.getByLabel('unit of Download (Mbit/s)').selectOption('MB/s');
  await expect(page.getByRole('row', { name: /Press desk wired internet 3217/ })).toBeVisible();
  await page.getByLabel('unit of Download (Mbit/s)').selectOption('Mb/s');
  await page.getByRole('checkbox', { name: 'without the line that cannot be read' }).check();
  await bring.click();
  await expect(page.getByText('2 runs brought in from old runs.csv.')).toBeVisible();

  await page.getByRole('link', { name: 'Show them in the ledger' }).click();
  await expect(matching(page)).toHaveText('2 runs match');
  await expect(rows(page).first()).toContainText('old-runs');
  await rows(page).first().getByRole('link').click();
  await expect(page.getByText('These figures were brought in from old runs.csv by')).toBeVisible();
  await expect(page.getByText('MTU')).toHaveCount(0);

  await page.goto(`${program.origin}/ledger/bring-in`);
  await chooseFile(page, OLD_RUNS, 'the same.csv');
  await expect(page.getByText('2 are in the record already.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Nothing to bring in' })).toBeDisabled();
  await page.getByRole('button', { name: 'Take them out again' }).click();
  await page.getByRole('button', { name: 'Take them out', exact: true }).click();
  await expect(page.getByText('taken out again')).toBeVisible();
  await page.goto(`${program.origin}/ledger?q=state%3Dimported`);
  await expect(matching(page)).toHaveText('0 runs match');
});

test('a file that is no table of runs is refused, and one on its way can be stopped', async ({ page }) => {
  await page.goto(`${program.origin}/ledger/bring-in`);
  await chooseFile(page, ['It was slow yesterday.', 'All evening.'], 'letter.txt');
  await expect(page.getByRole('alert').filter({ hasText: 'Save the table as CSV' })).toBeVisible();

  let letGo = () => {};
  const held = new Promise<void>((resolve) => (letGo = resolve));
  await page.route('**/part?*', async (route) => {
    await held;
    // The page has given it up by then.
    await route.abort().catch(() => undefined);
  });
  await chooseFile(page, OLD_RUNS);
  await expect(page.getByText('Sending the file')).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Sending the file')).toHaveCount(0);
  letGo();
  await page.unroute('**/part?*');
  await chooseFile(page, OLD_RUNS);
  await expect(page.getByText('3 lines: 2 runs to bring in.')).toBeVisible();
  await page.getByRole('button', { name: 'Close the file' }).click();
  await expect(page.getByText('Choose a file')).toBeVisible();
});
