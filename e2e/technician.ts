import { expect, type Cookie, type Page } from '@playwright/test';
import type { Program } from './program';

/** What a browser that signed in holds, by the program's address: the form is filled in once, and again when that has ended. */
const signedIn = new Map<string, readonly Cookie[]>();

/** Leaves a browser signed in as the technician, at a place of the console: the board, unless another one is named. */
export async function signIn(page: Page, program: Program, place = '/'): Promise<void> {
  const known = signedIn.get(program.origin);
  if (known !== undefined) {
    await page.context().addCookies([...known]);
    await page.goto(program.origin + place);
    if (new URL(page.url()).pathname !== '/sign-in') return;
  }
  await fillInSignIn(page, program, 'Ines');
  // The sign-in alone: a browser that measured before is a device as well, and the next one is not.
  const cookies = await page.context().cookies(program.origin);
  signedIn.set(
    program.origin,
    cookies.filter(({ name }) => name === 'bent-straw-sign-in'),
  );
  if (place !== '/') await page.goto(program.origin + place);
}

/** With the printed passphrase, or by the first-start link where none is set. */
async function fillInSignIn(page: Page, program: Program, name: string): Promise<void> {
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
