import * as z from 'zod';
import { PROFILE_NAMES, REACHES } from '@/core';
import { agentHelloSchema } from './agent-messages';
import { laneBeatSchema, laneSchema } from './lane-messages';
import { farLookSchema, lookAskedSchema, snmpLoginSchema } from './look-messages';

/** Console → device that stands by. */
export const standingOrderSchema = z.discriminatedUnion('kind', [
  /** It is this device's turn; it may refuse for `inMs`, then asks for its run with this turn. */
  z.object({
    kind: z.literal('asked'),
    turnId: z.string(),
    by: z.string(),
    reach: z.enum(REACHES),
    profile: z.enum(PROFILE_NAMES),
    inMs: z.number().nonnegative(),
    /** Rate of the UDP of a paced run, Mb/s. */
    pacedMbps: z.number().positive().nullable().optional(),
  }),
  /** An agent is to serve as the far end of a run, for clients with a ticket of the console with this key, at most so long. */
  z.object({ kind: z.literal('serve'), serveId: z.string(), trust: z.string(), forMs: z.number().positive() }),
  /** The run is over. */
  z.object({ kind: z.literal('serve-over'), serveId: z.string() }),
  z.object({ kind: z.literal('withdrawn'), turnId: z.string() }),
  /** An agent is to look at something, and to post what it found. */
  z.object({
    ...{ kind: z.literal('look'), lookId: z.string(), asked: lookAskedSchema },
    login: snmpLoginSchema.nullable().optional(),
    far: farLookSchema.nullable().optional(),
  }),
  z.object({ kind: z.literal('look-withdrawn'), lookId: z.string() }),
  /** These lanes are to be kept from now on; `live`: somebody looks at them. `nowMs`: the console's time. */
  z.object({ kind: z.literal('lanes'), lanes: z.array(laneSchema).max(32), live: z.boolean(), nowMs: z.number() }),
  /** This device was removed, stands by elsewhere, or is an agent that speaks otherwise: it is not to come back by itself. */
  z.object({ kind: z.literal('dismissed'), reason: z.enum(['removed', 'elsewhere', 'other-version']) }),
]);
export type StandingOrder = z.infer<typeof standingOrderSchema>;

/** Device → console: not now; or, from an agent, what it is, and what its lanes said in the last second. */
export const standingAnswerSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('refuse'), turnId: z.string().max(64) }),
  z.strictObject({ kind: z.literal('hello'), hello: agentHelloSchema }),
  /** From now on it answers on this port, and proves itself by this key; null: it cannot. */
  z.strictObject({
    ...{ kind: z.literal('serving'), serveId: z.string().max(64) },
    at: z.strictObject({ port: z.number().int().min(1).max(65_535), publicKey: z.string().max(64) }).nullable(),
  }),
  z.strictObject({ kind: z.literal('beats'), beats: z.array(laneBeatSchema).max(400) }),
]);
export type StandingAnswer = z.infer<typeof standingAnswerSchema>;

/** Null for anything else than an answer. */
export function readStandingAnswer(text: unknown): StandingAnswer | null {
  try {
    return standingAnswerSchema.safeParse(JSON.parse(String(text))).data ?? null;
  } catch {
    return null;
  }
}
