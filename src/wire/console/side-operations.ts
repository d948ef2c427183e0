import * as z from 'zod';
import { SIDE_QUANTITIES } from '@/core';
import { alternationFormSchema, comparisonSchema } from '../forms/side-schemas';
import type { Operation } from './operation';

const id = z.string();
const figure = z.number().nullable();
const interval = z.object({ low: z.number(), high: z.number() }).nullable();

/** Groups of runs side by side. Rates in bits per second, delays in ms, loss a share; ratios of rates, differences of the rest. */
export const sideDocumentSchema = z.object({
  ...{ id, name: z.string(), madeAt: z.iso.datetime() },
  trays: z.array(z.object({ name: z.string(), query: z.string(), runs: z.array(id), aside: z.number().int() })),
  /** What can be quoted, a sentence for each tray after the first. */
  sentences: z.array(z.string()),
  fairness: z.object({
    word: z.enum(['repeat', 'fair', 'unfair']),
    sentence: z.string(),
    differs: z.array(z.string()),
  }),
  figures: z.array(
    z.object({
      quantity: z.enum(SIDE_QUANTITIES),
      trays: z.array(z.object({ median: figure, interval, runs: z.number().int(), occasions: z.number().int() })),
      /** Each tray after the first against the first; null: nothing of it on one side. */
      against: z.array(
        z
          .object({
            ...{ told: z.boolean(), shift: figure, interval, p: figure, real: z.boolean().nullable() },
            ...{ matters: z.enum(['yes', 'no', 'cannot tell yet']).nullable(), moreWanted: figure },
          })
          .nullable(),
      ),
    }),
  ),
});
export type SideDocument = z.infer<typeof sideDocumentSchema>;

const alternation = z.object({
  ...{ id, sides: z.array(z.string()), runs: z.array(z.array(id)), times: z.number().int() },
  ...{ state: z.enum(['going', 'held', 'done', 'stopped']), why: z.string().nullable() },
  /** The side that somebody has to make ready, and to say so; null: none. */
  ...{ waitsForHands: z.string().nullable(), comparisonId: id.nullable() },
});

/** Groups of runs held against each other, and the fairest way to measure two of them. */
export const SIDE_OPERATIONS = {
  makeComparison: {
    caller: 'technician',
    method: 'post',
    path: '/api/v1/sites/{id}/comparisons',
    summary: 'Hold groups of runs side by side, each by what would be typed into the ledger or by the ids of its runs.',
    request: comparisonSchema.omit({ siteId: true }),
    answers: { 201: z.object({ id }) },
    faults: ['not-signed-in', 'site-missing', 'request-malformed'],
  },
  readComparison: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/comparisons/{id}',
    summary: 'How far they lie apart, whether that is real, whether it matters, and whether it is fair.',
    answers: { 200: sideDocumentSchema },
    faults: ['not-signed-in', 'comparison-unknown'],
  },
  startAlternation: {
    caller: 'technician',
    scope: 'measure',
    method: 'post',
    path: '/api/v1/sites/{id}/alternations',
    summary:
      'Measure two things turn and turn about: two devices, two far ends, or one device at which somebody changes something each time.',
    request: alternationFormSchema,
    answers: { 201: z.object({ id }) },
    faults: ['not-signed-in', 'site-missing', 'device-unknown', 'peer-missing', 'request-malformed'],
  },
  readAlternation: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/alternations/{id}',
    summary: 'How far turn and turn about has come.',
    answers: { 200: alternation },
    faults: ['not-signed-in', 'alternation-over'],
  },
  sideIsReady: {
    caller: 'technician',
    scope: 'measure',
    method: 'post',
    path: '/api/v1/alternations/{id}/ready',
    summary: 'The side that waits for hands is ready.',
    answers: { 204: null },
    faults: ['not-signed-in', 'alternation-over'],
  },
  goOnWithAlternation: {
    caller: 'technician',
    scope: 'measure',
    method: 'post',
    path: '/api/v1/alternations/{id}/go-on',
    summary: 'Take the turn once more that brought no result.',
    answers: { 204: null },
    faults: ['not-signed-in', 'alternation-over'],
  },
  stopAlternation: {
    caller: 'technician',
    scope: 'measure',
    method: 'delete',
    path: '/api/v1/alternations/{id}',
    summary: 'Take no further turn. What was measured stays.',
    answers: { 204: null },
    faults: ['not-signed-in', 'alternation-over'],
  },
} as const satisfies Readonly<Record<string, Operation>>;
