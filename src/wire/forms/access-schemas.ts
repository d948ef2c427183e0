import * as z from 'zod';
import { isCommonPassphrase } from './common-passphrase';

/** Long enough that guessing ten times in five minutes leads nowhere. */
export const LEAST_PASSPHRASE = 10;

const technicianName = z.string().trim().min(1, 'Write a name.').max(40, 'At most 40 characters.');
const passphrase = z.string().max(200, 'At most 200 characters.');
const newPassphrase = passphrase.min(LEAST_PASSPHRASE, `At least ${LEAST_PASSPHRASE} characters; four words do well.`);

interface TypedTwice {
  readonly passphrase: string;
  readonly again: string;
  readonly name?: string | undefined;
}

/** A new passphrase is typed twice, and is none that is guessed first. */
function checkNew({ passphrase: first, again, name = '' }: TypedTwice, context: z.RefinementCtx): void {
  if (first.length >= LEAST_PASSPHRASE && isCommonPassphrase(first, name))
    context.addIssue({
      code: 'custom',
      path: ['passphrase'],
      message: 'Whoever guesses tries that one first. Take four words that do not belong together.',
    });
  if (first !== again)
    context.addIssue({ code: 'custom', path: ['again'], message: 'The two are not the same. Type it again.' });
}

export const signInFormSchema = z.object({
  name: technicianName,
  passphrase: passphrase.min(1, 'Type the passphrase.'),
});

export const welcomeFormSchema = z
  .object({ name: technicianName, passphrase: newPassphrase, again: z.string() })
  .superRefine(checkNew);

/** By a link that was given: an invitation, or one made at the machine. */
export const newPassphraseFormSchema = z.object({ passphrase: newPassphrase, again: z.string() }).superRefine(checkNew);

/** One's own, while signed in. */
export const changePassphraseFormSchema = z
  .object({
    current: passphrase.min(1, 'Type the passphrase that you have now.'),
    passphrase: newPassphrase,
    again: z.string(),
  })
  .superRefine(checkNew);

export const technicianFormSchema = z.object({ name: technicianName });

/** What a token may be used for; each may do what stands before it too. */
export const TOKEN_SCOPES = ['read', 'measure', 'everything'] as const;
export type TokenScope = (typeof TOKEN_SCOPES)[number];

export const TOKEN_LIVES = { '30': '30 days', '90': '90 days', '365': 'a year', '0': 'until it is revoked' } as const;

export const tokenFormSchema = z.object({
  name: z.string().trim().min(1, 'Give the script a name.').max(80, 'At most 80 characters.'),
  scope: z.enum(TOKEN_SCOPES).default('read'),
  /** How long it lasts, days; 0: until it is revoked. */
  days: z
    .enum(Object.keys(TOKEN_LIVES) as [keyof typeof TOKEN_LIVES])
    .default('90')
    .transform(Number),
});
export type TokenForm = z.infer<typeof tokenFormSchema>;

/** Where to go after signing in: a path of this console, never another site. */
export function readReturnPath(text: string | null): string {
  return text !== null && /^\/(?![/\\])[^\s\\]*$/.test(text) && !text.startsWith('/sign-in') ? text : '/';
}
