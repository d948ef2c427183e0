import * as z from 'zod';
import { TUNNEL_KINDS, TUNNEL_RIDES, WIFI_BANDS, type Link } from '@/core';

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
    channel: z.number().int().min(1).max(233).optional(),
    widthMHz: z.number().int().min(20).max(320).optional(),
    signalDbm: z.number().min(-120).max(0).optional(),
    accessPoint: z.string().trim().min(1).max(80).optional(),
  }),
  z.strictObject({
    medium: z.literal('tunnel'),
    kind: z.enum(TUNNEL_KINDS).optional(),
    carrierBps: rate.optional(),
    rides: z.enum(TUNNEL_RIDES).optional(),
  }),
  z.strictObject({ medium: z.literal('unknown') }),
]) satisfies z.ZodType<Link>;
