import { expect, type Page } from '@playwright/test';

/** What a person at a device answers. */
export interface Answers {
  readonly name: string;
  readonly spot?: string;
  readonly link?: string;
  readonly cableMbps?: string;
  readonly reach?: 'out to the internet' | 'inside the office only';
}

/** Fills in the device page, as a person would. */
export async function answer(page: Page, { name, spot, link, cableMbps, reach }: Answers): Promise<void> {
  // What it asks stands there once the page can take an answer.
  await expect(page.getByRole('button', { name: 'Measure' })).toBeEnabled({ timeout: 30_000 });
  const device = page.getByRole('combobox', { name: /What is this device/ });
  const known = (await device.count()) > 0 ? await device.locator('option').allTextContents() : [];
  if (known.includes(name)) await device.selectOption({ label: name });
  else await page.getByPlaceholder('for example: Reading room laptop').fill(name);
  if (spot !== undefined) await page.getByLabel('Where is it?').fill(spot);
  if (link !== undefined) await page.getByLabel('How is it connected?').selectOption({ label: link });
  if (cableMbps !== undefined) await page.getByLabel('which came up at').selectOption(cableMbps);
  if (reach !== undefined) await page.getByLabel(reach).check();
}

export async function measure(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Measure' }).click();
}

/** Waits for a phase of the run to be under way. */
export async function inPhase(page: Page, words: RegExp): Promise<void> {
  await expect(page.getByRole('heading', { name: words })).toBeVisible({ timeout: 25_000 });
}

export async function resultShown(page: Page): Promise<void> {
  await expect(page.getByRole('button', { name: /Run again/ })).toBeVisible({ timeout: 45_000 });
}

/** A figure in Mb/s out of a sentence such as "486 Mb/s down and 97.1 up." */
export function ratesIn(sentence: string): { down: number; up: number } {
  const [, down, up] = /([\d.]+) Mb\/s down and ([\d.]+) up/.exec(sentence) ?? [];
  return { down: Number(down), up: Number(up) };
}
