import { z } from 'zod';
import { LINK_KINDS, REACHES, VERDICT_WORDS } from '@/core';

const figure = z.number().nullable();

/** One run as the ledger lists it. Rates in bits per second, delays in ms; null: not measured. */
export const ledgerRunSchema = z.object({
  id: z.string(),
  setId: z.string(),
  startedAt: z.iso.datetime(),
  status: z.enum(['running', 'finished', 'unfinished']),
  reason: z.string().nullable(),
  device: z.string(),
  spot: z.string().nullable(),
  peer: z.string(),
  line: z.string().nullable(),
  reach: z.enum(REACHES),
  linkKind: z.enum(LINK_KINDS),
  profile: z.string(),
  verdict: z.enum(VERDICT_WORDS).nullable(),
  downBps: figure,
  upBps: figure,
  idleMs: figure,
  addedMs: figure,
});

export const ledgerPageSchema = z.object({
  total: z.number().int().nonnegative(),
  /** To be given back as `older` or `newer` for the page beside this one; null: there is none. */
  older: z.string().nullable(),
  newer: z.string().nullable(),
  runs: z.array(ledgerRunSchema),
});
export type LedgerPage = z.infer<typeof ledgerPageSchema>;

/** What the ledger is narrowed to; all of it may be left out. */
export const ledgerQuerySchema = z.object({
  site: z.string().max(64).optional(),
  /** Part of the name of the device, its spot or the peer. */
  text: z.string().max(80).optional(),
  device: z.string().max(64).optional(),
  link: z.enum(LINK_KINDS).optional(),
  reach: z.enum(REACHES).optional(),
  /** Runs that were started from then on, and before then. */
  from: z.iso.datetime({ offset: true }).optional(),
  until: z.iso.datetime({ offset: true }).optional(),
  older: z.string().max(80).optional(),
  newer: z.string().max(80).optional(),
});
