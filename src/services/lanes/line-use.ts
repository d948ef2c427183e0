import {
  groupedBy,
  lineUseOf,
  ownBytes,
  reportOf,
  sketchOf,
  stripDataOf,
  unpackMinute,
  type LaneMinute,
  type LoadStep,
} from '@/core';
import type { StoredLane, StoredRun } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { conditionsOf, figureColumns } from '../runs/judged-run';

const MINUTE_MS = 60_000;
/** Minutes of lanes come a minute late, from an agent that was cut off later; after so long a run stays as it is. */
const WAITS_MS = 30 * MINUTE_MS;
/** A run is held by readings from before it began until after it ended. */
const BESIDE_MS = 2 * MINUTE_MS;

const stepsOf = (minutes: readonly LaneMinute[], lane: StoredLane | undefined): LoadStep[] =>
  minutes
    .filter(({ laneId }) => laneId === lane?.id)
    .flatMap(({ fromMs, raw }) => unpackMinute(fromMs, raw))
    .flatMap(({ atMs, ms }) => (ms === null ? [] : [{ atMs, mbps: ms }]));

/** What others moved over the line around a run, and what that says of it. False: the readings are not all there yet. */
async function judgeByUse({ store }: ConsoleContext, run: StoredRun, lanes: readonly StoredLane[]): Promise<boolean> {
  if (run.endedAtMs === null) return false;
  const samples = await store.runs.samples(run.id);
  if (samples === null) return false;
  const minutes = await store.lanes.minutes(
    lanes.map(({ id }) => id),
    run.startedAtMs - BESIDE_MS,
    run.endedAtMs + BESIDE_MS,
  );
  const of = (kind: StoredLane['kind']) =>
    stepsOf(
      minutes,
      lanes.find((lane) => lane.kind === kind),
    );
  const lineUse = lineUseOf(
    { down: of('load-in'), up: of('load-out') },
    { fromMs: run.startedAtMs, untilMs: run.endedAtMs, ...ownBytes(samples, run.receipt?.receipt) },
    Math.max(...lanes.map(({ everyMs }) => everyMs)),
  );
  if (lineUse === null) return false;
  const judged = { ...run, lineUse };
  const figures = figureColumns(reportOf(samples, conditionsOf(judged)), judged);
  await store.runs.replaceFigures(run.id, { lineUse, ...figures, sketch: sketchOf(stripDataOf(samples)) });
  return true;
}

/**
 * Looks at runs of the last half hour that went over a line whose router is read, once the readings around them are in: what it moved
 * that was not theirs. True: a run is judged by it now.
 */
export async function seeWhoElse(context: ConsoleContext): Promise<boolean> {
  const { lanes: queries, runs } = context.store;
  const lanes = await queries.ofLines();
  if (lanes.length === 0) return false;
  const bySite = groupedBy(lanes, ({ siteId }) => siteId);
  // Readings come a minute at a time: a run that ended after the newest is not looked at yet.
  const readUntil = new Map<string, number>();
  for (const [siteId, of] of bySite)
    readUntil.set(siteId, (await queries.newestMinute(of.map(({ id }) => id))) ?? -Infinity);
  let told = false;
  for (const run of await runs.withoutLineUse([...bySite.keys()], context.wallMs() - WAITS_MS))
    if (run.endedAtMs !== null && run.endedAtMs < readUntil.get(run.siteId)! + MINUTE_MS)
      told = (await judgeByUse(context, run, bySite.get(run.siteId)!)) || told;
  if (told) context.changes.tell('runs');
  return told;
}
