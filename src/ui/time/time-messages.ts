import type { OverTime, SideQuantity } from '@/core';
import type { TimeSeries } from '@/services';

/** Colours of the paper, as the page has them now. */
export interface PaperColors {
  readonly ink: string;
  readonly quiet: string;
  readonly hairline: string;
  readonly paper: string;
  readonly down: string;
  readonly up: string;
  readonly delay: string;
}

/** Delays and loss: one of them at a time is drawn below the rates. */
export const LOWER_QUANTITIES = ['addedUp', 'addedDown', 'idle', 'jitter', 'loss'] as const;
export type LowerQuantity = (typeof LOWER_QUANTITIES)[number];

export interface Size {
  readonly width: number;
  readonly height: number;
  /** Device pixels for each of the page's. */
  readonly ratio: number;
}

/** From when to when is shown, ms UTC. */
export interface TimeSpan {
  readonly fromMs: number;
  readonly toMs: number;
}

/** What the page tells the worker. */
export type ToTimeWorker =
  | {
      readonly kind: 'open';
      /** Null where the browser lets no worker draw: then only the figures are worked out. */
      readonly canvas: OffscreenCanvas | null;
      /** Where the series is read. */
      readonly url: string;
      readonly timeZone: string;
      readonly colors: PaperColors;
      readonly size: Size;
      readonly lower: LowerQuantity;
      readonly span: TimeSpan | null;
    }
  | { readonly kind: 'span'; readonly span: TimeSpan | null }
  | { readonly kind: 'size'; readonly size: Size }
  | { readonly kind: 'colors'; readonly colors: PaperColors }
  | { readonly kind: 'lower'; readonly lower: LowerQuantity };

/** What time shows of each quantity, and the last value of it. */
export type Shown = Omit<OverTime, 'bands'> & {
  readonly lastBand: OverTime['bands'][number];
  readonly last: number | null;
};

/** Where the drawing lies in the picture, and what it shows: the page lays its reader over it. */
export interface Drawn {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  readonly span: TimeSpan;
}

/** What the worker tells the page. */
export type FromTimeWorker =
  | {
      readonly kind: 'worked-out';
      readonly series: TimeSeries;
      readonly shows: readonly Shown[];
      readonly whole: TimeSpan | null;
    }
  | { readonly kind: 'drawn'; readonly drawn: Drawn }
  | { readonly kind: 'failed'; readonly sentence: string };

export const DRAWN_RATES = ['down', 'up'] as const satisfies readonly SideQuantity[];
