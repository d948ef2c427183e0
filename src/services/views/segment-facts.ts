import { rateFigure, segmentWords, shareWords, type Diagnosis, type SegmentState, type StrawSegment } from '@/core';
import type { Device } from '@/store';
import { partOf } from './proven-straw';

/** What is known of one part of a site's straw, in sentences; `runId`: the run that proves the most. */
export interface SegmentFacts {
  readonly sentences: readonly string[];
  readonly runId: string | null;
}

const MOST = 4;

function provenWords({ segment, proven, suspicion, deviceIds }: SegmentState): string {
  const { down, up } = proven;
  const name = segmentWords(segment);
  const carried =
    down === null && up === null
      ? `${name}: nothing proven yet`
      : `${name}: proven to carry ${rateFigure(down?.bps ?? null)} down, ${rateFigure(up?.bps ?? null)} up`;
  const most = Math.max(suspicion.down, suspicion.up);
  const suspected = most < 0.05 ? '' : `; held back by it: ${shareWords(most)} likely`;
  const crossed = deviceIds.length === 1 ? 'one device' : `${deviceIds.length} devices`;
  return `${carried}${suspected}; crossed by ${crossed}.`;
}

/** What is proven of a part and by which run, what is suspected, and who crosses it. */
export function segmentFacts(
  diagnosis: Diagnosis | null,
  part: StrawSegment['kind'],
  devices: readonly Device[],
): SegmentFacts {
  const states = (diagnosis?.segments ?? [])
    .filter(({ segment }) => (part === 'tunnel' ? segment.kind === 'tunnel' : partOf(segment) === part))
    // What is suspected comes first, then what carries most.
    .sort(
      (a, b) =>
        Math.max(b.suspicion.down, b.suspicion.up) - Math.max(a.suspicion.down, a.suspicion.up) ||
        (b.proven.down?.bps ?? 0) - (a.proven.down?.bps ?? 0),
    );
  if (states.length === 0)
    return {
      sentences: [devices.length === 0 ? 'No device yet.' : 'No run has crossed it in the last two weeks.'],
      runId: null,
    };
  const proofs = states.flatMap(({ proven }) => proven.down ?? []).sort((a, b) => b.bps - a.bps);
  const more = states.length > MOST ? [`And ${states.length - MOST} more.`] : [];
  return {
    sentences: [...states.slice(0, MOST).map(provenWords), ...more].map(
      (text) => text.charAt(0).toUpperCase() + text.slice(1),
    ),
    runId: proofs[0]?.runId ?? null,
  };
}
