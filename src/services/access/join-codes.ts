import { randomInt } from 'node:crypto';
import type { Site } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** Letters and digits that are not mistaken for one another when read out or written down. */
export const CODE_LETTERS = '23456789CDFGHJKMNPQRTVWXY';
export const CODE_LENGTH = 6;

export function newJoinCode(pick: (below: number) => number = randomInt): string {
  return Array.from({ length: CODE_LENGTH }, () => CODE_LETTERS[pick(CODE_LETTERS.length)]).join('');
}

/** A label's address: L, which no join code has, and as many letters as nobody guesses. */
const LABEL_LETTERS = 12;

export function newLabelId(pick: (below: number) => number = randomInt): string {
  return `L${Array.from({ length: LABEL_LETTERS }, () => CODE_LETTERS[pick(CODE_LETTERS.length)]).join('')}`;
}

export function isLabelId(code: string): boolean {
  return code.length === LABEL_LETTERS + 1 && code.startsWith('L');
}

/** A code as typed by a person, brought to its stored form: case, blanks and hyphens do not matter. */
export function readJoinCode(typed: string): string {
  return typed.toUpperCase().replace(/[\s-]/g, '');
}

/** A code is read out and written on slips; a day later it is worth nothing. */
const CODE_LIFE_MS = 24 * 3600_000;

/** A new code for an office; the old one opens nothing from now on. Devices that have joined stay. */
export async function renewJoinCode(context: ConsoleContext, siteId: string): Promise<Outcome<Site, 'site-missing'>> {
  const { sites } = context.store;
  const site = await sites.byId(siteId);
  if (site === null) return failed('site-missing');
  const renewed = { ...site, joinCode: newJoinCode(), joinCodeUntilMs: context.wallMs() + CODE_LIFE_MS };
  await sites.saveSite(renewed);
  return done(renewed);
}

/** What a new office starts with. */
export function firstJoinCode(nowMs: number): Pick<Site, 'joinCode' | 'joinCodeUntilMs'> {
  return { joinCode: newJoinCode(), joinCodeUntilMs: nowMs + CODE_LIFE_MS };
}

/** Gives every office whose code has ended a new one: whoever shows a code must show one that works. */
export async function renewEndedCodes(context: ConsoleContext): Promise<void> {
  for (const site of await context.store.sites.all())
    if (site.joinCodeUntilMs <= context.wallMs()) await renewJoinCode(context, site.id);
}
