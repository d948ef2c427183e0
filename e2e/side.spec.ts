import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { test } from './one-browser';
import type { Program } from './program';
import { signIn } from './technician';

let program: Program;

test.describe.configure({ mode: 'serial' });
test.beforeAll(({ demo }) => {
  program = demo;
});
test.beforeEach(async ({ page }) => signIn(page, program));

const tray = (page: Page, letter: string) => page.getByRole('combobox', { name: `Runs of tray ${letter}` });
const difference = (page: Page, quantity: string) => page.getByRole('row').filter({ hasText: quantity });

async function compare(page: Page, a: string, b: string) {
  await page.goto(`${program.origin}/side`);
  await tray(page, 'A').fill(a);
  await tray(page, 'B').fill(b);
  await page.getByRole('button', { name: 'Hold them side by side' }).click();
  await expect(page.getByRole('table', { name: 'Each quantity side by side' })).toBeVisible();
}

test('that the bench laptop is slow by itself is found, with how much, and that it is fair', async ({ page }) => {
  await compare(page, 'device="press desk" link=wired reach=local', 'device=bench link=wired reach=local');
  // The sentence that can be quoted names both, the share with its interval, and how many runs say so.
  await expect(page.locator('article p').filter({ hasText: /^Finishing bench laptop gives/ })).toContainText(
    /gives (3\d|4\d) % of Press desk (down|up) \(\d\d to \d\d %\), real, \d (runs|occasions) each; delay under load is the same within 5 ms\./,
  );
  await expect(difference(page, 'down').first()).toContainText(/38\d Mb\/s/);
  await expect(page.getByRole('region', { name: 'What differs' })).toContainText(
    'device: Press desk | Finishing bench laptop',
  );
});

test('what the new router at the shop did is one press away from the swap', async ({ page }) => {
  await page.getByRole('button', { name: /^Office:/ }).click();
  await page.getByRole('menuitem', { name: /Quay Street/ }).click();
  await expect(page.getByRole('button', { name: /Office: .*Quay Street/ })).toBeVisible();
  await page.goto(`${program.origin}/swaps`);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'the router replaced' })
    .getByRole('button', { name: 'side by side' })
    .click();
  await expect(page.locator('article p').filter({ hasText: /^After/ })).toContainText(
    /the (up|down)load adds \d+ ms less/,
  );
});

test('an empty tray is said to be, and nothing is invented', async ({ page }) => {
  await page.goto(`${program.origin}/side`);
  await page.getByRole('button', { name: 'Hold them side by side' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'A tray is empty' })).toBeVisible();
  await compare(page, 'device="press desk"', 'device=nobody');
  await expect(
    page.getByText('No run that counts is in tray B: there is nothing to hold against the rest.'),
  ).toBeVisible();
  await expect(page.getByText('not measured in both').first()).toBeVisible();
});

test('it is named, shared to read, and the link ends when it is revoked', async ({ page, browser }) => {
  await compare(page, 'device=accounts link=5 reach=local', 'device="glue room" link=5 reach=local');
  await page.getByText('Fill the trays anew').click();
  await page.getByLabel('Name of the comparison').fill('Accounts and glue room');
  await page.getByRole('button', { name: 'Compare these' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Accounts and glue room' })).toBeVisible();
  await page.getByRole('button', { name: 'Share' }).click();
  await page.getByRole('button', { name: 'Make the link' }).click();
  const href = await page.getByRole('link', { name: 'the link to share' }).getAttribute('href');
  const stranger = await browser.newPage();
  await stranger.goto(program.origin + href!);
  await expect(stranger.getByRole('table', { name: 'Each quantity side by side' })).toBeVisible();
  await expect(stranger.getByRole('button')).toHaveCount(0);
  await page.getByRole('button', { name: 'revoke it' }).click();
  await expect(page.getByRole('button', { name: 'Share' })).toBeVisible();
  expect((await stranger.goto(program.origin + href!))!.status()).toBe(404);
  await stranger.close();
});

test('runs that are chosen in the ledger go into trays, and out as a file', async ({ page }) => {
  await page.goto(`${program.origin}/ledger?q=device%3D%22scan+room%22`);
  const rows = page.locator('tbody tr[data-row]');
  await rows.nth(0).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Into tray A' }).click();
  await rows.nth(1).getByRole('checkbox').check();
  const downloading = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV' }).click();
  const download = await downloading;
  expect(download.suggestedFilename()).toMatch(/^Larkspur-Bindery.*\.csv$/);
  const lines = readFileSync(await download.path(), 'utf8')
    .trim()
    .split('\r\n');
  expect(lines).toHaveLength(2);
  expect(lines[0]).toMatch(/^id,set,started_at,.*,down_mbps,up_mbps,/);
  expect(lines[1]).toContain('Scan room workstation');
  await page.getByRole('button', { name: 'Into tray B' }).click();
  await page.getByRole('button', { name: 'Hold them side by side' }).click();
  await expect(page.getByRole('list', { name: 'Trays' })).toContainText('1 run on 1 occasion · chosen by hand');
});

test('turn and turn about asks for hands before each side, waits for its device, and can be stopped', async ({
  page,
}) => {
  await page.goto(`${program.origin}/side`);
  await page.getByText('Begin one').click();
  const form = page.getByRole('form', { name: 'Turn and turn about' });
  await form.getByRole('radio', { name: 'one device, and something that is changed by hand' }).check();
  await form.getByLabel('device', { exact: true }).selectOption({ label: 'Accounts laptop, stands by' });
  await form.getByLabel('the one way').fill('by cable');
  await form.getByLabel('runs of each').fill('2');
  await form.getByRole('button', { name: 'Begin' }).click();
  await expect(form.getByText('Say how it is then, and what is other.')).toBeVisible();
  await form.getByLabel('the other way').fill('by air');
  await form.getByRole('button', { name: 'Begin' }).click();

  await expect(page.getByRole('heading', { name: 'by cable and by air, turn and turn about' })).toBeVisible();
  // Half as many changes as A, B, A, B, and a drift weighs on both alike.
  await expect(page.getByRole('list', { name: 'Turns' }).getByRole('listitem')).toHaveText(['A', 'B', 'B', 'A']);
  await expect(
    page.getByRole('status').filter({ hasText: 'Now make it so: by cable. Where that changes the link, say so' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'It is so: measure' }).click();
  await expect(page.getByText('Accounts laptop is asked, and measures in its turn.')).toBeVisible();
  await page.goto(`${program.origin}/side`);
  await page.getByRole('link', { name: 'by cable and by air' }).click();
  await page.getByRole('button', { name: 'Stop it' }).click();
  await expect(page.getByText('Stopped.')).toBeVisible();
});
