import { isDeepStrictEqual } from 'node:util';
import { judgeSet, USUAL_FULL_FROM, type SetJudgement } from '@/core';
import type { StoredRun } from '@/store';
import type { ConsoleContext } from './console-context';
import { conditionsOf } from './hand-in-run';

/** A set may be continued for so long after its last run. */
const SET_LIFE_MS = 12 * 3600_000;

/** What has to be the same for two runs to belong to one set. */
type SetConditions = Pick<
  StoredRun,
  'siteId' | 'deviceId' | 'peerId' | 'lineId' | 'reach' | 'link' | 'plan' | 'spotName' | 'profile' | 'together' | 'told'
>;

function sameConditions(one: SetConditions, other: SetConditions): boolean {
  const of = ({ siteId, deviceId, peerId, lineId, reach, link, plan, spotName, profile, told }: SetConditions) => [
    ...[siteId, deviceId, peerId, lineId, reach, link, plan, spotName, profile, told],
  ];
  // A run beside others shares its line: it belongs to nobody's set.
  return one.together === null && other.together === null && isDeepStrictEqual(of(one), of(other));
}

/**
 * The set that a run continues: that of the device's last finished run over the same kind of link and reach, when
 * everything else was the same too; null when it begins a new one.
 */
export async function continuedSet(context: ConsoleContext, run: SetConditions, nowMs: number): Promise<string | null> {
  const last = await context.store.runs.lastFinishedOf(run.siteId, run.deviceId, run.reach);
  if (last === null || nowMs - last.startedAtMs > SET_LIFE_MS || !sameConditions(run, last)) return null;
  return last.setId;
}

/** Judges finished runs of one set, the newest last; null when the newest has no report. */
export function judgedSet(runs: readonly StoredRun[]): SetJudgement | null {
  const newest = runs.at(-1);
  const report = newest?.report ?? null;
  if (newest === undefined || report === null) return null;
  const { reach, plan, sameMachine } = conditionsOf(newest);
  const { down, up } = report;
  return judgeSet(
    runs.map(({ downBps, upBps, addedMs, report }) => ({ downBps, upBps, addedMs, flags: report?.fitness ?? [] })),
    {
      reach,
      plan,
      sameMachine,
      fullFrom: plan?.fullFrom ?? USUAL_FULL_FROM,
      yardstick: { down: down.yardstick, up: up.yardstick },
    },
  );
}

/** Runs by the set that they belong to, in the order in which they were given. */
export function setsOf(runs: readonly StoredRun[]): ReadonlyMap<string, readonly StoredRun[]> {
  const sets = new Map<string, StoredRun[]>();
  for (const run of runs) sets.set(run.setId, [...(sets.get(run.setId) ?? []), run]);
  return sets;
}
