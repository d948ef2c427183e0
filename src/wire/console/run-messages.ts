import * as z from 'zod';
import {
  DEVICE_KINDS,
  PROFILE_NAMES,
  REACHES,
  TOLD_CONDITIONS,
  UNFINISHED_CODES,
  VERDICT_WORDS,
  type WebFarEnd,
} from '@/core';
import { linkSchema } from './link-schema';
import { runSamplesSchema } from './samples-schema';

const name = z.string().trim().min(1, 'give it a name').max(80, 'at most 80 characters');

/** At most so much UDP a second in a paced run, Mb/s: more packets than that would not fit into a record. */
export const MOST_PACED_MBPS = 75;

/** How thoroughly to measure. */
export const profileSchema = z.enum(PROFILE_NAMES);

/** Device page → console: who I am, where I am, how I am connected, how far to measure. */
export const startRunSchema = z.strictObject({
  /** The code by which the page was opened; absent on a device that joined before. */
  code: z.string().max(20).nullable(),
  /** An existing device of the site, or null for a new one with `deviceName`. */
  deviceId: z.string().max(64).nullable(),
  deviceName: name.nullable(),
  /** What sort of thing a new device is, as far as it can tell. */
  deviceKind: z.enum(DEVICE_KINDS).nullable().default(null),
  /** Null: where it was; only of a device that is known. */
  spotName: z.string().trim().max(80, 'at most 80 characters').nullable(),
  link: linkSchema,
  reach: z.enum(REACHES),
  profile: profileSchema.default('standard'),
  /** What the person at the device says is going on besides. */
  told: z.array(z.enum(TOLD_CONDITIONS)).max(TOLD_CONDITIONS.length).default([]),
  /** What the device noticed, a sentence each. */
  noticed: z.array(z.string().max(200)).max(8).default([]),
  /** The turn that this run waited for, or was asked to take; null for a first asking. */
  turnId: z.string().max(64).nullable().default(null),
  /** So long the answer may be held back while nothing changes for a turn that waits, ms. */
  holdMs: z.number().int().min(0).max(20_000).default(0),
  /** Whether it can load a web server where there is no peer: agents can, browsers are not let. */
  loadsWeb: z.boolean().default(false),
  /** Rate of the UDP of a paced run, Mb/s. */
  pacedMbps: z.number().positive().max(MOST_PACED_MBPS).nullable().default(null),
});
export type StartRun = z.infer<typeof startRunSchema>;

/** What an agent loads where the far end is a web server. */
export const webFarEndSchema = z.object({
  pages: z
    .array(z.url({ protocol: /^https?$/ }))
    .min(1)
    .max(8)
    .readonly(),
  mostBytes: z.number().positive().max(1e13),
  contact: z.string().max(200),
}) satisfies z.ZodType<WebFarEnd>;

/** Console → device page: everything the measuring worker needs. */
export const runGrantSchema = z.object({
  runId: z.string(),
  /** Proves to the console that a hand-in comes from whoever was granted the run. */
  runKey: z.string(),
  ticket: z.string(),
  peer: z.object({ name: z.string(), baseUrl: z.string() }),
  profile: profileSchema,
  pacedBps: z.number().positive().nullable(),
  /** Each direction lasts at least so long, ms: a long look at a line, which may be fast only at first; 0: no such wish. */
  leastDirectionMs: z.number().nonnegative().default(0),
  /** The far end is no peer but a web server: only an agent is granted that. */
  web: webFarEndSchema.nullable().default(null),
  deviceId: z.string(),
  deviceName: z.string(),
  /** For the dashed lines of the live strip, bits per second. */
  yardstick: z.object({ downBps: z.number().nullable(), upBps: z.number().nullable() }),
});
export type RunGrant = z.infer<typeof runGrantSchema>;

/** Console → device page, instead of a grant: what the run needs is taken; ask again with this turn every second. */
export const runWaitingSchema = z.object({
  status: z.literal('waiting'),
  turnId: z.string(),
  /** Proves to the console that whoever withdraws the turn is who waits for it. */
  turnKey: z.string(),
  deviceId: z.string(),
  deviceName: z.string(),
  /** In words. */
  why: z.string(),
  /** How long it may take, ms. */
  aboutMs: z.number().nonnegative(),
});
export type RunWaiting = z.infer<typeof runWaitingSchema>;

