import * as z from 'zod';
import { EVIDENCES, LINK_KINDS, QUERY_FAULTS, REACHES, VERDICT_WORDS } from '@/core';

const figure = z.number().nullable();

/** One run as the ledger lists it. Rates in bits per second, delays in ms; null: not measured. */
export const ledgerRunSchema = z.object({
  id: z.string(),
  setId: z.string(),
  startedAt: z.iso.datetime(),
  /** `removed`: it can be put back for a day. */
  status: z.enum(['running', 'finished', 'unfinished', 'removed', 'imported']),
  reason: z.string().nullable(),
  device: z.string(),
  spot: z.string().nullable(),
  peer: z.string(),
  line: z.string().nullable(),
  reach: z.enum(REACHES),
  linkKind: z.enum(LINK_KINDS),
  profile: z.string(),
  verdict: z.enum(VERDICT_WORDS).nullable(),
  /** What it counts for. */
  evidence: z.enum(EVIDENCES),
  leftOutBecause: z.string().nullable(),
  /** Codes of its fitness flags. */
  flags: z.array(z.string()),
  tags: z.array(z.string()),
  notes: z.string(),
  downBps: figure,
  upBps: figure,
  idleMs: figure,
  addedMs: figure,
});

export const ledgerPageSchema = z.object({
  /** How many match, counted up to 10 000. */
  total: z.number().int().nonnegative(),
  /** There are more than were counted. */
  isMore: z.boolean(),
  /** To be given back as `after` for what follows; null: that was the last. */
  next: z.string().nullable(),
  /** What of the query means nothing. */
  leftOut: z.array(z.object({ typed: z.string(), code: z.enum(QUERY_FAULTS) })),
  runs: z.array(ledgerRunSchema),
});
export type LedgerPage = z.infer<typeof ledgerPageSchema>;

/** What the ledger may be sorted by. */
export const LEDGER_ORDERS = [
  ...(['when', 'device', 'spot', 'peer', 'link', 'reach', 'profile'] as const),
  ...(['down', 'up', 'idle', 'added', 'verdict'] as const),
] as const;
export type LedgerSortName = (typeof LEDGER_ORDERS)[number];

/** What the ledger is narrowed to; all of it may be left out. */
export const ledgerQuerySchema = z.object({
  site: z.string().max(64).optional(),
  /** As it is typed into the ledger: words, and terms such as `verdict=starved` or `down<100`. */
  query: z.string().max(1000).optional(),
  device: z.string().max(64).optional(),
  link: z.enum(LINK_KINDS).optional(),
  reach: z.enum(REACHES).optional(),
  /** Runs that were started from then on, and before then. */
  from: z.iso.datetime({ offset: true }).optional(),
  until: z.iso.datetime({ offset: true }).optional(),
  sort: z.enum(LEDGER_ORDERS).optional(),
  way: z.enum(['up', 'down']).optional(),
  after: z.string().max(600).optional(),
});
