import {
  mean,
  reportOf,
  totalBytes,
  type ProfileName,
  type RunConditions,
  type RunReport,
  type RunSamples,
} from '@/core';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { LabClient } from './clients/lab-client';
import type { LabProgram } from './net/lab-program';
import type { LabLine, LabLineConfig } from './net/lab-line';
import { watchKernel, type KernelCount } from './net/kernel-watch';
import { watchStolenTime } from './net/stolen-time';
import { startPing, type PingRecord } from './net/system-ping';

/** The lab's runs go through no provider and are judged by nobody: only their figures count. */
export const LAB_CONDITIONS: RunConditions = {
  reach: 'local',
  link: { medium: 'unknown' },
  plan: null,
  sameMachine: false,
  practice: false,
  ipVersion: 4,
  pageHiddenMs: 0,
  peerLinkBps: null,
  otherPeerThanUsual: false,
};

/** One run with what the kernel and `ping` saw over the same seconds. */
export interface WatchedRun {
  readonly samples: RunSamples;
  readonly report: RunReport;
  readonly kernel: { readonly down: KernelCount; readonly up: KernelCount };
  readonly ping: PingRecord;
  readonly tookMs: number;
  /** Share of the processors' time that other virtual machines took meanwhile. */
  readonly stolen: number;
}

export class Unfinished extends Error {}

/** With LAB_KEEP=FOLDER the raw samples of each run are kept there: what the fixtures of the unit tests are made from. */
function keepSamples(config: LabLineConfig, client: string, samples: RunSamples): void {
  const folder = process.env['LAB_KEEP'];
  if (folder === undefined) return;
  mkdirSync(folder, { recursive: true });
  const file = `${config.down.rateMbps}-${config.up.rateMbps}-${config.baseMs}ms-${client}-${Date.now()}.json`;
  writeFileSync(join(folder, file.toLowerCase()), JSON.stringify({ config, client, samples }));
}

/** Throws Unfinished when the run gave no result. */
export async function watchedRun(
  line: LabLine,
  program: Pick<LabProgram, 'joinAddress'>,
  client: LabClient,
  profile: ProfileName,
): Promise<WatchedRun> {
  // Each direction is counted where it arrives: what leaves the client may still be dropped by the shaper.
  const endDown = await watchKernel(line.netns('client'), line.clientDevice);
  const endUp = await watchKernel(line.netns('peer'), line.peerDevice);
  const stolen = watchStolenTime();
  const endPing = startPing(line.netns('client'), line.peerAddress);
  const run = await client.run(program.joinAddress, profile);
  const stolenShare = stolen();
  const kernel = { down: await endDown(), up: await endUp() };
  const ping = await endPing();
  if (run.status === 'unfinished') throw new Unfinished(run.sentence);
  const { samples, tookMs } = run;
  keepSamples(line.config, client.name, samples);
  return { samples, report: reportOf(samples, LAB_CONDITIONS), kernel, ping, tookMs, stolen: stolenShare };
}

/** Truths about one direction of a watched run, over the seconds that its figure was counted in. */
export interface DirectionTruth {
  /** How much faster the engine's counter grew than the kernel's, as a share: slope of one over the other, less 1. */
  readonly counterError: number;
  readonly pingIdleMs: number | null;
  readonly pingAddedMs: number | null;
}

/** Slope of y over x by least squares: bytes that wait out of order at the edges of the window cancel out. */
function slope(x: readonly number[], y: readonly number[]): number {
  const [mx, my] = [mean(x)!, mean(y)!];
  const xy = x.reduce((sum, value, index) => sum + (value - mx) * (y[index]! - my), 0);
  const xx = x.reduce((sum, value) => sum + (value - mx) ** 2, 0);
  return xy / xx;
}

export function truthOf({ samples, report, kernel, ping }: WatchedRun, way: 'down' | 'up'): DirectionTruth | null {
  const { rate } = report[way];
  const counters = way === 'down' ? samples.download : samples.upload;
  const idle = samples.phases.find(({ phase }) => phase === 'idle');
  if (rate === null || counters === null || samples.client === null || idle === undefined) return null;
  const { wallMs } = samples.client;
  const toWall = wallMs + (way === 'down' ? 0 : (samples.peerClockOffsetMs ?? 0));
  const total = totalBytes(counters);
  const counted = counters.atMs.flatMap((atMs, index) =>
    atMs >= rate.countedFromMs && atMs <= rate.countedToMs ? [index] : [],
  );
  const kernelBytes = kernel[way].payloadAt(counted.map((index) => counters.atMs[index]! + toWall));
  const engineBytes = counted.map((index) => total[index]!);
  const idlePing = ping.medianMs(idle.fromMs + wallMs, idle.toMs + wallMs);
  const loadedPing = ping.medianMs(rate.countedFromMs + toWall, rate.countedToMs + toWall);
  return {
    counterError: slope(kernelBytes, engineBytes) - 1,
    pingIdleMs: idlePing,
    pingAddedMs: idlePing === null || loadedPing === null ? null : loadedPing - idlePing,
  };
}
