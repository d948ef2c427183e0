import {
  addedDelayWords,
  delayWords,
  linkKindWords,
  rateBloat,
  rangeFigure,
  rateFigure,
  UNFINISHED_REASONS,
  type BloatRating,
  type LinkKind,
  type Reach,
  type VerdictWord,
} from '@/core';
import type { Ledger } from '@/services';
import { wallTimeWords } from '../parts/wall-time';
import { sketchDrawing, type SketchDrawing } from '../strip/sketch-drawing';

type Run = Ledger['runs'][number];

/** A run as a row of the ledger shows it. It goes to the browser: it holds no more than is seen. */
export interface DrawnRun {
  readonly id: string;
  /** In the office's time zone. */
  readonly when: string;
  readonly device: string;
  readonly spot: string;
  readonly link: string;
  readonly reach: Reach;
  readonly peer: string;
  readonly profile: string;
  readonly tags: readonly string[];
  readonly notes: string;
  /** Why it does not count, or counts only in part; null: it counts. */
  readonly aside: string | null;
  readonly strip: SketchDrawing | null;
  /** For the picture of those that are chosen. Bits per second, ms; null: not measured. */
  readonly figures: {
    readonly atMs: number;
    readonly down: number | null;
    readonly up: number | null;
    readonly added: number | null;
  };
  readonly outcome:
    | {
        readonly status: 'finished';
        /** Figures in Mb/s. */
        readonly down: string;
        readonly up: string;
        readonly idle: string;
        readonly added: string;
        readonly rating: BloatRating | null;
        readonly verdict: VerdictWord;
      }
    | { readonly status: 'other'; readonly words: string };
}

function outcomeOf(run: Run): DrawnRun['outcome'] {
  if (run.status === 'running') return { status: 'other', words: 'is measuring now' };
  if (run.status !== 'finished' && run.status !== 'imported')
    return { status: 'other', words: `unfinished · ${UNFINISHED_REASONS[run.reason ?? 'device-vanished'].what}` };
  return {
    status: 'finished',
    down: run.ranges?.down ? rangeFigure(run.ranges.down) : rateFigure(run.downBps),
    up: run.ranges?.up ? rangeFigure(run.ranges.up) : rateFigure(run.upBps),
    idle: delayWords(run.idleMs),
    added: run.addedMs === null ? '–' : addedDelayWords(run.addedMs),
    rating: rateBloat(run.addedMs),
    verdict: run.verdict ?? 'no verdict',
  };
}

function asideOf({ evidence, leftOut }: Run): string | null {
  if (evidence === 'left-out') return `left out: ${leftOut ?? ''}`;
  if (evidence === 'imported') return 'from a file';
  return evidence === 'together' ? 'together' : null;
}

/** `timeZone`: of the office; null: this machine's. */
export function drawnRun(run: Run, timeZone: string | null, nowMs: number): DrawnRun {
  return {
    id: run.id,
    when: wallTimeWords(run.startedAtMs, { timeZone, nowMs }),
    device: run.deviceName,
    spot: run.spotName ?? '–',
    link: linkKindWords(run.linkKind as LinkKind),
    reach: run.reach,
    peer: run.peerName,
    profile: run.profile === 'unknown' ? '–' : run.profile,
    tags: run.tags,
    notes: run.notes,
    aside: asideOf(run),
    strip: run.sketch && sketchDrawing(run.sketch),
    outcome: outcomeOf(run),
    figures: { atMs: run.startedAtMs, down: run.downBps, up: run.upBps, added: run.addedMs },
  };
}
