import * as z from 'zod';
import { CHECK_CODES, SWAP_CODES } from '@/core';

const id = z.string().min(1).max(160);
const note = z.string().trim().max(300, 'At most 300 characters.');

export const letBeSchema = z.strictObject({
  findingId: id,
  reason: note.min(1, 'Say in a few words why it may stay as it is.'),
});

/** What somebody calls slow. */
export const COMPLAINTS = ['calls', 'pages', 'copies', 'everything'] as const;

export const complaintSchema = z.strictObject({
  /** The code or label by which the page was opened; null on a device that joined before. */
  code: z.string().max(20).nullable(),
  what: z.enum(COMPLAINTS),
  deviceName: z.string().trim().max(80).default(''),
  spotName: z.string().trim().max(80).default(''),
});
export type ComplaintForm = z.infer<typeof complaintSchema>;

/** What a hunt is opened from. */
export const openHuntSchema = z.union([
  z.strictObject({ findingId: id }),
  z.strictObject({ siteId: id, deviceId: id.nullable().default(null) }),
]);

export const swapSchema = z.strictObject({
  siteId: id,
  what: z.enum(SWAP_CODES),
  segmentId: id,
  deviceId: id.nullable().default(null),
  note: note.default(''),
  huntId: id.nullable().default(null),
  atMs: z.number().nullable().default(null),
});
export type SwapInput = z.infer<typeof swapSchema>;

export const endHuntSchema = z.strictObject({
  huntId: id,
  state: z.enum(['found', 'mended', 'given-up']),
  note: note.default(''),
});

export const huntNoteSchema = z.strictObject({
  huntId: id,
  text: note.min(1, 'Write a line first.'),
});

export const ruleOutSchema = z.strictObject({
  huntId: id,
  check: z.enum(CHECK_CODES),
  out: z.boolean().default(true),
});

export const queueSetSchema = z.strictObject({
  huntId: id,
  mbps: z.number().positive('A rate above 0.').max(100_000, 'At most 100 000 Mb/s.'),
});
