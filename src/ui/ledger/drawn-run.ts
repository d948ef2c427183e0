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
  type VerdictWord,
} from '@/core';
import type { Ledger } from '@/services';
import { wallTimeWords } from '../parts/wall-time';
import { sketchDrawing, type SketchDrawing } from '../strip/sketch-drawing';

type Run = Ledger['runs'][number];

/** A run as a row of the ledger shows it. It goes to the browser: it holds no more than is seen. */
export interface DrawnRun {
  readonly id: string;
  /** In the console's own time zone. */
  readonly when: string;
  readonly device: string;
  readonly place: string;
  readonly strip: SketchDrawing | null;
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
  if (run.status === 'unfinished')
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

export function drawnRun(run: Run): DrawnRun {
  return {
    id: run.id,
    when: wallTimeWords(run.startedAtMs),
    device: run.deviceName,
    place: `${linkKindWords(run.linkKind as LinkKind)} · ${run.reach}${run.evidence === 'together' ? ' · together' : ''}`,
    strip: run.sketch && sketchDrawing(run.sketch),
    outcome: outcomeOf(run),
  };
}
