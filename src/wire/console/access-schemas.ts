import { z } from 'zod';

/** Long enough that guessing ten times in five minutes leads nowhere. */
export const LEAST_PASSPHRASE = 10;

const technicianName = z.string().trim().min(1, 'Write your name.').max(40, 'At most 40 characters.');
const passphrase = z.string().max(200, 'At most 200 characters.');

export const signInFormSchema = z.object({
  name: technicianName,
  passphrase: passphrase.min(1, 'Type the passphrase.'),
});

export const welcomeFormSchema = z
  .object({
    name: technicianName,
    passphrase: passphrase.min(LEAST_PASSPHRASE, `At least ${LEAST_PASSPHRASE} characters; four words do well.`),
    again: z.string(),
  })
  .refine(({ passphrase: first, again }) => first === again, {
    path: ['again'],
    message: 'The two are not the same. Type it again.',
  });

/** Where to go after signing in: a path of this console, never another site. */
export function readReturnPath(text: string | null): string {
  return text !== null && /^\/(?![/\\])[^\s\\]*$/.test(text) && !text.startsWith('/sign-in') ? text : '/';
}
