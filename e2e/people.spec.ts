import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Browser, type Page } from '@playwright/test';
import { command } from './command';
import { test } from './one-browser';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';
import { FIRST_PASSPHRASE, signIn } from './technician';

test.describe.configure({ mode: 'serial' });

const PORT = newPort();
const data = newDataFolder();
const TOM = 'four thirsty anvils here';
let program: Program;
test.beforeAll(async () => {
  program = await startProgram({ mode: 'start', port: PORT, data, more: ['--office', 'Larkspur Bindery'] });
});
test.afterAll(() => program.interrupt());

const elsewhere = async (browser: Browser): Promise<Page> => (await browser.newContext()).newPage();

/** Opens a link that was shown or printed: its host is one that others reach. */
async function setByLink(page: Page, link: string, passphrase: string): Promise<void> {
  await page.goto(program.origin + new URL(link).pathname);
  await page.getByLabel('passphrase', { exact: true }).fill(passphrase);
  await page.getByLabel('the same again').fill(passphrase);
  await page.getByRole('button', { name: 'Set it and sign in' }).click();
}

async function signInAs(page: Page, name: string, passphrase: string): Promise<void> {
  await page.goto(`${program.origin}/sign-in`);
  await page.getByLabel('your name').fill(name);
  await page.getByLabel('passphrase').fill(passphrase);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

test('before anybody came in there is no passphrase that could be set anew', async () => {
  const early = await command('passphrase', ['--data', data, '--port', String(PORT)]);
  expect([early.said, early.exit]).toEqual([expect.stringMatching(/one-time link .*\[nobody-yet\]/), 1]);
});

test('a colleague is added by a link, comes in with a passphrase of his own, and is no keeper', async ({
  browser,
  page,
}) => {
  await signIn(page, program, '/people');
  const form = page.getByRole('form', { name: 'Add somebody' });
  await form.getByRole('button', { name: 'Add somebody' }).click();
  await expect(form.getByRole('alert')).toContainText('Write a name.');
  await form.getByLabel('name').fill('Tom');
  await form.getByRole('button', { name: 'Add somebody' }).click();
  const link = await page.getByText(/^http:\S+\/passphrase\/\S+$/).innerText();
  expect(link).not.toContain('localhost');

  const tom = await elsewhere(browser);
  await setByLink(tom, link, 'password1234');
  await expect(tom.getByText('Whoever guesses tries that one first.')).toBeVisible();
  await setByLink(tom, link, TOM);
  await expect(tom).toHaveURL(`${program.origin}/`);
  await tom.goto(`${program.origin}/people`);
  await expect(tom.getByText('Ines adds and removes people here.')).toBeVisible();
  await expect(tom.getByRole('button', { name: 'Remove' })).toHaveCount(0);

  const again = await elsewhere(browser);
  await again.goto(program.origin + new URL(link).pathname);
  await expect(again.getByRole('heading', { name: 'Link used or over' })).toBeVisible();
});

test('a sign-in that is ended elsewhere ends there at once, with what it was being told', async ({ browser, page }) => {
  const tom = await elsewhere(browser);
  await signInAs(tom, 'Tom', TOM);
  await expect(tom).toHaveURL(`${program.origin}/`);
  await signIn(page, program, '/people');
  const row = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Tom' }) });
  await row.getByRole('button', { name: 'Sign out everywhere' }).click();
  // Nobody touches the page that Tom has open: the board is taken from it.
  await expect(tom).toHaveURL(/sign-in/);
  await expect(row.getByText('Not signed in anywhere.')).toBeVisible();
});

test('one’s own passphrase is changed with the one that one has; it never comes back into the page', async ({
  page,
}) => {
  await signIn(page, program, '/people');
  const form = page.getByRole('form', { name: 'Change your passphrase' });
  const change = async (current: string, next: string) => {
    await form.getByLabel('the one you have').fill(current);
    await form.getByLabel('a new one', { exact: true }).fill(next);
    await form.getByLabel('the new one again').fill(next);
    await form.getByRole('button', { name: 'Change it' }).click();
  };
  await change('seven quires of paper', 'a new one, quite new');
  await expect(form.getByRole('alert')).toContainText('do not belong together');
  expect(await page.content()).not.toContain('a new one, quite new');
  await change(FIRST_PASSPHRASE, 'a new one, quite new');
  await expect(form.getByText('Saved.')).toBeVisible();
  await change('a new one, quite new', FIRST_PASSPHRASE);
  await expect(form.getByText('Saved.')).toBeVisible();
});

test('the last keeper can neither be removed nor stop being one', async ({ page }) => {
  await signIn(page, program, '/people');
  const own = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Ines' }) });
  await own.getByRole('button', { name: 'No longer a keeper' }).click();
  await expect(own.getByRole('alert')).toContainText('Ines is the only one who may add and remove people.');
  await own.getByRole('button', { name: 'Remove' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Remove' }).click();
  await expect(own.getByRole('alert')).toContainText('Let somebody else do that first');
});

test('a passphrase that was forgotten is set anew by a link from the machine, and signs out everywhere', async ({
  browser,
  page,
}) => {
  await signIn(page, program);
  const nobody = await command('passphrase', ['--data', newDataFolder()]);
  expect([nobody.said, nobody.exit]).toEqual([expect.stringContaining('[data-missing]'), 1]);
  const unknown = await command('passphrase', ['Nobody', '--data', data, '--port', String(PORT)]);
  expect(unknown.said).toMatch(/Name one of these: Ines, Tom\. \[person-unknown\]/);
  expect(unknown.exit).toBe(1);
  const made = await command('passphrase', ['ines', '--data', data, '--port', String(PORT)]);
  const link = /http:\S+\/passphrase\/\S+/.exec(made.said)![0];
  const machine = await elsewhere(browser);
  await setByLink(machine, link, 'quite another one, Ines');
  await expect(machine).toHaveURL(`${program.origin}/`);
  await expect(page).toHaveURL(/sign-in/);
  await signInAs(page, 'Ines', FIRST_PASSPHRASE);
  await expect(page.getByText('do not belong together')).toBeVisible();
  await signInAs(page, 'Ines', 'quite another one, Ines');
  await expect(page).toHaveURL(`${program.origin}/`);
});

test('a token reads, measures or does everything, as it was made, and not more', async ({ page, playwright }) => {
  await signInAs(page, 'Tom', TOM);
  await expect(page).toHaveURL(`${program.origin}/`);
  await page.goto(`${program.origin}/set-up`);
  const form = page.getByRole('form', { name: 'New token' });
  const answers = async (label: string, name: string) => {
    await form.getByLabel('what is the script called').fill(name);
    await form.getByLabel('what may it do').selectOption({ label });
    await form.getByRole('button', { name: 'Make a token' }).click();
    await expect(page.getByText(`The token of ${name}.`)).toBeVisible();
    const token = await page.getByText(/^straw_\S+$/).innerText();
    const script = await playwright.request.newContext({ extraHTTPHeaders: { Authorization: `Bearer ${token}` } });
    const api = `${program.origin}/api/v1`;
    const [{ id }] = (await (await script.get(`${api}/sites`)).json()) as [{ id: string }];
    const round = await script.post(`${api}/turns`, {
      data: { siteId: id, deviceIds: ['x'], reaches: ['local'], times: 1, profile: 'quick', together: false },
    });
    const renamed = await script.put(`${api}/sites/${id}`, { data: { name: 'Larkspur Bindery' } });
    return [round.status(), renamed.status()];
  };
  expect(await answers('read everything', 'reader')).toEqual([403, 403]);
  // The round names a device that is not there: it was let through to that.
  expect(await answers('read, and let devices measure', 'measurer')).toEqual([404, 403]);
  expect(await answers('do everything but add people', 'doer')).toEqual([404, 200]);
});

test('what happened can be read, narrowed, and is told without what is secret', async ({ page }) => {
  await signInAs(page, 'Ines', 'quite another one, Ines');
  await expect(page).toHaveURL(`${program.origin}/`);
  await page.getByRole('link', { name: 'Ines' }).click();
  await page.getByRole('link', { name: /What happened/ }).click();
  await expect(page.getByText('Tom made the token doer')).toBeVisible();
  await expect(page.getByText('the script doer named the office Larkspur Bindery')).toBeVisible();
  await page.locator('select[name=kind]').selectOption({ label: 'sign-ins and passphrases' });
  await expect(page.getByText('Somebody did not get in as Ines').first()).toBeVisible();
  await expect(page.getByText('Tom made the token doer')).toHaveCount(0);
  await page.locator('select[name=who]').selectOption('Tom');
  await expect(page.getByText('Tom set a passphrase by a link')).toBeVisible();
  await expect(page.getByText('Somebody did not get in')).toHaveCount(0);
  expect(await page.content()).not.toContain(TOM);
});

test('each part writes a log that only its user may read, with the ids of requests and nothing secret', async ({
  page,
}) => {
  const refused = await page.request.get(`${program.origin}/api/v1/nothing?code=KMT4QX`);
  const id = refused.headers()['x-request-id']!;
  const folder = join(data, 'log');
  const text = () =>
    readdirSync(folder)
      .map((name) => readFileSync(join(folder, name), 'utf8'))
      .join('');
  await expect.poll(text).toContain(id);
  expect(text()).toMatch(/"part":"console".*"event":"open"/);
  for (const secret of [TOM, FIRST_PASSPHRASE, 'straw_', 'KMT4QX', 'bent-straw-sign-in'])
    expect(text()).not.toContain(secret);
  for (const name of [
    '.',
    'log',
    'bent-straw.sqlite',
    'console-key.pem',
    ...readdirSync(folder).map((each) => `log/${each}`),
  ])
    expect([name, statSync(join(data, name)).mode & 0o077]).toEqual([name, 0]);
});
