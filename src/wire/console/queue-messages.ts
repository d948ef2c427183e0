import * as z from 'zod';
import { PEER_REACHES } from '@/core';
import { MOST_PACED_MBPS } from './run-messages';

/** Console → queue: these devices, so many times each, these reaches one after the other. */
export const queueOrderSchema = z
  .strictObject({
    siteId: z.string().max(64),
    deviceIds: z.array(z.string().max(64)).min(1, 'Choose at least one device.').max(60, 'At most 60 devices.'),
    reaches: z.array(z.enum(PEER_REACHES)).min(1, 'Choose how far.').max(PEER_REACHES.length),
    times: z.number().int().min(1).max(10, 'At most ten times each.'),
    profile: z.enum(['quick', 'standard', 'thorough', 'delay', 'single', 'soak']),
    /** All of them at the same instant, on purpose. */
    together: z.boolean().default(false),
  })
  .refine(({ profile, times, reaches }) => profile !== 'soak' || (times === 1 && reaches.length === 1), {
    path: ['times'],
    message: 'A soak takes four minutes: once, and one way to go.',
  });
export type QueueOrder = z.infer<typeof queueOrderSchema>;

/** Console → queue: from one machine that stands by to another, which serves as the far end. */
export const betweenOrderSchema = z
  .strictObject({
    deviceId: z.string().max(64),
    farDeviceId: z.string().max(64),
    profile: z.enum(['quick', 'standard', 'thorough', 'delay', 'single', 'paced']),
    /** Rate of the UDP of a paced run, Mb/s. */
    pacedMbps: z.number().positive().max(MOST_PACED_MBPS, `At most ${MOST_PACED_MBPS} Mb/s.`).nullable().default(null),
  })
  .refine(({ deviceId, farDeviceId }) => deviceId !== farDeviceId, {
    path: ['farDeviceId'],
    message: 'Choose another machine for the far end.',
  })
  .refine(({ profile, pacedMbps }) => (profile === 'paced') === (pacedMbps !== null), {
    path: ['pacedMbps'],
    message: 'Give the rate of the UDP, and only for a paced run.',
  });
export type BetweenOrder = z.infer<typeof betweenOrderSchema>;
