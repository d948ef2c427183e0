import { randomInt } from 'node:crypto';

/** Letters and digits that are not mistaken for one another when read out or written down. */
export const CODE_LETTERS = '23456789CDFGHJKMNPQRTVWXY';
export const CODE_LENGTH = 6;

export function newJoinCode(pick: (below: number) => number = randomInt): string {
  return Array.from({ length: CODE_LENGTH }, () => CODE_LETTERS[pick(CODE_LETTERS.length)]).join('');
}

/** A code as typed by a person, brought to its stored form: case, blanks and hyphens do not matter. */
export function readJoinCode(typed: string): string {
  return typed.toUpperCase().replace(/[\s-]/g, '');
}
