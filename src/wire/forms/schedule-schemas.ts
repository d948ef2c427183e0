import * as z from 'zod';
import { DEVICE_KINDS, type ScheduledFor } from '@/core';
import { typedNumber } from './typed-number';

const id = z.string().min(1).max(160);

export const scheduledForSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('device'), deviceId: id }),
  z.strictObject({ kind: z.literal('spot'), spotId: id }),
  z.strictObject({ kind: z.literal('device-kind'), deviceKind: z.enum(DEVICE_KINDS) }),
  z.strictObject({ kind: z.literal('office') }),
]) satisfies z.ZodType<ScheduledFor>;

/** When whom is to measure what, as it is said. */
export const scheduleSchema = z.strictObject({
  sentence: z.string().trim().min(1, 'Say when.').max(300, 'At most 300 characters.'),
  who: scheduledForSchema,
  /** Each time begins at most so many minutes later. */
  spreadMinutes: z.number().min(0).max(60).default(0),
});

/** What runs may move over a line in a month, GB (10^9 bytes); null: as much as they like. */
export const budgetSchema = z.strictObject({ gigabytes: z.number().positive().max(1e6).nullable() });
export const budgetFormSchema = z.object({
  gigabytes: typedNumber.refine(
    (value) => value === null || (value > 0 && value <= 1e6),
    'A number of GB, or nothing.',
  ),
});
