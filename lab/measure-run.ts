import { reportOf, type ProfileName, type RunConditions, type RunReport, type RunSamples } from '@/core';
import type { LabClient } from './clients/lab-client';
import type { LabProgram } from './net/lab-program';
import type { LabLine } from './net/lab-line';
import { watchKernel, type KernelCount } from './net/kernel-watch';
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
  readonly kernel: KernelCount;
  readonly ping: PingRecord;
  readonly tookMs: number;
}

export class Unfinished extends Error {}

/** Throws Unfinished when the run gave no result. */
export async function watchedRun(
  line: LabLine,
  program: LabProgram,
  client: LabClient,
  profile: ProfileName,
): Promise<WatchedRun> {
  const endKernel = await watchKernel(line.netns('client'), line.clientDevice);
  const endPing = startPing(line.netns('client'), line.peerAddress);
  const run = await client.run(program.joinAddress, profile);
  const [kernel, ping] = [await endKernel(), await endPing()];
  if (run.status === 'unfinished') throw new Unfinished(run.sentence);
  const { samples, tookMs } = run;
  return { samples, report: reportOf(samples, LAB_CONDITIONS), kernel, ping, tookMs };
}

/** Truths about one direction of a watched run, over the seconds that its figure was counted in. */
export interface DirectionTruth {
  /** Engine's counter over the kernel's, less 1. */
  readonly counterError: number;
  readonly pingAddedMs: number | null;
  readonly pingLoadedP95Ms: number | null;
}

export function truthOf(run: WatchedRun, way: 'down' | 'up'): DirectionTruth | null {
  const { samples, report, kernel, ping } = run;
  const { rate } = report[way];
  const idle = samples.phases.find(({ phase }) => phase === 'idle');
  if (rate === null || samples.client === null || idle === undefined) return null;
  const toWall = samples.client.wallMs + (way === 'down' ? 0 : (samples.peerClockOffsetMs ?? 0));
  const [from, to] = [rate.countedFromMs + toWall, rate.countedToMs + toWall];
  const engineBytes = (rate.meanBps * (rate.countedToMs - rate.countedFromMs)) / 8000;
  const kernelBytes = kernel.payloadBytes(way === 'down' ? 'received' : 'sent', from, to);
  const { wallMs } = samples.client;
  const idlePing = ping.medianMs(idle.fromMs + wallMs, idle.toMs + wallMs);
  const loadedPing = ping.medianMs(from, to);
  return {
    counterError: engineBytes / kernelBytes - 1,
    pingAddedMs: idlePing === null || loadedPing === null ? null : loadedPing - idlePing,
    pingLoadedP95Ms: ping.p95Ms(from, to),
  };
}
