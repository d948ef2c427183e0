import * as z from 'zod';
import { typedNumber } from './typed-number';

const whole = (least: number, most: number, words: string) =>
  typedNumber.refine((value) => value === null || (Number.isInteger(value) && value >= least && value <= most), words);
const box = z
  .string()
  .optional()
  .transform((value) => value === 'on' || value === 'yes');

/** What an office wants to be told of; a blank number: not of that. */
export const alarmRulesFormSchema = z.object({
  planNotMet: whole(1, 50, 'A whole number from 1 to 50, or nothing.'),
  addedDelayMs: whole(1, 5000, 'A whole number of ms from 1 to 5000, or nothing.'),
  agentSilentMinutes: whole(1, 10_000, 'A whole number of minutes, or nothing.'),
  outageSeconds: whole(3, 100_000, 'A whole number of seconds from 3 on, or nothing.'),
  findings: box,
  levelShifts: box,
  budgetPercent: whole(1, 100, 'A whole number from 1 to 100, or nothing.'),
});
export const alarmRulesSchema = z.strictObject({
  planNotMet: z.number().int().min(1).max(50).nullable(),
  addedDelayMs: z.number().int().min(1).max(5000).nullable(),
  agentSilentMinutes: z.number().int().min(1).max(10_000).nullable(),
  outageSeconds: z.number().int().min(3).max(100_000).nullable().default(60),
  ...{ findings: z.boolean(), levelShifts: z.boolean() },
  budgetPercent: z.number().int().min(1).max(100).nullable(),
});

const TIME = /^(\d{1,2})(?:[:.](\d{2}))?$/;
const timeOfDay = z
  .string()
  .trim()
  .refine((text) => text === '' || (TIME.test(text) && minuteOf(text)! < 24 * 60), 'Like 22 or 22:30, or nothing.')
  .transform((text) => (text === '' ? null : minuteOf(text)));

function minuteOf(text: string): number | null {
  const found = TIME.exec(text);
  if (found === null) return null;
  const [hours, minutes] = [Number(found[1]), Number(found[2] ?? 0)];
  return minutes < 60 ? hours * 60 + minutes : Number.NaN;
}

function isWebAddress(text: string): boolean {
  if (!URL.canParse(text)) return false;
  const { protocol, username, password } = new URL(text);
  return (protocol === 'http:' || protocol === 'https:') && username === '' && password === '';
}

const targetFits = ({ kind, target }: { readonly kind: string; readonly target: string }) =>
  kind === 'mail' ? z.email().safeParse(target).success : isWebAddress(target);
const TARGET_WORDS = 'An address of mail, or a URL that begins with https:// or http:// and holds no password.';

const quiet = z
  .strictObject({ fromMinute: z.number().int().min(0).max(1439), untilMinute: z.number().int().min(0).max(1439) })
  .nullable()
  .default(null);

/** Somebody, or a program, that is told from now on. */
export const recipientSchema = z
  .strictObject({
    kind: z.enum(['mail', 'webhook']),
    target: z.string().trim().max(500),
    quiet,
    digest: z.boolean().default(false),
    /** Whether a webhook may be at an address of this network. */
    allowPrivate: z.boolean().default(false),
  })
  .refine(targetFits, { path: ['target'], message: TARGET_WORDS });
export type RecipientForm = z.infer<typeof recipientSchema>;

/** The same as a form. */
export const recipientFormSchema = z
  .object({
    kind: z.enum(['mail', 'webhook']),
    target: z.string().trim().max(500, 'At most 500 characters.'),
    of: z.enum(['office', 'all']),
    ...{ quietFrom: timeOfDay, quietUntil: timeOfDay, digest: box, allowPrivate: box },
  })
  .refine(targetFits, { path: ['target'], message: TARGET_WORDS })
  .refine(({ quietFrom, quietUntil }) => (quietFrom === null) === (quietUntil === null), {
    path: ['quietUntil'],
    message: 'Say both, or neither.',
  })
  .transform(({ quietFrom, quietUntil, ...form }) => ({
    ...form,
    quiet: quietFrom === null || quietUntil === null ? null : { fromMinute: quietFrom, untilMinute: quietUntil },
  }));

/** The server by which mail leaves; a blank host: none. A blank password leaves the one of before. */
export const mailServerFormSchema = z
  .object({
    host: z.string().trim().max(200, 'At most 200 characters.'),
    port: whole(1, 65_535, 'A port from 1 to 65535.'),
    security: z.enum(['tls', 'starttls', 'none']),
    user: z.string().trim().max(200, 'At most 200 characters.'),
    password: z.string().max(500, 'At most 500 characters.'),
    from: z.string().trim().max(200, 'At most 200 characters.'),
  })
  .refine(({ host, from }) => host === '' || z.email().safeParse(from).success, {
    path: ['from'],
    message: 'The address of mail that messages come from.',
  });
