import * as z from 'zod';
import {
  DOWNLOAD_READERS,
  LONGEST_DETAIL,
  MOST_TROUBLES,
  PHASES,
  PROFILE_NAMES,
  TROUBLE_CODES,
  type RunSamples,
} from '@/core';
import { kernelSightingSchema, peerLoadSchema } from '../peer/sighting-schemas';

/** Bounds far above any honest run (an hour of probes at 20 a second), so that nobody can fill the disk. */
const MOST_POINTS = 80_000;
const MOST_STREAMS = 16;
const time = z.number().min(-1e13).max(1e13);
const count = z.number().int().nonnegative();

function neverFalls(values: readonly number[]): boolean {
  return values.every((value, index) => index === 0 || value >= values[index - 1]!);
}

const times = z.array(time).max(MOST_POINTS).refine(neverFalls, 'times must not go backwards');
const counters = z.array(count).max(MOST_POINTS).refine(neverFalls, 'counters must not go backwards');
const roundTrips = z.array(z.number().nonnegative().nullable()).max(MOST_POINTS);

const counterSeriesSchema = z
  .strictObject({ atMs: times, bytes: z.array(counters).max(MOST_STREAMS) })
  .refine(
    ({ atMs, bytes }) => bytes.every((stream) => stream.length === atMs.length),
    'each stream needs one count for each time',
  )
  .nullable();

const udpSchema = z
  .strictObject({
    kind: z.enum(['stamp', 'stamp-authenticated', 'data-channel']),
    sentMs: times,
    rttMs: roundTrips,
    reflected: z.array(count.nullable()).max(MOST_POINTS),
    upMs: z.array(time.nullable()).max(MOST_POINTS),
    duplicates: count,
    peerReceived: count.nullable(),
  })
  .refine(
    ({ sentMs, rttMs, reflected, upMs }) => [rttMs, reflected, upMs].every((series) => series.length === sentMs.length),
    'each packet needs a send time, a round trip or null, and a reflected number or null',
  );

const troubleSchema = z.strictObject({
  code: z.enum(TROUBLE_CODES),
  detail: z.string().max(LONGEST_DETAIL),
  count: z.number().int().positive(),
  atMs: time,
});

const clientSchema = z.strictObject({
  wallMs: time,
  wallSpanMs: time,
  spanMs: time,
  stalls: z.array(z.strictObject({ atMs: time, lateMs: z.number().nonnegative() })).max(MOST_POINTS),
  selfReadBps: z.number().nonnegative().nullable(),
  otherTraffic: z
    .strictObject({ downBytes: z.number(), upBytes: z.number(), overMs: z.number().nonnegative() })
    .nullable(),
  powerSaving: z.string().max(200).nullable(),
  clockStepMs: z.number().positive().max(1000).nullable().optional(),
  reader: z.enum(DOWNLOAD_READERS).optional(),
  troubles: z.array(troubleSchema).max(MOST_TROUBLES).optional(),
});

/** Raw samples as a client hands them in. Counters and clocks that go backwards are refused. */
export const runSamplesSchema: z.ZodType<RunSamples> = z.strictObject({
  formatVersion: z.literal(1),
  profile: z.enum(PROFILE_NAMES),
  phases: z
    .array(
      z
        .strictObject({ phase: z.enum(PHASES), fromMs: time, toMs: time })
        .refine(({ fromMs, toMs }) => toMs >= fromMs, 'a phase must not end before it begins'),
    )
    .max(8),
  streams: z
    .array(z.strictObject({ phase: z.enum(PHASES), atMs: time, streams: z.number().int().min(1).max(MOST_STREAMS) }))
    .max(64),
  probes: z
    .strictObject({ sentMs: times, rttMs: roundTrips })
    .refine(
      ({ sentMs, rttMs }) => sentMs.length === rttMs.length,
      'each probe needs a send time and a round trip or null',
    ),
  download: counterSeriesSchema,
  upload: counterSeriesSchema,
  bothDown: counterSeriesSchema,
  bothUp: counterSeriesSchema,
  udp: udpSchema.nullable(),
  peerClockOffsetMs: time.nullable(),
  client: clientSchema.nullable(),
  kernel: z.array(kernelSightingSchema).max(10_000),
  peerLoad: z.array(peerLoadSchema).max(10_000),
});
