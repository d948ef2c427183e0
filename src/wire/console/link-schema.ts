import { z } from 'zod';
import { TUNNEL_KINDS, WIFI_BANDS, type Link } from '@/core';

const rate = z.number().positive().max(1e12);

/** How a device is connected, as it is sent and stored. */
export const linkSchema = z.discriminatedUnion('medium', [
  z.strictObject({
    medium: z.literal('wired'),
    negotiatedBps: rate.nullable(),
    mtuBytes: z.number().int().min(576).max(9216),
    vlan: z.boolean().optional(),
    pppoe: z.boolean().optional(),
  }),
  z.strictObject({
    medium: z.literal('wifi'),
    band: z.enum(WIFI_BANDS).nullable(),
    linkRateBps: rate.nullable(),
    sharedAir: z.boolean().optional(),
  }),
  z.strictObject({
    medium: z.literal('tunnel'),
    kind: z.enum(TUNNEL_KINDS).optional(),
    carrierBps: rate.optional(),
  }),
  z.strictObject({ medium: z.literal('unknown') }),
]) satisfies z.ZodType<Link>;
