import * as z from 'zod';

export const MOST_MBPS = 100_000;

/** A number as a form types it, a decimal comma counting as a point and a blank as `null`, or as a script sends it. */
export const typedNumber = z
  .union([z.string().trim(), z.number(), z.null()])
  .transform((value) => {
    if (typeof value !== 'string') return value;
    return value === '' ? null : Number(value.replace(',', '.'));
  })
  .refine((value) => value === null || Number.isFinite(value), 'Write a number, such as 500 or 2.5.');

export const optionalMbps = typedNumber
  .refine((value) => value === null || value > 0, 'A rate is more than 0 Mb/s.')
  .refine((value) => value === null || value <= MOST_MBPS, `At most ${MOST_MBPS} Mb/s.`);

export const mbps = optionalMbps
  .refine((value) => value !== null, 'Write the rate in Mb/s.')
  .transform((value) => value);
