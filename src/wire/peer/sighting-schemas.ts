import * as z from 'zod';
import type { KernelSighting, PeerLoadSample } from '@/core';

const figure = z.number().nonnegative().max(1e15);
const maybe = figure.nullable();

export const kernelSightingSchema = z.strictObject({
  atMs: figure,
  port: z.number().int().min(0).max(65_535),
  mssBytes: maybe,
  pathMtuBytes: maybe,
  rttMs: maybe,
  minRttMs: maybe,
  retransmitted: maybe,
  spurious: maybe,
  bytesAcked: maybe,
  busyMs: maybe,
  receiverLimitedMs: maybe,
  congestionControl: z.string().max(40).nullable(),
}) satisfies z.ZodType<KernelSighting>;

export const peerLoadSchema = z.strictObject({
  atMs: figure,
  otherSessions: z.number().int().min(0).max(10_000),
  cpuShare: z.number().min(0).max(1).nullable(),
  loopLateMs: figure,
}) satisfies z.ZodType<PeerLoadSample>;
