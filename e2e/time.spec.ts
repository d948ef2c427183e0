import { expect, type Page } from '@playwright/test';
import { test } from './one-browser';
import type { Program } from './program';
import { signIn } from './technician';

test.describe.configure({ mode: 'serial' });

let program: Program;
test.beforeAll(({ demo }) => {
  program = demo;
});
test.beforeEach(({ page }) => signIn(page, program));

const picture = (page: Page) => page.getByRole('slider', { name: / over time$/ });
const isDrawn = (page: Page) => expect(picture(page)).toHaveAttribute('data-drawn', 'true');

test('that the workshop’s line sags in the evening is told, with how much, and how often the plan was met', async ({
  page,
}) => {
  await page.keyboard.press('o');
  await expect(
    page.getByText(
      /^Between 19:00 and 22:00 down is 3\d\d Mb\/s \(\d+ occasions\); else 48\d\. Everybody in this office together moves only [\d.]+ of 500 Mb\/s down then, by the router's counters: it is not made here\.$/,
    ),
  ).toBeVisible();
  await isDrawn(page);
  const plan = page.getByRole('region', { name: 'The plan over time' });
  await expect(plan).toContainText(/Of \d+ runs that could tell, \d+ met the plan: 7\d %\./);
  await expect(plan).toContainText(/could not tell: over the air \(\d+\)/);
  await expect(
    page.getByRole('cell', { name: /^Mon 20:00: 3\d\d Mb\/s \(\d\d % of the plan\), 3 occasions$/ }),
  ).toBeVisible();
});

test('the picture is read with the keyboard, brought nearer, and leads to the run', async ({ page }) => {
  await page.goto(`${program.origin}/time`);
  await isDrawn(page);
  await picture(page).focus();
  await page.keyboard.press('End');
  await expect(picture(page)).toHaveAttribute('aria-valuetext', /, down 48\d Mb\/s, up 97\.\d Mb\/s/);
  const newest = await picture(page).getAttribute('aria-valuenow');
  await page.keyboard.press('ArrowLeft');
  await expect(picture(page)).toHaveAttribute('aria-valuenow', String(Number(newest) - 1));
  const drawing = () => picture(page).locator('canvas').screenshot();
  const whole = await drawing();
  await page.keyboard.press('+');
  await expect.poll(async () => (await drawing()).equals(whole)).toBe(false);
  await page.keyboard.press('0');
  await expect.poll(async () => (await drawing()).equals(whole)).toBe(true);
  await page.getByLabel('below:').selectOption({ label: 'idle delay' });
  await expect.poll(async () => (await drawing()).equals(whole)).toBe(false);
  await page.getByText('The occasions as a table').click();
  await page.getByRole('row').nth(10).scrollIntoViewIfNeeded();
  await page.getByRole('table').last().getByRole('link').first().click();
  await expect(page).toHaveURL(/\/runs\//);
});

test('that the shop’s new router helped stands beside the change that it made', async ({ page }) => {
  await page.getByRole('button', { name: /Office:/ }).click();
  await page.getByRole('menuitem', { name: /Quay Street/ }).click();
  await expect(page.getByRole('button', { name: /Office: .*Quay Street/ })).toBeVisible();
  await page.keyboard.press('o');
  await expect(
    page.getByText(
      /the delay that the upload adds went from 40\d to 1\d ms: .* Beside it: the router replaced: the old one ran hot\./,
    ),
  ).toBeVisible();
  await expect(page.getByRole('list', { name: 'Flags' })).toContainText('the router replaced: the old one ran hot');
});

test('too little says so, and what the address does not name is said', async ({ page }) => {
  await page.goto(`${program.origin}/time?of=nobody%20wired%20local`);
  await expect(page.getByText('What the address names is no line and no device of')).toBeVisible();
  await page.getByLabel('Over time:').selectOption({ label: 'Press desk, wired, internet · 1 occasion' });
  await expect(page.getByText('1 occasion so far: what is usual is known from eight on')).toBeVisible();
  await expect(page.getByText('Between')).toHaveCount(0);
});

test('a script reads the same; a console that is away is said to be', async ({ page }) => {
  const api = `${program.origin}/api/v1`;
  const [site] = (await (await page.request.get(`${api}/sites`)).json()) as { id: string }[];
  const subjects = (await (await page.request.get(`${api}/sites/${site!.id}/over-time`)).json()) as {
    key: string;
    kind: string;
  }[];
  expect(subjects[0]!.kind).toBe('line');
  const series = (await (
    await page.request.get(`${api}/sites/${site!.id}/over-time/${encodeURIComponent(subjects[0]!.key)}`)
  ).json()) as {
    occasions: { down: (number | null)[]; startedAtMs: number[] };
    plan: { met: number };
  };
  expect(series.occasions.down).toHaveLength(series.occasions.startedAtMs.length);
  expect(series.plan.met).toBeGreaterThan(100);
  const unknown = await page.request.get(`${api}/sites/${site!.id}/over-time/line%20none`);
  expect([unknown.status(), ((await unknown.json()) as { code: string }).code]).toEqual([404, 'subject-unknown']);
  await page.context().route('**/over-time/**', (route) => route.abort());
  await page.goto(`${program.origin}/time`);
  await expect(page.getByText('The console does not answer. Look whether it runs')).toBeVisible();
});

test('how long a copy takes is told for the usual hour and for the bad ones, by what was measured', async ({
  page,
}) => {
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find or do something' }).fill('backup');
  await page.getByRole('option', { name: 'How long a copy takes' }).click();
  await page.getByLabel('from where, how far').selectOption({ label: 'Attic agent, wired, internet' });
  // 100 GB at 484 Mb/s, and at 312 in the evening, with 3 % for headers.
  await expect(page.getByText(/^2[78] min$/)).toBeVisible();
  await expect(page.getByText(/^4[3-5] min between 19:00 and 22:00$/)).toBeVisible();
  await page.getByLabel('how much').fill('so much');
  await expect(page.getByRole('alert').filter({ hasText: 'Write a size' })).toBeVisible();
  await page.getByLabel('how much').fill('1,5');
  await page.getByLabel('unit').selectOption('TB');
  await expect(page.getByText(/^7 h( \d+ min)?$|^6 h 5\d min$/)).toBeVisible();
  await page.goto(`${program.origin}/copy?of=nobody`);
  await expect(page.getByText('What the address names is no device')).toBeVisible();
});
