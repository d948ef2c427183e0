import * as z from 'zod';
import { PEER_REACHES } from '@/core';
import { MOST_CHOSEN } from './ledger-schemas';
import { typedNumber } from './typed-number';

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

const side = z.string().trim().max(60, 'At most 60 characters.').default('');

/** Two things that are measured turn and turn about: two devices, two far ends, or one device at which somebody changes something each time. */
export const alternationFormSchema = z
  .object({
    kind: z.enum(['devices', 'peers', 'by-hand']),
    deviceA: id,
    deviceB: z.string().max(160).default(''),
    nameA: side,
    nameB: side,
    peerA: z.string().max(160).default(''),
    peerB: z.string().max(160).default(''),
    reach: z.enum(PEER_REACHES),
    profile: z.enum(['quick', 'standard', 'thorough']),
    times: typedNumber.refine(
      (value) => value !== null && Number.isInteger(value) && value >= 1 && value <= 30,
      'A whole number from 1 to 30.',
    ),
  })
  .refine(({ kind, deviceA, deviceB }) => kind !== 'devices' || (deviceB !== '' && deviceB !== deviceA), {
    path: ['deviceB'],
    message: 'Choose another device.',
  })
  .refine(({ kind, peerA, peerB }) => kind !== 'peers' || (peerA !== '' && peerB !== '' && peerA !== peerB), {
    path: ['peerB'],
    message: 'Choose another far end.',
  })
  .refine(({ kind, nameA }) => kind !== 'by-hand' || nameA !== '', {
    path: ['nameA'],
    message: 'Say how it is then: tunnel on, by cable.',
  })
  .refine(({ kind, nameA, nameB }) => kind !== 'by-hand' || (nameB !== '' && nameB !== nameA), {
    path: ['nameB'],
    message: 'Say how it is then, and what is other.',
  })
  .transform(({ times, ...form }) => ({ ...form, times: times! }));
export type AlternationForm = z.infer<typeof alternationFormSchema>;
