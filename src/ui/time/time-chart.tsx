'use client';

import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { TimeSeries } from '@/services';
import type {
  Drawn,
  FromTimeWorker,
  LowerQuantity,
  PaperColors,
  Shown,
  Size,
  TimeSpan,
  ToTimeWorker,
} from './time-messages';

const HEIGHT = 380;
const COLORS = ['ink', 'quiet', 'hairline', 'paper', 'down', 'up', 'delay'] as const;
const HOUR_MS = 3600_000;
const NEAREST = 1 / 1.5;

function colorsNow(): PaperColors {
  const style = getComputedStyle(document.documentElement);
  return Object.fromEntries(
    COLORS.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]),
  ) as unknown as PaperColors;
}

const sizeOf = (element: HTMLElement): Size => ({
  width: Math.max(280, Math.floor(element.clientWidth)),
  height: HEIGHT,
  ratio: window.devicePixelRatio,
});

/** A span with its middle where it was (or at a moment), so many times as long; never shorter than an hour. */
export function zoomed({ fromMs, toMs }: TimeSpan, times: number, aboutMs = (fromMs + toMs) / 2): TimeSpan {
  const length = Math.max(HOUR_MS, (toMs - fromMs) * times);
  const share = (aboutMs - fromMs) / (toMs - fromMs);
  return { fromMs: aboutMs - share * length, toMs: aboutMs + (1 - share) * length };
}

export const moved = ({ fromMs, toMs }: TimeSpan, share: number): TimeSpan => {
  const by = share * (toMs - fromMs);
  return { fromMs: fromMs + by, toMs: toMs + by };
};

/** What the worker found out. */
export interface WorkedOutSeries {
  readonly series: TimeSeries;
  readonly shows: readonly Shown[];
  readonly whole: TimeSpan | null;
}

interface TimeChartProps {
  readonly url: string;
  readonly timeZone: string;
  readonly lower: LowerQuantity;
  /** Null: all of it. */
  readonly span: TimeSpan | null;
  readonly onSpan: (span: TimeSpan | null) => void;
  readonly onWorkedOut: (found: WorkedOutSeries) => void;
  readonly onFailed: (sentence: string) => void;
  /** Index of the occasion that is read; null: none. */
  readonly at: number | null;
  readonly onAt: (place: number | null) => void;
  readonly label: string;
  readonly valueText: string;
}

/** Index of the occasion nearest to a moment. `starts`: in order. */
function nearest(starts: readonly number[], atMs: number): number | null {
  let [low, high] = [0, starts.length - 1];
  if (high < 0) return null;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (starts[middle]! < atMs) low = middle + 1;
    else high = middle;
  }
  return low > 0 && atMs - starts[low - 1]! < starts[low]! - atMs ? low - 1 : low;
}

