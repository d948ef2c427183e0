import { expect, type Page } from '@playwright/test';
import { test } from './one-browser';
import { newPort } from './ports';
import { newDataFolder, startProgram, type Program } from './program';
import { signIn } from './technician';

/** A newcomer with the demo: what is wrong is read off the board, and the scan room is mended by the words on the screen. */

let program: Program;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  program = await startProgram({ mode: 'demo', port: newPort(), data: newDataFolder(), slowLines: true });
});
test.afterAll(() => program.interrupt());

const standsOut = (page: Page) => page.getByRole('region', { name: 'What stands out' });

test('the board says what is wrong, for whom and how surely, before anything is pressed', async ({ page }) => {
  await signIn(page, program);
  const lines = standsOut(page).getByRole('listitem');
  await expect(lines).toHaveCount(3);
  await expect(lines.nth(0)).toContainText(/Whoever uploads makes everybody wait 2\d\d ms \(6 devices\)/);
  await expect(lines.nth(1)).toContainText('The cable of Scan room workstation came up at 100 Mb/s');
  await expect(lines.nth(2)).toContainText(/The 2\.4 GHz air of “glue room ceiling” holds back/);
  await standsOut(page).getByRole('button', { name: '3 more' }).click();
  await expect(standsOut(page)).toContainText(/Between 19:00 and 22:00 the line gives 3\d\d Mb\/s down; else 48\d/);
  await expect(standsOut(page)).toContainText(/Finishing bench laptop makes .* It is the device itself\./);
  await expect(standsOut(page)).toContainText(/Through the tunnel come 18\.\d Mb\/s down: the slower end/);
});

test('why is behind one press, and a finding can be let be with a reason and taken up again', async ({ page }) => {
  await signIn(page, program);
  const scan = standsOut(page).getByRole('listitem').filter({ hasText: 'Scan room' });
  await scan.getByRole('button', { name: 'show why' }).click();
  await expect(scan).toContainText('Swap the cable first');
  await expect(scan.getByRole('link', { name: 'run 1' })).toBeVisible();
  await scan.getByRole('button', { name: 'let it be' }).click();
  await scan.getByRole('button', { name: 'let it be' }).click();
  await expect(scan.getByRole('alert')).toContainText('Say in a few words');
  await scan.getByLabel('why it may stay as it is').fill('the room is empty until spring');
  await scan.getByRole('button', { name: 'let it be' }).click();
  await expect(standsOut(page).getByRole('listitem').filter({ hasText: 'Scan room' })).toHaveCount(0);
  await standsOut(page).getByRole('button', { name: /more/ }).click();
  const rests = standsOut(page).getByRole('listitem').filter({ hasText: 'Scan room' });
  await rests.getByRole('button', { name: 'take up again' }).click();
  await expect(rests.getByRole('button', { name: 'hunt' })).toBeVisible();
});

