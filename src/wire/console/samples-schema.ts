import { z } from 'zod';
import type { RunSamples } from '@/core';

/** Bounds far above any honest run (ten minutes at 20 samples a second), so that nobody can fill the disk. */
const MOST_POINTS = 20_000;
const time = z.number().min(-1e12).max(1e12);
const times = z.array(time).max(MOST_POINTS).refine(neverFalls, 'times must not go backwards');
const counters = z
  .array(z.number().int().nonnegative())
  .max(MOST_POINTS)
  .refine(neverFalls, 'counters must not go backwards');

function neverFalls(values: readonly number[]): boolean {
  return values.every((value, index) => index === 0 || value >= values[index - 1]!);
}

const counterSeriesSchema = z
  .strictObject({ atMs: times, bytes: z.array(counters).max(16) })
  .refine(
    ({ atMs, bytes }) => bytes.every((stream) => stream.length === atMs.length),
    'each stream needs one count for each time',
  );

/** Raw samples as a client hands them in. Counters and clocks that go backwards are refused. */
export const runSamplesSchema: z.ZodType<RunSamples> = z.strictObject({
  formatVersion: z.literal(1),
  phases: z
    .array(
      z
        .strictObject({ phase: z.enum(['idle', 'download', 'settle', 'upload']), fromMs: time, toMs: time })
        .refine(({ fromMs, toMs }) => toMs >= fromMs, 'a phase must not end before it begins'),
    )
    .max(8),
  probes: z
    .strictObject({ sentMs: times, rttMs: z.array(z.number().nonnegative().nullable()).max(MOST_POINTS) })
    .refine(
      ({ sentMs, rttMs }) => sentMs.length === rttMs.length,
      'each probe needs a send time and a round trip or null',
    ),
  download: counterSeriesSchema.nullable(),
  upload: counterSeriesSchema.nullable(),
  peerClockOffsetMs: time.nullable(),
});
