import * as z from 'zod';
import { LANE_KINDS, LANE_ROLES, type Lane, type LaneMinute } from '@/core';
import { MOST_LANE_KEY } from '../forms/lane-schemas';

const ms = z.number().nonnegative().max(1e5).nullable();
const moment = z.number().nonnegative().max(1e14);
const count = z.number().int().nonnegative().max(100_000);

export const laneSchema = z.object({
  ...{ id: z.string().max(64), name: z.string().max(120), target: z.string().max(300) },
  ...{ kind: z.enum(LANE_KINDS), role: z.enum(LANE_ROLES), everyMs: z.number().int().min(200).max(60_000) },
  key: z.string().max(MOST_LANE_KEY).nullish(),
}) satisfies z.ZodType<Lane>;

/** A minute as it is sent: its packed requests in base64. */
export const laneMinuteSchema = z.strictObject({
  ...{ laneId: z.string().max(64), fromMs: moment, sent: count, answered: count },
  // Of agents of before they do not come.
  ...{ lostThere: count.default(0), lostBack: count.default(0) },
  ...{ minMs: ms, medianMs: ms, p95Ms: ms, maxMs: ms, raw: z.base64().max(4000) },
}) satisfies z.ZodType<Omit<LaneMinute, 'raw'> & { readonly raw: string }>;
export type LaneMinuteSent = z.infer<typeof laneMinuteSchema>;

export const laneMinutesSchema = z.strictObject({ minutes: z.array(laneMinuteSchema).max(2000) });
export const laneMinutesTakenSchema = z.object({
  /** How many of them were of lanes of this agent. */
  taken: z.number().int(),
  /** The console's time. */
  nowMs: z.number(),
});

/** With what a page goes on asking a peer. */
export const laneTicketSchema = z.object({
  baseUrl: z.string().max(300),
  ticket: z.string().max(2048),
  /** For how long, s. */
  seconds: z.number().positive(),
});
export type LaneTicket = z.infer<typeof laneTicketSchema>;
export const laneTicketPath = (laneId: string) => `/api/v1/lanes/${encodeURIComponent(laneId)}/ticket`;

/** A request just now: lane, when it was sent, round trip in ms or null. */
export const laneBeatSchema = z.tuple([z.string().max(64), moment, ms]);
export type LaneBeat = z.infer<typeof laneBeatSchema>;
