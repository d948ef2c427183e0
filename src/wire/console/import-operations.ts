import * as z from 'zod';
import { IMPORT_FAULTS, LINK_KINDS, REACHES } from '@/core';
import { importReadingSchema, lookAtImportSchema, openImportSchema, takeInSchema } from '../forms/import-schemas';
import type { Operation } from './operation';

const id = z.string();
const figure = z.number().nullable();
const count = z.number().int().nonnegative();

/** A file that is about to be brought in. */
export const importFileSchema = z.object({
  ...{ id, siteId: id, fileName: z.string(), bytes: count, receivedBytes: count },
  /** Null until all of it is there. */
  whole: z
    .object({
      format: z.enum(['csv', 'json', 'ndjson']),
      delimiter: z.string(),
      encoding: z.string(),
      headings: z.array(z.string()),
      /** Of each column its first cells that are not blank. */
      examples: z.array(z.array(z.string())),
      /** How it may be meant. */
      guess: importReadingSchema,
    })
    .nullable(),
  /** What is being done with it, and how far it is; null: nothing. */
  job: z.object({ what: z.enum(['check', 'take-in']), readBytes: count }).nullable(),
});
export type ImportFile = z.infer<typeof importFileSchema>;

/** What a file would bring when it is read in one way. */
export const importCheckSchema = z.object({
  ...{ lines: count, runs: count, withoutFigures: count, twice: count, known: count, refused: count },
  /** The first hundred. */
  refusedLines: z.array(
    z.object({ line: count, code: z.enum(IMPORT_FAULTS), column: z.string().nullable(), words: z.string() }),
  ),
  ...{ firstAt: z.iso.datetime().nullable(), lastAt: z.iso.datetime().nullable() },
  /** Devices that are none of this office: their runs are kept by the name alone. */
  strangers: z.array(z.string()),
  /** The first runs. Rates in bits per second, delays in ms. */
  samples: z.array(
    z.object({
      ...{ startedAt: z.iso.datetime(), device: z.string(), spot: z.string().nullable(), peer: z.string() },
      ...{ linkKind: z.enum(LINK_KINDS), reach: z.enum(REACHES) },
      ...{ downBps: figure, upBps: figure, idleMs: figure, addedMs: figure },
    }),
  ),
});
export type ImportLook = z.infer<typeof importCheckSchema>;

/** A file that runs were brought in from. */
export const importSchema = z.object({
  ...{ id, fileName: z.string(), sha256: z.string(), byName: z.string(), madeAt: z.iso.datetime() },
  ...{ runs: count, state: z.enum(['going', 'landing', 'done', 'undone']) },
});
export type BroughtIn = z.infer<typeof importSchema>;

const about = { caller: 'technician', scope: 'everything' } as const;

/** Bringing runs in from a file: opened, sent a part at a time, looked at, then taken in; and taken back. */
export const IMPORT_OPERATIONS = {
  listImports: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/sites/{id}/imports',
    summary: 'Files that runs of an office came from, the newest first.',
    answers: { 200: z.array(importSchema) },
    faults: ['not-signed-in', 'site-missing'],
  },
  openImport: {
    ...about,
    method: 'post',
    path: '/api/v1/sites/{id}/imports',
    summary: 'Open a file for bringing in: its name and length; its bytes follow.',
    request: openImportSchema,
    answers: { 201: z.object({ id }) },
    faults: ['not-signed-in', 'site-missing', 'import-too-large', 'import-busy', 'request-malformed'],
  },
  readImport: {
    ...about,
    method: 'get',
    path: '/api/v1/imports/{id}',
    summary: 'A file that is open: what it is, how it may be meant, and how far what is done with it is.',
    answers: { 200: importFileSchema },
    faults: ['not-signed-in', 'import-unknown'],
  },
  lookAtImport: {
    ...about,
    method: 'post',
    path: '/api/v1/imports/{id}/look',
    summary: 'What it would bring when it is read in one way. Answers when all of it was read; changes nothing.',
    request: lookAtImportSchema,
    answers: { 200: importCheckSchema },
    faults: ['not-signed-in', 'import-unknown', 'import-stopped', 'import-taking', 'request-malformed'],
  },
  takeIn: {
    ...about,
    method: 'post',
    path: '/api/v1/imports/{id}/take-in',
    summary: 'Bring its runs into the record, all of them or none. Answers when it is done.',
    request: takeInSchema,
    answers: { 200: importSchema },
    faults: [
      ...(['not-signed-in', 'import-unknown', 'import-stopped', 'import-taking', 'import-twice'] as const),
      ...(['import-refused', 'import-nothing', 'import-too-many', 'store-full', 'request-malformed'] as const),
    ],
  },
  closeImport: {
    ...about,
    method: 'delete',
    path: '/api/v1/imports/{id}',
    summary: 'Throw an open file away; what is done with it stops, and leaves nothing behind.',
    answers: { 204: null },
    faults: ['not-signed-in'],
  },
  undoImport: {
    ...about,
    method: 'post',
    path: '/api/v1/imports/{id}/undo',
    summary: 'Take all runs of a file out of the record again.',
    answers: { 200: importSchema },
    faults: ['not-signed-in', 'import-unknown'],
  },
} as const satisfies Readonly<Record<string, Operation>>;
