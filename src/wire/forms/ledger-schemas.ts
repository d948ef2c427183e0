import * as z from 'zod';

const id = z.string().min(1).max(160);
/** So many runs are changed by one command, at most. */
export const MOST_CHOSEN = 10_000;

export const chosenRunsSchema = z.strictObject({
  siteId: id,
  runIds: z.array(id).min(1, 'Choose a run first.').max(MOST_CHOSEN, `At most ${MOST_CHOSEN} runs at once.`),
});

const tag = z
  .string()
  .trim()
  .min(1, 'Type a word for the tag.')
  .max(40, 'At most 40 characters.')
  .regex(/^[^",\s]+$/, 'One word, without commas and quotes.');

export const tagRunsSchema = chosenRunsSchema.extend({ tag, on: z.boolean().default(true) });

export const noteRunsSchema = chosenRunsSchema.extend({
  note: z.string().trim().min(1, 'Write a line first.').max(500, 'At most 500 characters.'),
});

/** `reason` null: they count again. */
export const leaveOutSchema = chosenRunsSchema.extend({
  reason: z
    .string()
    .trim()
    .min(1, 'Say in a few words why they do not count.')
    .max(300, 'At most 300 characters.')
    .nullable(),
});

const viewName = z.string().trim().min(1, 'Type a name for the view.').max(60, 'At most 60 characters.');

/** `query`: what stands in the ledger's address behind the question mark. */
export const ledgerViewSchema = z.strictObject({ siteId: id, name: viewName, query: z.string().max(2000) });
export const removeViewSchema = ledgerViewSchema.omit({ query: true });
