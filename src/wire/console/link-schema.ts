import { z } from 'zod';
import { WIFI_BANDS, type Link } from '@/core';

const rate = z.number().positive().max(1e12);

/** How a device is connected, as it is sent and stored. */
export const linkSchema = z.discriminatedUnion('medium', [
  z.strictObject({
    medium: z.literal('wired'),
    negotiatedBps: rate.nullable(),
    mtuBytes: z.number().int().min(576).max(9216),
  }),
  z.strictObject({
    medium: z.literal('wifi'),
    band: z.enum(WIFI_BANDS).nullable(),
    linkRateBps: rate.nullable(),
  }),
  z.strictObject({ medium: z.literal('tunnel') }),
  z.strictObject({ medium: z.literal('unknown') }),
]) satisfies z.ZodType<Link>;
