import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { test } from './one-browser';
import type { Program } from './program';
import { signIn } from './technician';

test.describe.configure({ mode: 'serial' });

let program: Program;
let address = '';
test.beforeAll(({ demo }) => {
  program = demo;
});
test.beforeEach(({ page }) => signIn(page, program));

const form = (page: Page) => page.getByRole('form', { name: 'New case' });
const daysAgo = (days: number) => new Date(Date.now() - days * 24 * 3600_000).toISOString().slice(0, 10);
const figures = (page: Page) => page.getByRole('list', { name: 'Figures of the contract' }).getByRole('listitem');

test('a case for the line is opened over what was measured, and says what falls short', async ({ page }) => {
  await page.keyboard.press('c');
  await expect(page.getByRole('heading', { level: 1, name: 'Cases' })).toBeVisible();
  // The contract's figures stand there as the plan has them; the usual rate is in the contract alone.
  await expect(form(page).getByLabel('advertised down')).toHaveValue('500');
  await form(page).getByLabel('title').fill('Tarnfell keeps its word, Łódź?');
  await form(page).getByLabel('usual down').fill('480');
  await form(page).getByLabel('usual: missed in').fill('20');
  await form(page).getByRole('textbox', { name: 'runs count from' }).fill(daysAgo(10));
  await form(page).getByRole('button', { name: 'Open the case' }).click();
  await expect(page).toHaveURL(/\/case\/./);
  address = page.url();
  await expect(
    page.getByText(/^The line falls short of the contract: \d+ runs on \d+ days, all measured by the rule\.$/),
  ).toBeVisible();
  await expect(figures(page).filter({ hasText: 'The usual download rate of 480 Mb/s' })).toContainText(
    /falls short.*was not reached in \d+ of \d+ runs/,
  );
  await expect(figures(page).filter({ hasText: 'advertised upload' })).toContainText('keeps');
  await page.getByText('runs that do not, and why').click();
  await expect(page.getByText('not by cable').first()).toBeVisible();
});

test('the record is a PDF whose figures can be read, with the data and their checksum', async ({ page }) => {
  const file = join(mkdtempSync(join(tmpdir(), 'bent-straw-e2e-')), 'case.pdf');
  const answer = await page.request.get(`${address}/record.pdf`);
  expect(answer.headers()['content-disposition']).toContain('tarnfell-keeps-its-word');
  const pdf = await answer.body();
  expect(pdf.length).toBeLessThan(1e6);
  writeFileSync(file, pdf);
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  expect(text).toMatch(/The line falls short of the contract: \d+ runs on \d+ days/);
  expect(text).toContain('The usual download rate of 480 Mb/s was not reached in');
  expect(text).toMatch(/Attic agent\s+4\d\d\s+9\d\.\d/);
  // Office, line, year, zone and what it is made of stand on every page.
  const pages = text.split('\f').filter((each) => each.trim() !== '');
  expect(pages.length).toBeGreaterThan(1);
  for (const each of pages)
    expect(each).toMatch(
      /Tarnfell keeps its word, Łódź\? · Larkspur Bindery · Mill Lane · .* \d{4}, .*\(.+\) · demo data/,
    );
  execFileSync('pdfdetach', ['-save', '1', '-o', `${file}.json`, file]);
  const data = readFileSync(`${file}.json`);
  const written = text.match(/\b[0-9a-f]{64}\b/)![0];
  expect(createHash('sha256').update(data).digest('hex')).toBe(written);
  const record = JSON.parse(data.toString()) as { counted: object[]; answer: { falls_short: boolean } };
  expect(record.answer.falls_short).toBe(true);
  expect(text).toContain(`${record.counted.length} runs on`);
});