test('a hunt for the scan room ends mended: the swap, the run after it, and both held against each other', async ({
  page,
}) => {
  // A whole run, beside other tests that measure.
  test.setTimeout(200_000);
  await signIn(page, program);
  const scan = standsOut(page).getByRole('listitem').filter({ hasText: 'Scan room' });
  await scan.getByRole('button', { name: 'hunt' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    'The cable of Scan room workstation came up at 100',
  );
  const form = page.getByRole('form', { name: 'Write down a swap' });
  await form.getByLabel('where').selectOption({ label: 'the cable or port of Scan room workstation' });
  await form.getByLabel('what was changed').selectOption({ label: 'another cable' });
  await form.getByLabel('a word about it').fill('the blue one from the cupboard');
  await form.getByRole('button', { name: 'Swapped' }).click();
  await expect(form.getByRole('status')).toContainText('Written down. Measure again now.');

  await page.goto(program.origin);
  await page.getByRole('button', { name: 'Run local on Scan room workstation' }).click();
  await expect(
    page.getByRole('link', { name: /^Scan room workstation, wired · local: (full|thin|starved)\. [2-9]\d\d down/ }),
  ).toBeVisible({
    timeout: 150_000,
  });
  await expect(standsOut(page)).not.toContainText('Scan room workstation came up at 100');

  await page.goto(`${program.origin}/hunt`);
  await page.getByRole('link', { name: /The cable of Scan room workstation/ }).click();
  await expect(page.getByRole('region', { name: 'What the swaps did' })).toContainText(/9[34]\.\d → [2-9]\d\d Mb\/s/);
  await page.getByLabel('a line for the story').fill('it was pinched behind the drawer');
  await page.getByRole('button', { name: 'Mended' }).click();
  await expect(page.getByText('Ines mended it: it was pinched behind the drawer')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Go on with it' })).toBeVisible();
});

test('a hunt about a device leads by its next test, with what each outcome would mean', async ({ page }) => {
  await signIn(page, program);
  await page.keyboard.press('h');
  await page.getByLabel('who says that it is slow').selectOption({ label: 'Accounts laptop' });
  await page.getByRole('button', { name: 'Begin a hunt' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Accounts laptop is slow' })).toBeVisible();
  await expect(page.getByRole('table', { name: /suspected/ }).getByRole('row')).not.toHaveCount(1);
  // What a look rules out is ticked, stands in the story, and can be taken back.
  const backup = page.getByRole('group', { name: 'Look first' }).getByLabel('no backup runs on it');
  await backup.check();
  const story = page.getByRole('region', { name: 'The story so far' });
  await expect(story.getByText('Looked: no backup runs on it.')).toBeVisible();
  await backup.uncheck();
  await expect(story.getByText('Taken back: no backup runs on it.')).toBeVisible();
  // The same, open, for whoever begins it a second time.
  const address = page.url();
  await page.goto(`${program.origin}/hunt`);
  await page.getByLabel('who says that it is slow').selectOption({ label: 'Accounts laptop' });
  await page.getByRole('button', { name: 'Begin a hunt' }).click();
  await expect(page).toHaveURL(address);
});

test('whoever scans a label says that it is slow in one press, is measured inside and out, and is heard', async ({
  page,
  browser,
}) => {
  await signIn(page, program, '/labels');
  await page.getByRole('button', { name: 'Make the labels' }).click();
  const label = page
    .getByRole('list', { name: 'Labels to cut out' })
    .getByRole('listitem')
    .filter({ hasText: 'Office' })
    .first();
  const path = /\/l\/\w+/.exec(await label.innerText())![0];

  const phone = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const inHand = await phone.newPage();
  await inHand.goto(program.origin + path);
  await expect(inHand.getByRole('heading', { name: 'What is slow right now?' })).toBeVisible();
  await inHand.getByRole('button', { name: 'Calls and meetings' }).click();
  await expect(inHand.getByText('Written down: the technician has it')).toBeVisible({ timeout: 60_000 });
  await expect(inHand.getByText('The plan is 500 down and 100 up')).toBeVisible({ timeout: 60_000 });
  expect(await inHand.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await phone.close();

  await page.goto(program.origin);
  const said = standsOut(page).getByRole('listitem').filter({ hasText: 'calls and meetings are slow' });
  await expect(said).toContainText('(Office)');
  await said.getByRole('button', { name: 'seen' }).click();
  await expect(said).toHaveCount(0);

  await page.goto(`${program.origin}/labels`);
  await page.getByRole('button', { name: 'Revoke all of them' }).click();
  await expect(page.getByRole('button', { name: 'Make the labels' })).toBeVisible();
  const late = await browser.newPage();
  await late.goto(program.origin + path);
  await expect(late.getByText('This label opens nothing')).toBeVisible();
  await late.close();
});

test('a script reads what stands out and writes a swap down', async ({ page, playwright }) => {
  await signIn(page, program);
  const cookie = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
  const script = await playwright.request.newContext({ extraHTTPHeaders: { Cookie: cookie, Origin: program.origin } });
  const get = async (path: string) => (await script.get(`${program.origin}/api/v1${path}`)).json() as Promise<unknown>;
  const [{ id: site }] = (await get('/sites')) as [{ id: string }];
  const findings = (await get(`/sites/${site}/findings`)) as { id: string; code: string; sentence: string }[];
  expect(findings[0]).toMatchObject({ code: 'queue-too-deep', strength: 'found' });
  const hunt = await script.post(`${program.origin}/api/v1/hunts`, { data: { findingId: findings[0]!.id } });
  expect(hunt.status()).toBe(201);
  const { id } = (await hunt.json()) as { id: string };
  expect(await get(`/hunts/${id}`)).toMatchObject({ id, state: 'open' });
  const wrong = await script.post(`${program.origin}/api/v1/sites/${site}/swaps`, {
    data: { what: 'other-cable', segmentId: 'router' },
  });
  expect([wrong.status(), ((await wrong.json()) as { code: string }).code]).toEqual([422, 'swap-other-place']);
  await script.dispose();
});