/** What a device is answered that asks for a run. */
export const runAnswerSchema = z.discriminatedUnion('status', [
  runGrantSchema.extend({ status: z.literal('granted') }),
  runWaitingSchema,
]);
export type RunAnswer = z.infer<typeof runAnswerSchema>;

/** The version by which the demo's own devices name themselves: they measure behind a practice line that is their link. */
export const DEMO_AGENT_VERSION = 'demo';

/** What the peer told the client and the page saw; goes into the run's conditions. */
export const runFactsSchema = z.strictObject({
  sameMachine: z.boolean().nullable(),
  ipVersion: z.union([z.literal(4), z.literal(6)]).nullable(),
  pageHiddenMs: z.number().nonnegative().max(1e8),
  /** Rate of the peer's own port, bits per second, as it said. */
  peerLinkBps: z.number().positive().max(1e13).nullable(),
  userAgent: z.string().max(400),
  /** What the peer signed when the session ended, as text; null when nothing came. */
  receipt: z.string().max(8192).nullable().default(null),
});
export type RunFacts = z.infer<typeof runFactsSchema>;

/** Device page → console: the raw samples of a whole run, or what there is of one that died and why. */
export const handInSchema = z.discriminatedUnion('outcome', [
  z.strictObject({ outcome: z.literal('finished'), samples: runSamplesSchema, facts: runFactsSchema }),
  z.strictObject({
    outcome: z.literal('unfinished'),
    reason: z.enum(UNFINISHED_CODES),
    samples: runSamplesSchema.nullable(),
    facts: runFactsSchema.nullable(),
  }),
]);
export type HandIn = z.infer<typeof handInSchema>;

const figure = z.number().nullable();

/** Console → device page, after a hand-in: the sentences, and the figures behind them (null: not measured). */
export const handInAnswerSchema = z.object({
  runId: z.string(),
  status: z.enum(['finished', 'unfinished']),
  /** Which of the two is worse, and so is said first. */
  lead: z.enum(['held', 'delay']).default('held'),
  figures: z.string(),
  held: z.string(),
  delay: z.string(),
  result: z
    .object({
      verdict: z.enum(VERDICT_WORDS),
      downBps: figure,
      upBps: figure,
      yardstickDownBps: figure,
      yardstickUpBps: figure,
      idleMs: figure,
      addedMs: figure,
      /** The figure is above what the named link can carry: the link should be asked for again. */
      linkDoubtful: z.boolean().default(false),
    })
    .nullable(),
});
export type HandInAnswer = z.infer<typeof handInAnswerSchema>;

/** What is posted to hand in a run: the key that came with the grant, and the run. */
export const handInRequestSchema = z.strictObject({ runKey: z.string().max(100), handIn: handInSchema });
export type HandInRequest = z.infer<typeof handInRequestSchema>;
export const withdrawRequestSchema = z.strictObject({ turnKey: z.string().max(100) });

/** As many seconds of a run as are told at once. */
export const MOST_RATE_SECONDS = 900;
const secondBps = z.array(z.number().nonnegative().max(1e13).nullable()).max(MOST_RATE_SECONDS);

/** The device is still measuring. Where the last answer said that somebody watches: what it moved in the seconds since. */
export const aliveRequestSchema = z.strictObject({
  runKey: z.string().max(100),
  rates: z.strictObject({ fromMs: z.number().nonnegative().max(1e8), downBps: secondBps, upBps: secondBps }).nullish(),
});
export const aliveAnswerSchema = z.object({
  running: z.boolean(),
  /** Somebody looks at what the devices of this office do just now. */
  watched: z.boolean(),
  /** The technician does not want this run any more: it is to be ended and handed in as cancelled. */
  stop: z.boolean(),
});
export type AliveAnswer = z.infer<typeof aliveAnswerSchema>;
