import {
  sentenceOf,
  strawPathOf,
  togetherShareOf,
  stripDataOf,
  unfinishedWords,
  type ClientTrouble,
  type CounterSeries,
  type RateEstimate,
  type SharingRun,
  type TogetherShare,
  type RunConditions,
  type RunReport,
  type RunSentence,
  type SetJudgement,
  type StrawSegment,
  type StripData,
} from '@/core';
import type { RunLine, StoredImport, StoredRun } from '@/store';
import type { RunSamples } from '@/core';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { maySeeRun, type Role } from '../access';
import { conditionsOf } from '../runs/judged-run';
import { judgedSet, usualSpreadOf } from '../runs/run-sets';
import { sharePathOf } from '../runs/share-run';

const MONTH_MS = 30 * 24 * 3600_000;

/** Everything on the page of one run. `result` is null for a run that has not ended with figures. */
export interface RunPage {
  readonly run: StoredRun;
  readonly straw: readonly StrawSegment[];
  readonly strip: StripData | null;
  /** What the device tried and could not do. */
  readonly troubles: readonly ClientTrouble[];
  readonly result: { readonly report: RunReport; readonly sentence: RunSentence } | null;
  /** Why there is no result, in words; null when there is one or the run is going on. */
  readonly unfinished: string | null;
  /** The set that it belongs to: its finished runs, the oldest first, and how they are judged as one. */
  readonly set: { readonly runs: readonly StoredRun[]; readonly judgement: SetJudgement } | null;
  /** Runs that were started at the same instant on purpose, this one among them. */
  readonly together: { readonly runs: readonly StoredRun[]; readonly share: TogetherShare | null };
  /** The runs of the same device and reach just before and after it. */
  readonly neighbours: { readonly before: RunLine | null; readonly after: RunLine | null };
  /** Rates of the device over this link and reach in the last thirty days, for copy times. Bits per second. */
  readonly ratesOfMonth: { readonly downBps: readonly number[]; readonly upBps: readonly number[] };
  /** Path of the link by which it is shared; null while it is not. */
  readonly sharePath: string | null;
  /** The file that its figures came from; null: it was measured here. */
  readonly imported: Pick<StoredImport, 'fileName' | 'byName' | 'madeAtMs'> | null;
  /** What an unfinished run had measured before it broke off, in words; null when that was nothing. */
  readonly measuredBefore: string | null;
}

function measuredBefore({ report }: StoredRun, conditions: RunConditions): string | null {
  if (report === null || report.idleDelay === null) return null;
  const { figures, delay } = sentenceOf(report, conditions);
  return `${figures} ${delay}`;
}

async function setOf(context: ConsoleContext, run: StoredRun): Promise<RunPage['set']> {
  const runs = run.status === 'finished' ? await context.store.runs.ofSet(run.setId) : [];
  const judgement = runs.length > 1 ? judgedSet(runs, await usualSpreadOf(context, runs[0]!)) : null;
  return judgement === null ? null : { runs, judgement };
}

/** A series on one clock for all runs of a round: ms since the first of them was granted. */
function moved(series: CounterSeries | null, byMs: number): CounterSeries | null {
  return series === null ? null : { ...series, atMs: series.atMs.map((atMs) => atMs + byMs) };
}

async function togetherOf({ store }: ConsoleContext, run: StoredRun): Promise<RunPage['together']> {
  if (run.together === null) return { runs: [], share: null };
  const runs = await store.runs.startedTogether(run.together);
  const firstMs = Math.min(...runs.map(({ startedAtMs }) => startedAtMs));
  const sharing = await Promise.all(
    runs.map(async ({ id, startedAtMs, report }): Promise<SharingRun | null> => {
      const samples = report === null ? null : await store.runs.samples(id);
      if (report === null || samples === null) return null;
      const ownMs = startedAtMs - firstMs;
      const upMs = ownMs + (samples.peerClockOffsetMs ?? 0);
      const counted = (rate: RateEstimate | null, byMs: number) =>
        rate === null ? null : { fromMs: rate.countedFromMs + byMs, toMs: rate.countedToMs + byMs };
      return {
        ...{ down: moved(samples.download, ownMs), up: moved(samples.upload, upMs) },
        countedDown: counted(report.down.rate, ownMs),
        countedUp: counted(report.up.rate, upMs),
        addedMs: report.bloat?.addedMs ?? null,
      };
    }),
  );
  return { runs, share: sharing.includes(null) ? null : togetherShareOf(sharing as SharingRun[]) };
}

async function ratesOfMonth(context: ConsoleContext, run: StoredRun): Promise<RunPage['ratesOfMonth']> {
  const runs = await context.store.runs.ratesSince(run, run.startedAtMs - MONTH_MS);
  return { downBps: runs.flatMap(({ downBps }) => downBps ?? []), upBps: runs.flatMap(({ upBps }) => upBps ?? []) };
}

export async function runPageOf(context: ConsoleContext, runId: string): Promise<Outcome<RunPage, 'run-unknown'>> {
  const run = await context.store.runs.byId(runId);
  if (run === null) return failed('run-unknown');
  const samples = await context.store.runs.samples(runId);
  const conditions = conditionsOf(run);
  const flags = run.brief?.flags ?? [];
  return done({
    run,
    straw: strawPathOf({
      ...conditions,
      ...{ deviceName: run.deviceName, peerName: run.peerName, lineName: run.lineName },
      heldByLink: flags.includes('link-below-plan'),
      linkDoubtful: flags.includes('link-doubtful'),
    }),
    strip: samples === null ? null : stripDataOf(samples),
    troubles: samples?.client?.troubles ?? [],
    result:
      run.status === 'finished' && run.report !== null
        ? { report: run.report, sentence: sentenceOf(run.report, conditions) }
        : null,
    imported: run.importId === null ? null : await context.store.imports.byId(run.importId),
    measuredBefore: run.status === 'unfinished' ? measuredBefore(run, conditions) : null,
    set: await setOf(context, run),
    neighbours: await context.store.runs.neighbours(run),
    ratesOfMonth: await ratesOfMonth(context, run),
    sharePath: sharePathOf(context, run),
    together: await togetherOf(context, run),
    unfinished: run.status === 'unfinished' ? unfinishedWords(run.reason ?? 'device-vanished') : null,
  });
}

/** What a run can be checked and recomputed from. */
export interface SamplesDocument {
  readonly runId: string;
  readonly methodVersion: number | null;
  readonly startedAt: string;
  readonly conditions: ReturnType<typeof conditionsOf>;
  readonly device: string;
  readonly peer: string;
  readonly samples: RunSamples;
}

export async function samplesDocumentOf(
  context: ConsoleContext,
  role: Role,
  runId: string,
): Promise<Outcome<SamplesDocument, 'run-unknown' | 'samples-missing' | 'samples-thinned' | 'not-signed-in'>> {
  if (role.kind === 'stranger') return failed('not-signed-in');
  const run = await context.store.runs.byId(runId);
  if (run === null || !maySeeRun(role, run)) return failed('run-unknown');
  const samples = await context.store.runs.samples(runId);
  if (samples === null) return failed(run.thinnedAtMs === null ? 'samples-missing' : 'samples-thinned');
  return done({
    runId,
    methodVersion: run.methodVersion,
    startedAt: new Date(run.startedAtMs).toISOString(),
    conditions: conditionsOf(run),
    device: run.deviceName,
    peer: run.peerName,
    samples,
  });
}
