import { expect, test, type Locator, type Page } from '@playwright/test';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';
import { passphraseOf } from './technician';

test.describe.configure({ mode: 'serial' });

/** The whole of the link, by an address that others reach. */
const SHARED_LINK = /^https?:\/\/\S+\/s\/\S+$/;

let program: Program;
test.beforeAll(async () => {
  program = await startProgram({ mode: 'demo', port: newPort(), data: newDataFolder() });
});
test.afterAll(() => program.interrupt());

/** As a person without a mouse does: the Tab key until the thing has the focus. */
async function tabTo(page: Page, wanted: Locator): Promise<void> {
  await wanted.first().waitFor();
  for (let presses = 0; presses < 60; presses += 1) {
    if (await wanted.first().evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  await expect(wanted.first()).toBeFocused();
}

async function press(page: Page, ...keys: string[]): Promise<void> {
  for (const key of keys) await page.keyboard.press(key);
}

test('a technician’s day, with the keyboard alone', async ({ page }) => {
  test.setTimeout(240_000);

  await test.step('signs in', async () => {
    await page.goto(`${program.origin}/sign-in`);
    await tabTo(page, page.getByLabel('your name'));
    await page.keyboard.type('Ines');
    await tabTo(page, page.getByLabel('passphrase'));
    await page.keyboard.type(passphraseOf(program));
    await press(page, 'Enter');
    await expect(page).toHaveURL(`${program.origin}/`);
  });

  await test.step('looks up the keys', async () => {
    await press(page, '?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('start a round');
    await press(page, 'Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  });

  const queue = page.getByRole('region', { name: 'Queue' });
  await test.step('puts a round into the queue: the scan room workstation, inside and out', async () => {
    await expect(page.getByText('stands by')).toHaveCount(6);
    await press(page, 'n');
    const form = page.getByRole('form', { name: 'A round' });
    // Everything that stands by is chosen already.
    for (const name of ['Press desk', 'Scan room workstation', 'Attic agent'])
      await expect(form.getByLabel(name)).toBeChecked();
    for (const name of ['Attic agent', 'Accounts laptop', 'Finishing bench laptop', 'Glue room tablet', 'Press desk']) {
      await tabTo(page, form.getByLabel(name));
      await press(page, 'Space');
    }
    for (const reach of ['tunnel']) {
      await tabTo(page, form.getByLabel(reach, { exact: true }));
      await press(page, 'Space');
    }
    await tabTo(page, form.getByLabel('how often each'));
    await page.keyboard.type('once');
    await tabTo(page, form.getByLabel('how thoroughly'));
    await page.keyboard.type('quick');
    await tabTo(page, form.getByRole('button', { name: 'Put it in the queue' }));
    await press(page, 'Enter');
    await expect(queue.getByRole('listitem')).toHaveCount(2);
  });

  await test.step('waits while the scan room measures, inside and out', async () => {
    await expect(queue.getByRole('link', { name: /runs for/ })).toBeVisible({ timeout: 20_000 });
    await expect(queue.getByText('Nothing runs and nothing waits.')).toBeVisible({ timeout: 90_000 });
  });

  await test.step('narrows the board to it and opens what was measured', async () => {
    await press(page, '/');
    await page.keyboard.type('scan');
    await expect(page.getByRole('row').filter({ hasText: 'Press desk' })).toHaveCount(0);
    await tabTo(page, page.locator('[data-row="0"][data-column="0"]'));
    await press(page, 'ArrowRight', 'Enter');
    await expect(page.getByRole('heading', { level: 1, name: 'Scan room workstation' })).toBeVisible();
    await expect(page.getByText('internet · against Hilltop exchange')).toBeVisible();
  });

  await test.step('reads that the cable is the kink, and the figures along the strip', async () => {
    await expect(page.getByText('This cable can show 94.1 at best')).toBeVisible();
    await expect(page.getByText('kink 94.1 Mb/s')).toBeVisible();
    const strip = page.getByRole('slider', { name: 'Time on the strip' });
    await tabTo(page, strip);
    await press(page, 'Shift+ArrowRight', 'Shift+ArrowRight', 'Shift+ArrowRight', 'Shift+ArrowRight');
    await expect(strip).toHaveAttribute('aria-valuetext', /^4\.0 s · .* · delay [\d.]+ ms/);
  });

  await test.step('writes down what was found, and shares it', async () => {
    await tabTo(page, page.getByLabel('what should be remembered about this run'));
    await page.keyboard.type('grey cable comes up at 100, swap it');
    await tabTo(page, page.getByRole('button', { name: 'Save the notes' }));
    await press(page, 'Enter');
    await expect(page.getByText('Saved.')).toBeVisible();
    await tabTo(page, page.getByRole('button', { name: 'Make a link to this run' }));
    await press(page, 'Enter');
    await expect(page.getByText(SHARED_LINK)).toBeVisible();
  });

  await test.step('finds the same in the ledger, and the other office by its name', async () => {
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await press(page, 'l');
    await expect(page.getByRole('heading', { level: 1, name: 'Ledger' })).toBeVisible();
    await press(page, '/');
    await page.keyboard.type('scan room');
    await expect(page.getByRole('status').filter({ hasText: /runs match/ })).toBeVisible();
    await press(page, 'Control+k');
    await page.keyboard.type('quay');
    await press(page, 'Enter');
    await expect(page.getByRole('button', { name: /Office: .*Quay Street/ })).toBeVisible();
    await expect(page.getByRole('rowheader', { name: /Front counter/ })).toBeVisible();
  });
});

test('whoever has the link reads the run and nothing else, until it is revoked', async ({ browser }) => {
  const technician = await (await browser.newContext()).newPage();
  await technician.goto(`${program.origin}/sign-in`);
  await technician.getByLabel('your name').fill('Ines');
  await technician.getByLabel('passphrase').fill(passphraseOf(program));
  await technician.getByRole('button', { name: 'Sign in' }).click();
  await technician.getByRole('link', { name: /^Scan room workstation, wired · internet/ }).click();
  const path = new URL(await technician.getByText(SHARED_LINK).innerText()).pathname;

  const reader = await (await browser.newContext()).newPage();
  await reader.goto(program.origin + path);
  await expect(reader.getByText('grey cable comes up at 100, swap it')).toBeVisible();
  await expect(reader.getByRole('link')).toHaveCount(0);
  await reader.goto(program.origin + path.replace('/s/', '/runs/').replace(/\/[^/]+$/, ''));
  await expect(reader).toHaveURL(/sign-in/);

  await technician.getByRole('button', { name: 'Revoke it' }).click();
  await expect(technician.getByRole('button', { name: 'Make a link to this run' })).toBeVisible();
  const closed = await reader.goto(program.origin + path);
  expect(closed!.status()).toBe(404);
});
