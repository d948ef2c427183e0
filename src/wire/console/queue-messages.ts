import { z } from 'zod';
import { REACHES } from '@/core';

/** Console → queue: these devices, so many times each, these reaches one after the other. */
export const queueOrderSchema = z.strictObject({
  siteId: z.string().max(64),
  deviceIds: z.array(z.string().max(64)).min(1, 'Choose at least one device.').max(60, 'At most 60 devices.'),
  reaches: z.array(z.enum(REACHES)).min(1, 'Choose how far.').max(REACHES.length),
  times: z.number().int().min(1).max(10, 'At most ten times each.'),
  profile: z.enum(['quick', 'standard', 'thorough', 'delay', 'single']),
  /** All of them at the same instant, on purpose. */
  together: z.boolean().default(false),
});
export type QueueOrder = z.infer<typeof queueOrderSchema>;
