import { expect, type Page } from '@playwright/test';
import type { Program } from './program';

/** Signs a browser in as the technician: with the printed passphrase, or by the first-start link where none is set. */
export async function signIn(page: Page, program: Program, name = 'Ines'): Promise<void> {
  await page.goto(`${program.origin}/sign-in`);
  const first = page.url().endsWith('/welcome');
  if (first) await page.goto(/http:\S+\/welcome\/\S+/.exec(program.output())![0]);
  await page.getByLabel('your name').fill(name);
  if (first) {
    await page.getByLabel('passphrase', { exact: true }).fill(FIRST_PASSPHRASE);
    await page.getByLabel('the same again').fill(FIRST_PASSPHRASE);
    await page.getByRole('button', { name: 'Open the console' }).click();
  } else {
    await page.getByLabel('passphrase').fill(passphraseOf(program));
    await page.getByRole('button', { name: 'Sign in' }).click();
  }
  await expect(page).toHaveURL(`${program.origin}/`);
}

export const FIRST_PASSPHRASE = 'seven quires of vellum';

/** What the demo printed. */
export function passphraseOf(program: Program): string {
  return /passphrase: (.+)/.exec(program.output())?.[1]?.trim() ?? FIRST_PASSPHRASE;
}
