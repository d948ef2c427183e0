import { MINUTE_MS, type LaneMinute } from '@/core';
import { refreshOutages, type ConsoleContext } from '@/services';
import type { LaneStep } from '@/store';
import {
  everyMsOf,
  fallsSilent,
  playedMinute,
  PLAYED_LANES,
  SILENCES,
  silenceSpan,
  type PlayedLane,
} from './simulated-lanes';

const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;
const DAYS = 21;
/** Single requests are made up for so long; before that what hours came to is enough to draw. */
const MINUTES_HOURS = 30;

interface WatchingAgent {
  readonly siteId: string;
  readonly deviceId: string;
}

/** When the cordless intercom was in use, as somebody wrote it down: hours ago, minutes long. */
const TALKS: readonly (readonly [number, number])[] = [
  [4, 12],
  [22, 18],
];

interface Seeded {
  readonly id: string;
  readonly played: PlayedLane;
}

function talksAt(nowMs: number) {
  const spans = TALKS.map(([hoursAgo, minutes]) => {
    const fromMs = Math.floor((nowMs - hoursAgo * HOUR_MS) / MINUTE_MS) * MINUTE_MS;
    return { fromMs, untilMs: fromMs + minutes * MINUTE_MS };
  });
  return { spans, talks: (atMs: number) => spans.some(({ fromMs, untilMs }) => atMs >= fromMs && atMs < untilMs) };
}

/** An hour as one minute of it was, with what was silent in it taken off. */
function playedStep({ id, played }: Seeded, stepMs: number, fromMs: number, nowMs: number): LaneStep {
  const { minMs, medianMs, p95Ms, maxMs } = playedMinute(id, played, fromMs + 7 * MINUTE_MS, 0, () => false);
  const sent = stepMs / everyMsOf(played);
  const about = SILENCES.filter(({ silent }) => fallsSilent(played) && silent.includes(played.role));
  const silentMs = about.reduce((sum, silence) => {
    const span = silenceSpan(silence, nowMs);
    return sum + Math.max(0, Math.min(span.untilMs, fromMs + stepMs) - Math.max(span.fromMs, fromMs));
  }, 0);
  const answered = Math.round((sent - silentMs / 1000) * (1 - played.lost));
  // What was silent is not among what was lost by chance.
  const lost = played.kind === 'stamp' ? Math.round((sent - silentMs / 1000) * played.lost) : 0;
  const lostBack = Math.round(0.2 * lost);
  const ways = { lostThere: lost - lostBack, lostBack };
  return { laneId: id, fromMs, sent, answered, ...ways, minMs, medianMs, p95Ms, maxMs };
}

/** Three weeks of lanes with outages of each kind, and what the intercom did as marks. */
export async function seedLanes(context: ConsoleContext, { siteId, deviceId }: WatchingAgent): Promise<void> {
  const { store, newId } = context;
  const nowMs = context.wallMs();
  const lanes: Seeded[] = [];
  for (const [place, played] of PLAYED_LANES.entries()) {
    const id = newId();
    const { name, target, role, kind = 'echo' } = played;
    await store.lanes.save({
      ...{ id, siteId, deviceId, name, target, role, kind, everyMs: everyMsOf(played), place },
      ...{ madeAtMs: nowMs - DAYS * DAY_MS, removedAtMs: null, answeredAtMs: null },
    });
    lanes.push({ id, played });
  }
  const { spans, talks } = talksAt(nowMs);
  const lastMs = Math.floor(nowMs / MINUTE_MS) * MINUTE_MS;
  const minutes: LaneMinute[] = [];
  for (let fromMs = lastMs - MINUTES_HOURS * HOUR_MS; fromMs < lastMs; fromMs += MINUTE_MS)
    for (const { id, played } of lanes) minutes.push(playedMinute(id, played, fromMs, nowMs, talks));
  await store.lanes.addMinutes(minutes);
  for (const [stepMs, leaveMs] of [
    [HOUR_MS, 2 * HOUR_MS],
    [DAY_MS, DAY_MS],
  ] as const) {
    const steps: LaneStep[] = [];
    const beginMs = Math.floor((nowMs - DAYS * DAY_MS) / stepMs) * stepMs;
    for (let fromMs = beginMs; fromMs + stepMs <= nowMs - leaveMs; fromMs += stepMs)
      for (const lane of lanes) steps.push(playedStep(lane, stepMs, fromMs, nowMs));
    await store.lanes.addSums(stepMs, steps);
  }
  await seedOutages(context, { siteId, deviceId }, lanes, nowMs);
  for (const { fromMs, untilMs } of spans)
    await store.lanes.saveMark({
      id: newId(),
      siteId,
      label: 'Cordless intercom talks',
      byName: 'Ines',
      fromMs,
      untilMs,
    });
}

async function seedOutages(
  context: ConsoleContext,
  { siteId, deviceId }: WatchingAgent,
  lanes: readonly Seeded[],
  nowMs: number,
): Promise<void> {
  const { store, newId } = context;
  const outages = SILENCES.map((silence) => {
    const laneIds = lanes
      .filter(({ played }) => fallsSilent(played) && silence.silent.includes(played.role))
      .map(({ id }) => id);
    const fault = silence.silent.includes('gateway') ? 'ours' : silence.silent.includes('outside') ? 'line' : 'theirs';
    return { ...silenceSpan(silence, nowMs), id: newId(), siteId, deviceId, laneIds, fault, air: false } as const;
  });
  const beginMs = nowMs - MINUTES_HOURS * HOUR_MS;
  await store.lanes.replaceOutages(
    deviceId,
    [],
    outages.filter(({ fromMs }) => fromMs < beginMs),
  );
  // Of what single requests show, the program itself says whose fault it was.
  await refreshOutages(context, { deviceId, siteId }, beginMs, nowMs);
}