/** The picture over time, drawn in a worker; read along, moved and brought nearer by pointer and by keys. */
export function TimeChart(props: TimeChartProps) {
  const { url, timeZone, lower, span, onSpan, onWorkedOut, onFailed, at, onAt, label, valueText } = props;
  const box = useRef<HTMLDivElement>(null);
  const worker = useRef<Worker | null>(null);
  const told = useRef({ onWorkedOut, onFailed, lower, span });
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  const [starts, setStarts] = useState<readonly number[]>([]);
  const [canDraw, setCanDraw] = useState(true);
  const drag = useRef<{ readonly x: number; readonly span: TimeSpan } | null>(null);
  useEffect(() => {
    told.current = { onWorkedOut, onFailed, lower, span };
  });
  const tell = (message: ToTimeWorker) => worker.current?.postMessage(message);

  useEffect(() => {
    const holder = box.current!;
    const canvas = document.createElement('canvas');
    canvas.className = 'block w-full print:!h-auto';
    canvas.style.height = `${HEIGHT}px`;
    holder.replaceChildren(canvas);
    const drawing = new Worker(new URL('./time-worker.ts', import.meta.url), { type: 'module' });
    worker.current = drawing;
    const offscreen = 'transferControlToOffscreen' in canvas ? canvas.transferControlToOffscreen() : null;
    drawing.addEventListener('message', ({ data }: MessageEvent<FromTimeWorker>) => {
      if (data.kind === 'failed') told.current.onFailed(data.sentence);
      else if (data.kind === 'drawn') setDrawn(data.drawn);
      else {
        setCanDraw(offscreen !== null);
        setStarts(data.series.occasions.startedAtMs);
        told.current.onWorkedOut(data);
      }
    });
    drawing.addEventListener('error', () =>
      told.current.onFailed('The picture could not be drawn. Load this page again; the runs are in the ledger.'),
    );
    const { lower: first, span: firstSpan } = told.current;
    const opened: ToTimeWorker = {
      ...{ kind: 'open', canvas: offscreen, url: new URL(url, location.href).href, timeZone },
      ...{ colors: colorsNow(), size: sizeOf(holder), lower: first, span: firstSpan },
    };
    drawing.postMessage(opened, offscreen === null ? [] : [offscreen]);
    const resized = new ResizeObserver(() =>
      drawing.postMessage({ kind: 'size', size: sizeOf(holder) } satisfies ToTimeWorker),
    );
    resized.observe(holder);
    const repaint = () => drawing.postMessage({ kind: 'colors', colors: colorsNow() } satisfies ToTimeWorker);
    const dark = matchMedia('(prefers-color-scheme: dark)');
    dark.addEventListener('change', repaint);
    const themed = new MutationObserver(repaint);
    themed.observe(document.documentElement, { attributeFilter: ['data-theme'] });
    return () => {
      resized.disconnect();
      themed.disconnect();
      dark.removeEventListener('change', repaint);
      drawing.terminate();
      worker.current = null;
    };
  }, [url, timeZone]);
  useEffect(() => tell({ kind: 'lower', lower }), [lower]);
  useEffect(() => tell({ kind: 'span', span }), [span]);

  const shown = drawn?.span ?? null;
  const momentAt = (x: number) =>
    shown === null
      ? 0
      : shown.fromMs + ((x - drawn!.left) / (drawn!.right - drawn!.left)) * (shown.toMs - shown.fromMs);
  const xAt = (atMs: number) =>
    drawn!.left + ((atMs - shown!.fromMs) / (shown!.toMs - shown!.fromMs)) * (drawn!.right - drawn!.left);
  const xOf = (event: { readonly clientX: number }) => event.clientX - box.current!.getBoundingClientRect().left;

  const onPointerMove = (event: PointerEvent) => {
    if (shown === null) return;
    if (drag.current !== null) {
      const share = (drag.current.x - xOf(event)) / (drawn!.right - drawn!.left);
      return onSpan(moved(drag.current.span, share));
    }
    onAt(nearest(starts, momentAt(xOf(event))));
  };
  const step = (by: number) => {
    const from = at ?? (by > 0 ? -1 : starts.length);
    const next = Math.min(starts.length - 1, Math.max(0, from + by));
    onAt(next);
    const atMs = starts[next];
    // What is read is in sight.
    if (atMs !== undefined && shown !== null && (atMs < shown.fromMs || atMs > shown.toMs))
      onSpan(moved(shown, (atMs - (shown.fromMs + shown.toMs) / 2) / (shown.toMs - shown.fromMs)));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || shown === null) return;
    const keys: Record<string, () => void> = {
      ArrowLeft: () => step(event.shiftKey ? -10 : -1),
      ArrowRight: () => step(event.shiftKey ? 10 : 1),
      Home: () => step(-starts.length),
      End: () => step(starts.length),
      '+': () => onSpan(zoomed(shown, NEAREST)),
      '-': () => onSpan(zoomed(shown, 1 / NEAREST)),
      PageUp: () => onSpan(moved(shown, -0.5)),
      PageDown: () => onSpan(moved(shown, 0.5)),
      '0': () => onSpan(null),
    };
    const does = keys[event.key];
    if (does === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    does();
  };
  // React listens to the wheel passively; two fingers, or Ctrl with the wheel, bring nearer and are kept from the page.
  useEffect(() => {
    const holder = box.current!;
    const onWheel = (event: WheelEvent) => {
      if (!event.ctrlKey || shown === null) return;
      event.preventDefault();
      onSpan(zoomed(shown, Math.exp(event.deltaY / 200), momentAt(xOf(event))));
    };
    holder.addEventListener('wheel', onWheel, { passive: false });
    return () => holder.removeEventListener('wheel', onWheel);
  });

  const readAt = at === null ? undefined : starts[at];
  const isInSight = readAt !== undefined && shown !== null && readAt >= shown.fromMs && readAt <= shown.toMs;
  return (
    <div className="relative">
      {!canDraw && (
        <p className="text-quiet">This browser cannot draw the picture. The tables below hold the same figures.</p>
      )}
      <div
        ref={box}
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={0}
        aria-valuemax={Math.max(0, starts.length - 1)}
        aria-valuenow={at ?? 0}
        aria-valuetext={valueText}
        data-drawn={drawn !== null}
        className={`touch-pan-y print:!min-h-0 ${canDraw ? '' : 'hidden'}`}
        style={{ minHeight: HEIGHT }}
        onKeyDown={onKeyDown}
        onPointerMove={onPointerMove}
        onPointerDown={(event) => {
          if (shown === null || event.button !== 0) return;
          drag.current = { x: xOf(event), span: shown };
          event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onPointerUp={() => (drag.current = null)}
        onPointerCancel={() => (drag.current = null)}
        onDoubleClick={(event) => shown !== null && onSpan(zoomed(shown, 0.5, momentAt(xOf(event))))}
      />
      {isInSight && (
        <i
          aria-hidden="true"
          className="pointer-events-none absolute w-px bg-ink"
          style={{ left: xAt(readAt), top: drawn!.top, height: drawn!.bottom - drawn!.top }}
        />
      )}
    </div>
  );
}
