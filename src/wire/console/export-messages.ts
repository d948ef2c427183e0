import * as z from 'zod';
import { chosenRunsSchema } from '../forms/ledger-schemas';
import { EVIDENCES, LINK_KINDS, REACHES, VERDICT_WORDS } from '@/core';

export const EXPORT_FORMATS = ['csv', 'json', 'ndjson'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

const figure = z.number().nullable();

/**
 * One run as it leaves the console, whichever the format: the names of its columns in a CSV, of its members in JSON. Rates in
 * Mb/s, delays in ms, loss in percent, times as ISO 8601 in UTC; null, or nothing in a CSV: not measured.
 */
export const exportedRunSchema = z.object({
  id: z.string(),
  set: z.string(),
  started_at: z.iso.datetime(),
  ended_at: z.iso.datetime().nullable(),
  state: z.enum(['running', 'finished', 'unfinished', 'removed', 'imported']),
  unfinished_because: z.string().nullable(),
  device: z.string(),
  spot: z.string().nullable(),
  link: z.enum(LINK_KINDS),
  reach: z.enum(REACHES),
  peer: z.string(),
  line: z.string().nullable(),
  plan: z.string().nullable(),
  plan_down_mbps: figure,
  plan_up_mbps: figure,
  profile: z.string(),
  practice_line: z.boolean(),
  demo: z.boolean(),
  down_mbps: figure,
  up_mbps: figure,
  idle_ms: figure,
  jitter_ms: figure,
  added_down_ms: figure,
  added_up_ms: figure,
  added_worst_ms: figure,
  loss_percent: figure,
  verdict: z.enum(VERDICT_WORDS).nullable(),
  /** What it is evidence of. */
  counts_as: z.enum(EVIDENCES),
  left_out_because: z.string().nullable(),
  flags: z.array(z.string()),
  tags: z.array(z.string()),
  notes: z.string(),
  method_version: z.number().int().nullable(),
});
export type ExportedRun = z.infer<typeof exportedRunSchema>;
export const EXPORTED_COLUMNS = Object.keys(exportedRunSchema.shape) as [keyof ExportedRun, ...(keyof ExportedRun)[]];

/** What is taken out: all that match, as in the ledger. */
export const exportQuerySchema = z.object({
  site: z.string().max(160).optional(),
  query: z.string().max(1000).optional(),
  device: z.string().max(160).optional(),
  format: z.enum(EXPORT_FORMATS).default('csv'),
});

/** The same of runs that were chosen, as a form names them: ids with commas between. */
export const exportChosenSchema = chosenRunsSchema.extend({
  runIds: z
    .string()
    .transform((ids) => ids.split(',').filter((id) => id !== ''))
    .pipe(chosenRunsSchema.shape.runIds),
  format: z.enum(EXPORT_FORMATS),
});