test('what cannot be is refused beside its field, a case is changed, closed and removed', async ({ page }) => {
  await page.goto(address);
  await page.getByText('Change the contract’s figures').click();
  const change = page.getByRole('form', { name: 'Case' });
  await change.getByLabel('runs, at least').fill('many');
  await change.getByRole('button', { name: 'Save the case' }).click();
  await expect(page.getByText('Write a number, such as 500 or 2.5.')).toBeVisible();
  await change.getByLabel('runs, at least').fill('900');
  await change.getByRole('button', { name: 'Save the case' }).click();
  await expect(page.getByText(/^Not complete yet: \d+ runs on \d+ days count; so far it falls short/)).toBeVisible();
  await expect(page.getByText(/^Missing: \d+ more runs\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByText(', closed')).toBeVisible();
  await page.getByRole('button', { name: 'Remove' }).click();
  await page.getByRole('button', { name: 'Remove it' }).click();
  await expect(page).toHaveURL(/\/case$/);
  await expect(page.getByText('Tarnfell keeps its word, Łódź?')).toHaveCount(0);
  const gone = await page.request.get(`${address}/record.pdf`);
  expect([gone.status(), ((await gone.json()) as { code: string }).code]).toEqual([404, 'case-unknown']);
  await page.goto(`${program.origin}/happened`);
  await expect(page.getByText(/removed the case Tarnfell keeps its word/)).toBeVisible();
});

test('the month is told on a sheet of one’s own, with the sections that were chosen', async ({ page }) => {
  await page.goto(`${program.origin}/set-up`);
  const head = page.getByRole('form', { name: 'Letterhead' });
  await head.getByLabel('name').fill('Quill & Wire');
  await head.locator('input[type=file]').setInputFiles({
    ...{ name: 'mark.png', mimeType: 'image/png' },
    buffer: Buffer.from('not a picture'),
  });
  await head.getByRole('button', { name: 'Save' }).click();
  await expect(head.getByRole('alert')).toContainText('neither PNG nor JPEG');
  await head.locator('input[type=file]').setInputFiles([]);
  await head.getByRole('button', { name: 'Save' }).click();
  await expect(head.getByText('Saved.')).toBeVisible();

  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find or do something' }).fill('boss');
  await expect(page.getByRole('option', { selected: true })).toContainText('A report of the month');
  await page.keyboard.press('Enter');
  const sheet = page.getByRole('article');
  await page.getByLabel('about').selectOption('days');
  await page.getByLabel('from the day').fill(daysAgo(20));
  await page.getByLabel('to the day').fill('tomorrow-ish');
  await page.getByRole('button', { name: 'Show it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Write both days like' })).toBeVisible();
  await page.getByLabel('to the day').fill('today');
  await page.getByRole('button', { name: 'Show it' }).click();
  await expect(sheet.getByText('Quill & Wire')).toBeVisible();
  await expect(
    sheet.getByText(/Tarnfell Fibre 500\/100: Of \d+ runs that could tell, \d+ met the plan: 7\d %\./),
  ).toBeVisible();
  await expect(sheet.getByRole('heading', { name: 'What stood out, and what to do' })).toBeVisible();
  await page.getByRole('checkbox', { name: 'what stood out' }).uncheck();
  await expect(sheet.getByRole('heading', { name: 'What stood out, and what to do' })).toHaveCount(0);
  await expect(sheet.getByRole('heading', { name: 'What was measured where' })).toBeVisible();

  const file = join(mkdtempSync(join(tmpdir(), 'bent-straw-e2e-')), 'report.pdf');
  // Stopped while it is made, nothing is saved and it can be made again.
  await page.route('**/report/file?*', () => undefined);
  await page.getByRole('link', { name: 'PDF' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'being made' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('being made')).toHaveCount(0);
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'PDF' }).click();
  expect((await saved).suggestedFilename()).toMatch(/^[\w-]+\.pdf$/);
  const href = (await page.getByRole('link', { name: 'PDF' }).getAttribute('href'))!;
  writeFileSync(file, await (await page.request.get(program.origin + href)).body());
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  expect(text).toContain('Quill & Wire');
  expect(text).toMatch(/Attic agent\s+wired\s+internet\s+\d+\s+4\d\d\s+9\d/);
  expect(text).not.toContain('What stood out');
});
