import { z } from 'zod';
import { MOST_CHOSEN } from './ledger-schemas';

const id = z.string().min(1).max(160);
const name = z.string().trim().max(80, 'At most 80 characters.');

/** A tray: what is typed as in the ledger, runs that were chosen, or both. */
export const traySchema = z.strictObject({
  name: name.default(''),
  query: z.string().trim().max(1000).default(''),
  runIds: z.array(id).max(MOST_CHOSEN, `At most ${MOST_CHOSEN} runs in a tray.`).nullable().default(null),
});
const trays = z
  .array(traySchema)
  .min(2, 'It takes two trays to compare.')
  .max(8, 'At most eight trays at once.')
  .refine(
    (all) => all.every(({ query, runIds }) => query !== '' || runIds !== null),
    'A tray is empty: type into it what its runs have in common, as in the ledger.',
  );

export const comparisonSchema = z.strictObject({ siteId: id, name: name.default(''), trays });
export const changeComparisonSchema = z.strictObject({ id, name: name.default(''), trays });
