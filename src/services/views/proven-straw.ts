import {
  rateFigure,
  type DiagnosedKind,
  type Diagnosis,
  type KnownPart,
  type SegmentState,
  type StrawSegment,
} from '@/core';

/** Which part of the picture each segment belongs to. */
const PART_OF: Partial<Record<DiagnosedKind, StrawSegment['kind']>> = {
  device: 'device',
  cable: 'link',
  air: 'link',
  'unknown-link': 'link',
  vpn: 'link',
  hop: 'hop',
  router: 'router',
  line: 'line',
};

export function partOf({
  kind,
  id,
}: {
  readonly kind: DiagnosedKind;
  readonly id: string;
}): StrawSegment['kind'] | null {
  if (kind === 'peer' || kind === 'far-network')
    return id.includes('local') ? null : id.includes('tunnel') ? null : 'far-end';
  return PART_OF[kind] ?? null;
}

const best = (states: readonly SegmentState[], way: 'down' | 'up') =>
  states.reduce<number | null>((most, { proven }) => Math.max(most ?? 0, proven[way]?.bps ?? 0) || null, null);

function kinkWordsOf(diagnosis: Diagnosis, part: StrawSegment['kind'], letBe: ReadonlySet<string>): string | null {
  for (const { facts, segments, key, strength } of diagnosis.findings) {
    if (letBe.has(key) || strength === 'hint' || !segments.some((segment) => partOf(segment) === part)) continue;
    switch (facts.code) {
      case 'queue-too-deep':
        return `+${Math.round(facts.addedMs)} ms ${facts.direction}`;
      case 'cable-came-up-slow':
        return `${facts.negotiatedBps / 1e6} of ${facts.othersBps / 1e6}`;
      case 'segment-holds-back':
        return `${rateFigure(facts.measuredBps)} of ${rateFigure(facts.expectedBps)}`;
      case 'line-below-plan':
      case 'line-below-least':
        return `${rateFigure(facts.measuredBps)} ${facts.direction}`;
      case 'line-slow-in-hours':
        return `${rateFigure(facts.bps)} at times`;
      case 'tunnel-slower-end':
      case 'packets-lost':
      case 'peer-below-plan':
      case 'contradicting-runs':
      case 'swap-told':
        continue;
    }
  }
  return null;
}

/** What each part of a site's straw has been proven to carry, and what was found there. */
export function knownParts(
  diagnosis: Diagnosis,
  letBe: ReadonlySet<string>,
): ReadonlyMap<StrawSegment['kind'], KnownPart> {
  const parts = ['device', 'link', 'hop', 'router', 'line', 'far-end'] as const;
  return new Map(
    parts.map((part) => {
      const states = diagnosis.segments.filter(({ segment }) => partOf(segment) === part);
      return [
        part,
        { downBps: best(states, 'down'), upBps: best(states, 'up'), kinkWords: kinkWordsOf(diagnosis, part, letBe) },
      ];
    }),
  );
}
