import { IGD_TARGET, laneValueWords, lossWords, type LaneKind } from '@/core';
import type { ShownLane } from '@/services';
import { LANE_HEIGHT } from './lane-picture';
import { placeAt } from './live-steps';

/** How it is asked, where the target does not say it. */
const BY: Readonly<Record<LaneKind, string>> = {
  echo: '',
  stamp: 'STAMP ',
  connect: 'port ',
  web: '',
  'load-in': '',
  'load-out': '',
  probe: '',
  signal: 'its radio ',
  'link-rate': 'its radio ',
  retries: 'its radio ',
};

/** Whom a lane asks, and how, in few words. */
export function targetWords({ kind, target }: Pick<ShownLane, 'kind' | 'target'>): string {
  if (kind === 'probe') return 'from its page';
  return target === IGD_TARGET ? 'as the router counts' : `${BY[kind]}${target}`;
}

type Heard = readonly (readonly [number, number | null])[];
/** A lane with what was heard of it since the page was opened. */
export interface LiveLane extends ShownLane {
  /** What was heard of it since the page was opened. */
  readonly heard: Heard;
}

/** What was heard around a moment: where no minute is in yet. */
function heardAt(
  { heard, everyMs, kind }: Pick<LiveLane, 'heard' | 'everyMs' | 'kind'>,
  momentMs: number,
): string | null {
  const last = heard.findLast(([atMs]) => atMs <= momentMs + everyMs);
  if (last === undefined || momentMs - last[0] > 3 * everyMs) return null;
  return last[1] === null ? 'no answer just now' : laneValueWords(kind, last[1]);
}

/** What a lane said at a moment, in words. */
export function saidAt(lane: LiveLane, momentMs: number): string {
  const { steps, everyMs, answered, kind } = lane;
  const place = placeAt(steps, everyMs, momentMs);
  if (place === null) return heardAt(lane, momentMs) ?? (answered ? 'not watched' : 'no answer yet');
  const { stepMs, medianMs, sent, answered: got } = steps;
  const ms = medianMs[place] ?? null;
  if (ms === null) return 'silent';
  const lost = stepMs > 0 ? sent[place]! - got[place]! : 0;
  if (lost === 0) return laneValueWords(kind, ms);
  const ways = { lostThere: steps.lostThere?.[place] ?? 0, lostBack: steps.lostBack?.[place] ?? 0 };
  return `${laneValueWords(kind, ms)}, ${lossWords(lost, sent[place]!, ways)}`;
}

interface LaneLabelProps {
  readonly lane: LiveLane;
  readonly momentMs: number;
}

/** A lane in words: what it is, and what it said at a moment. */
export function LaneLabel({ lane, momentMs }: LaneLabelProps) {
  const said = saidAt(lane, momentMs);
  return (
    <div className="min-w-0 pr-3 md:pt-1" style={{ minHeight: LANE_HEIGHT }}>
      <p className="truncate font-medium" title={lane.name}>
        {lane.name}
      </p>
      <p title={said} className={`truncate ${said === 'silent' ? 'font-semibold text-starved' : ''}`}>
        <span className="figure text-[0.85rem]">{said}</span>
      </p>
      <p className="truncate text-xs text-quiet" title={targetWords(lane)}>
        {targetWords(lane)}
        {lane.asked ? '' : ', ended'}
      </p>
    </div>
  );
}
