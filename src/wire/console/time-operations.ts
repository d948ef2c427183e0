import * as z from 'zod';
import type { Operation } from './operation';

const figures = z.array(z.number().nullable());
const share = { met: z.number(), notMet: z.number() };

const subject = z.object({
  key: z.string(),
  kind: z.enum(['line', 'device']),
  name: z.string(),
  occasions: z.number().nullable(),
});

/** Columns of one length, the oldest occasion first. Rates in bits per second, delays in ms, loss a share from 0 to 1. */
const occasions = z.object({
  ...{ runId: z.array(z.string()), startedAtMs: z.array(z.number()), runs: z.array(z.number()) },
  ...{ weekday: z.array(z.number()), hour: z.array(z.number()), fromFile: z.array(z.boolean()) },
  ...{
    down: figures,
    up: figures,
    idle: figures,
    addedDown: figures,
    addedUp: figures,
    jitter: figures,
    loss: figures,
  },
});

const plan = z.object({
  ...share,
  days: z.array(z.object({ day: z.string(), ...share })),
  hours: z.array(z.object({ hour: z.number(), ...share })),
  longestBelow: z.object({ fromMs: z.number(), untilMs: z.number(), runs: z.number() }).nullable(),
  cannotTell: z.number(),
  reasons: z.array(z.object({ code: z.string(), runs: z.number() })),
});

const series = z.object({
  subject: z.string(),
  occasions,
  plans: z.array(
    z.object({ fromMs: z.number(), name: z.string(), downBps: z.number(), upBps: z.number(), fullFrom: z.number() }),
  ),
  yardstick: z.object({ downBps: z.number().nullable(), upBps: z.number().nullable() }).nullable(),
  flags: z.array(z.object({ atMs: z.number(), kind: z.enum(['swap', 'line']), words: z.string() })),
  plan: plan.nullable(),
  practiceAside: z.number(),
  unfit: z.number(),
  /** What goes over the line by the hour of the day, 24 medians each way, Mb/s, by its router's counters; null: nobody reads them. */
  hourLoads: z.object({ down: figures, up: figures }).nullable(),
});

/** What time shows, for the page and for scripts. */
export const TIME_OPERATIONS = {
  listOverTime: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/sites/{id}/over-time',
    summary: 'What of an office can be looked at over time: its lines, and devices by link and reach.',
    answers: { 200: z.array(subject) },
    faults: ['not-signed-in', 'site-missing'],
  },
  readOverTime: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/sites/{id}/over-time/{subject}',
    summary: 'The occasions of one of them, column by column, with plan, swaps, and how often the plan was met.',
    answers: { 200: series },
    faults: ['not-signed-in', 'site-missing', 'subject-unknown'],
  },
} as const satisfies Record<string, Operation>;
