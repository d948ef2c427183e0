import * as z from 'zod';
import { DATE_ORDERS, DECIMALS, IMPORT_FIELD_NAMES, LINK_KINDS, REACHES, unitsOf } from '@/core';

/** Bytes of a file that runs are brought in from, at most. */
export const LARGEST_IMPORT = 50_000_000;

const column = z
  .strictObject({ field: z.enum(IMPORT_FIELD_NAMES), unit: z.string().max(10).nullable() })
  .refine(
    ({ field, unit }) => (unit === null ? Object.keys(unitsOf(field)).length === 0 : unit in unitsOf(field)),
    'That is no unit of it.',
  );

/** How a file is read. */
export const importReadingSchema = z.strictObject({
  columns: z
    .array(column.nullable())
    .max(200)
    .refine((columns) => {
      const fields = columns.flatMap((each) => each?.field ?? []);
      return new Set(fields).size === fields.length;
    }, 'Two columns cannot hold the same.'),
  dates: z.enum(DATE_ORDERS),
  decimals: z.enum(DECIMALS),
  otherwise: z.strictObject({
    device: z.string().trim().max(120),
    link: z.enum(LINK_KINDS),
    reach: z.enum(REACHES),
  }),
});

export const openImportSchema = z.strictObject({
  fileName: z.string().trim().min(1).max(200),
  bytes: z.number().int().positive('The file is empty.'),
});

/** Where in a file the bytes begin that are sent. */
export const importPartSchema = z.object({ from: z.coerce.number().int().nonnegative() });

export const lookAtImportSchema = z.strictObject({ reading: importReadingSchema });

export const takeInSchema = z.strictObject({
  reading: importReadingSchema,
  tag: z
    .string()
    .trim()
    .max(40, 'At most 40 characters.')
    .regex(/^[^",\s]*$/, 'One word, without commas and quotes.')
    .default(''),
  /** Lines that cannot be read are left out; else one of them stops it all. */
  without: z.boolean().default(false),
});
