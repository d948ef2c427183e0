import { delayWords } from '@/core';
import type { ShownLane } from '@/services';
import { LANE_HEIGHT } from './lane-picture';
import { placeAt } from './live-steps';

type Heard = readonly (readonly [number, number | null])[];
/** A lane with what was heard of it since the page was opened. */
export interface LiveLane extends ShownLane {
  /** What was heard of it since the page was opened. */
  readonly heard: Heard;
}

/** What was heard around a moment: where no minute is in yet. */
function heardAt(heard: Heard, everyMs: number, momentMs: number): string | null {
  const last = heard.findLast(([atMs]) => atMs <= momentMs + everyMs);
  if (last === undefined || momentMs - last[0] > 3 * everyMs) return null;
  return last[1] === null ? 'no answer just now' : delayWords(last[1]);
}

/** What a lane said at a moment, in words. */
export function saidAt({ steps, everyMs, answered, heard }: LiveLane, momentMs: number): string {
  const place = placeAt(steps, everyMs, momentMs);
  if (place === null) return heardAt(heard, everyMs, momentMs) ?? (answered ? 'not watched' : 'no answer yet');
  const { stepMs, medianMs, sent, answered: got } = steps;
  const ms = medianMs[place] ?? null;
  if (ms === null) return 'silent';
  const lost = stepMs > 0 ? sent[place]! - got[place]! : 0;
  return lost > 0 ? `${delayWords(ms)}, ${lost} of ${sent[place]} lost` : delayWords(ms);
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
      <p className={`truncate ${said === 'silent' ? 'font-semibold text-starved' : ''}`}>
        <span className="figure text-[0.85rem]">{said}</span>
      </p>
      <p className="truncate text-xs text-quiet" title={lane.target}>
        {lane.kind === 'echo' ? '' : lane.kind === 'connect' ? 'port ' : ''}
        {lane.target}
        {lane.asked ? '' : ', ended'}
      </p>
    </div>
  );
}
