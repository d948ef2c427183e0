import { isDeepStrictEqual } from 'node:util';
import {
  FULL_SET,
  groupedBy,
  judgeSet,
  judgesItsPath,
  steadyLink,
  USUAL_FULL_FROM,
  type SetJudgement,
  type UsualSpread,
} from '@/core';
import type { SetRun, StoredRun } from '@/store';
import type { ConsoleContext } from '../console/console-context';

/** A set may be continued for so long after its last run. */
const SET_LIFE_MS = 12 * 3600_000;

/** What has to be the same for two runs to belong to one set. */
type SetConditions = Pick<
  StoredRun,
  | 'siteId'
  | 'deviceId'
  | 'peerId'
  | 'lineId'
  | 'reach'
  | 'link'
  | 'linkKind'
  | 'plan'
  | 'spotName'
  | 'profile'
  | 'together'
  | 'told'
>;

function sameConditions(one: SetConditions, other: SetConditions): boolean {
  const of = ({ siteId, deviceId, peerId, lineId, reach, link, plan, spotName, profile, told }: SetConditions) => [
    ...[siteId, deviceId, peerId, lineId, reach, steadyLink(link), plan, spotName, profile, told],
  ];
  // A run beside others shares its line: it belongs to nobody's set.
  return one.together === null && other.together === null && isDeepStrictEqual(of(one), of(other));
}

/**
 * The set that a run continues: that of the device's last finished run over the same kind of link and reach, when
 * everything else was the same too; null when it begins a new one.
 */
export async function continuedSet(context: ConsoleContext, run: SetConditions, nowMs: number): Promise<string | null> {
  const last = await context.store.runs.lastFinishedOf(run.siteId, run.deviceId, run.linkKind, run.reach);
  if (last === null || nowMs - last.startedAtMs > SET_LIFE_MS || !sameConditions(run, last)) return null;
  // What was swapped since is another condition: before and after are held against each other.
  const swaps = await context.store.findings.swapsOf(run.siteId);
  const swapped = swaps.some(
    ({ atMs, deviceId }) => atMs > last.startedAtMs && (deviceId === null || deviceId === run.deviceId),
  );
  return swapped ? null : last.setId;
}

/** Why a run of a set may have no verdict at all, the gravest first. */
const VOIDING = ['same-machine', 'not-credible', 'shared-on-purpose', 'single-stream'] as const;

/** Judges finished runs of one set, the newest last; null when the newest has no figures. */
export function judgedSet(runs: readonly SetRun[], usual?: UsualSpread): SetJudgement | null {
  const newest = runs.at(-1);
  if (newest === undefined || newest.brief === null) return null;
  const { reach, plan, evidence, brief } = newest;
  return judgeSet(
    runs.map(({ downBps, upBps, addedMs, brief }) => ({
      ...{ downBps, upBps, addedMs, flags: brief?.flags ?? [] },
      ...{ flagsDown: brief?.flagsDown, flagsUp: brief?.flagsUp },
    })),
    {
      reach,
      plan,
      voidedBy: VOIDING.find((code) => brief.flags.includes(code)) ?? (judgesItsPath(evidence) ? null : 'same-machine'),
      fullFrom: plan?.fullFrom ?? USUAL_FULL_FROM,
      yardstickBps: { down: brief.downYardstickBps, up: brief.upYardstickBps },
    },
    usual,
  );
}

/** What is usual is read from so many runs before. */
const USUAL_RUNS = 90;

/** How far the runs of earlier full sets of the same device, link and reach lay apart. */
export async function usualSpreadOf({ store }: ConsoleContext, run: StoredRun): Promise<UsualSpread> {
  const before = (await store.runs.figuresBefore(run, USUAL_RUNS)).filter(({ setId }) => setId !== run.setId);
  const sets = [...groupedBy(before, ({ setId }) => setId).values()].filter((set) => set.length >= FULL_SET);
  const ranges = (pick: (one: (typeof before)[number]) => number | null) =>
    sets.flatMap((set) => {
      const values = set.map(pick).filter((value) => value !== null);
      return values.length < FULL_SET ? [] : [Math.max(...values) - Math.min(...values)];
    });
  return { down: ranges((one) => one.downBps), up: ranges((one) => one.upBps), added: ranges((one) => one.addedMs) };
}

/** Runs by the set that they belong to, in the order in which they were given. */
export function setsOf(runs: readonly SetRun[]): ReadonlyMap<string, readonly SetRun[]> {
  return groupedBy(runs, ({ setId }) => setId);
}
