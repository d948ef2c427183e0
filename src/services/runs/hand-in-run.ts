import {
  RUN_PROFILES,
  movedBytes,
  reportOf,
  sentenceOf,
  sketchOf,
  stripDataOf,
  yardstickBps,
  UNFINISHED_REASONS,
  type RateSeconds,
  type RunReport,
  type RunSamples,
  type UnfinishedReason,
} from '@/core';
import { diskTroubleOf, type RunEnding, type StoredReceipt, type StoredRun } from '@/store';
import {
  type AliveAnswer,
  type ConsoleFaultCode,
  done,
  failed,
  type HandIn,
  type HandInAnswer,
  type Outcome,
} from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { conditionsOf, figureColumns } from './judged-run';
import { noteLook } from './long-look';
import { isPlayed } from './played-device';
import { provesIt } from '../console/proofs';
import { takeReceipt } from './take-receipt';

/** A run without a result. What was measured before it broke off is kept in its report, never as its figures. */
function unfinished(
  run: StoredRun,
  reason: UnfinishedReason,
  endedAtMs: number,
  seen: Partial<RunEnding>,
  samples: RunSamples | null,
): RunEnding {
  if (samples === null || samples.phases.length === 0) return { ...seen, status: 'unfinished', reason, endedAtMs };
  return {
    ...seen,
    status: 'unfinished',
    reason,
    endedAtMs,
    report: reportOf(samples, conditionsOf({ ...run, ...seen })),
    sketch: sketchOf(stripDataOf(samples)),
  };
}

/** A run that ended as planned but lacks a figure of its profile is no result. */
function missingFigure(
  report: RunReport,
  { profile }: RunSamples,
  { farEnd }: Pick<StoredRun, 'farEnd'>,
): UnfinishedReason | null {
  const { steps } = RUN_PROFILES[profile];
  if (report.idleDelay === null) return 'no-echo';
  if (steps.includes('paced') && report.paced === null) return 'no-udp';
  const lacks = (phase: 'download' | 'upload', direction: 'down' | 'up') =>
    steps.includes(phase) && report[direction].rate === null;
  if (lacks('download', 'down')) return report.down.bytes === null ? 'no-download' : 'too-slow';
  // Nothing is sent up to a web server.
  if (farEnd === 'web') return null;
  if (lacks('upload', 'up')) return report.up.bytes === null ? 'no-upload' : 'too-slow';
  return null;
}

function endingOf(run: StoredRun, handIn: HandIn, kept: StoredReceipt, nowMs: number): RunEnding {
  const { facts, samples } = handIn;
  const { receipt } = kept;
  const seen =
    facts === null
      ? {}
      : {
          // What the peer signed for goes before what the client says.
          sameMachine: receipt?.sameMachine ?? facts.sameMachine,
          ipVersion: receipt?.ipVersion ?? facts.ipVersion,
          pageHiddenMs: facts.pageHiddenMs,
          userAgent: facts.userAgent,
          peerLinkBps: facts.peerLinkBps,
        };
  // By the client's monotonic clock: a wall clock that was set meanwhile has no part in it.
  const moved = { movedBytes: samples === null ? null : movedBytes(samples) };
  const measuredMs = samples?.phases.at(-1)?.toMs ?? null;
  const endedAtMs = measuredMs === null ? Math.max(run.startedAtMs, nowMs) : run.startedAtMs + measuredMs;
  if (handIn.outcome === 'unfinished') return { ...unfinished(run, handIn.reason, endedAtMs, seen, samples), ...moved };

  const signed = { receipt: kept };
  const report = reportOf(handIn.samples, conditionsOf({ ...run, ...seen, ...signed }));
  const missing = missingFigure(report, handIn.samples, run);
  if (missing !== null) return { ...unfinished(run, missing, endedAtMs, seen, samples), ...moved };
  return {
    ...seen,
    ...signed,
    ...moved,
    status: 'finished',
    reason: null,
    endedAtMs,
    ...figureColumns(report, run),
    sketch: sketchOf(stripDataOf(handIn.samples)),
  };
}

/** What the device page is told about a run that stands in the record. */
export function answerOf(run: StoredRun): HandInAnswer {
  if (run.status === 'finished' && run.report !== null)
    return {
      runId: run.id,
      status: 'finished',
      ...sentenceOf(run.report, conditionsOf(run)),
      result: {
        verdict: run.report.verdict,
        downBps: run.downBps,
        upBps: run.upBps,
        yardstickDownBps: yardstickBps(run.report.down.yardstick),
        yardstickUpBps: yardstickBps(run.report.up.yardstick),
        idleMs: run.idleMs,
        addedMs: run.addedMs,
        linkDoubtful: run.report.fitness.some(({ code }) => code === 'link-doubtful'),
      },
    };
  const reason = run.reason ?? 'device-vanished';
  return {
    runId: run.id,
    status: 'unfinished',
    figures: UNFINISHED_REASONS[reason].what,
    held: UNFINISHED_REASONS[reason].nextStep,
    delay: '',
    lead: 'held',
    result: null,
  };
}

/**
 * Writes the record of a run, once. Handing in the same run again changes nothing and gets the same answer, so a
 * device may repeat it until it has been heard.
 */
export async function handInRun(
  context: ConsoleContext,
  runId: string,
  runKey: string,
  handIn: HandIn,
): Promise<Outcome<HandInAnswer, ConsoleFaultCode>> {
  if (!provesIt(context.signingKey, 'run', runId, runKey)) return failed('run-key-wrong');
  const { runs } = context.store;
  const run = await runs.byId(runId);
  if (run === null) return failed('run-unknown');
  if (run.status !== 'finished') {
    const samples = handIn.samples !== null && handIn.samples.phases.length > 0 ? handIn.samples : null;
    try {
      const practice = run.practice || (await isPlayed(context, run, handIn));
      const receipt =
        handIn.outcome === 'finished' ? await takeReceipt(context, run, handIn.facts.receipt) : { receipt: null };
      const ending = endingOf({ ...run, practice }, handIn, receipt, context.wallMs());
      await runs.end(runId, { ...ending, practice }, samples);
      if (ending.status === 'finished' && ending.report && samples !== null)
        await noteLook(context, { ...run, practice }, ending.report, samples);
      context.live.forget(runId);
      context.farEnds.close(runId);
      context.log.info(
        {
          ...{ run: runId, status: ending.status, reason: ending.reason ?? null, verdict: ending.verdict ?? null },
          ...{ downBps: ending.downBps ?? null, upBps: ending.upBps ?? null },
        },
        'run recorded',
      );
      context.changes.tell('runs', 'queue');
    } catch (error) {
      const reason = diskTroubleOf(error);
      if (reason === null) throw error;
      return failed('store-full', { reason });
    }
  }
  return done(answerOf((await runs.byId(runId))!));
}

/** The device is still measuring; whoever watches hears what it moves. Not running: the run has ended or never was. */
export async function noteRunAlive(
  context: ConsoleContext,
  runId: string,
  runKey: string,
  rates: RateSeconds | null = null,
): Promise<AliveAnswer> {
  const over = { running: false, watched: false, stop: false };
  if (!provesIt(context.signingKey, 'run', runId, runKey)) return over;
  const run = await context.store.runs.byId(runId);
  if (run?.status !== 'running') return over;
  context.live.note(runId, context.wallMs());
  const { siteId, deviceId, startedAtMs } = run;
  if (rates !== null) context.beats.tell(siteId, { kind: 'rates', rates: { runId, deviceId, startedAtMs, ...rates } });
  return { running: true, watched: context.beats.isWatched(siteId), stop: context.live.isStopped(runId) };
}
