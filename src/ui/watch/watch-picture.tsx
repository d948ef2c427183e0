'use client';

import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { rateFigure, rateWords } from '@/core';
import type { ShownMachine, ShownRun, WatchedSpan } from '@/services';
import { calendarTicks } from '../time/time-axis';
import { LaneCanvas } from './lane-canvas';
import { paintRuns, topOfRuns } from './run-picture';
import { LaneLabel, saidAt, type LiveLane } from './lane-label';
import { LANE_HEIGHT, paintLane, topWords, xOf, type Frame, type LaneColors } from './lane-picture';
import { withBeats } from './live-steps';
import { rateAt, withLive, type LiveRuns } from './live-runs';
import { Faults, MarkBands } from './watch-bands';
import type { Beats } from './use-watch';

const RATES_HEIGHT = 48;
const TICK_WIDTH = 90;

interface WatchPictureProps {
  readonly data: WatchedSpan;
  readonly machine: ShownMachine;
  readonly beats: Beats;
  readonly live: LiveRuns;
  readonly fromMs: number;
  readonly untilMs: number;
  readonly timeZone: string;
  readonly onZoom: (times: number, share: number) => void;
  readonly onMove: (share: number) => void;
}

function useWidth() {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const element = ref.current;
    if (element === null) return;
    const observer = new ResizeObserver(() => setWidth(Math.floor(element.clientWidth)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { ref, width };
}

const timeFormat = (timeZone: string, fine: boolean) =>
  new Intl.DateTimeFormat('en-GB', {
    ...{ timeZone, weekday: 'short', day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' },
    ...(fine ? { second: '2-digit' } : {}),
  });

function LaneRow({ lane, frame }: { readonly lane: LiveLane; readonly frame: Frame }) {
  const { steps, everyMs, kind } = lane;
  const paint = useCallback(
    (ctx: CanvasRenderingContext2D, of: Frame, colors: LaneColors) =>
      void paintLane(ctx, of, { steps, everyMs, kind }, colors),
    [steps, everyMs, kind],
  );
  return (
    <div className="relative border-t border-hairline">
      <LaneCanvas {...frame} height={LANE_HEIGHT} paint={paint} />
      <span aria-hidden className="figure absolute left-0.5 top-0.5 bg-paper/80 px-0.5 text-[0.62rem] text-quiet">
        {topWords(lane)}
      </span>
    </div>
  );
}

function RatesRow({ runs, frame }: { readonly runs: readonly ShownRun[]; readonly frame: Frame }) {
  const paint = useCallback(
    (ctx: CanvasRenderingContext2D, of: Frame, colors: LaneColors) => paintRuns(ctx, of, runs, colors),
    [runs],
  );
  const top = topOfRuns(runs);
  return (
    <div className="relative border-t border-hairline">
      <LaneCanvas {...frame} height={RATES_HEIGHT} paint={paint} />
      <span aria-hidden className="figure absolute left-0.5 top-0.5 bg-paper/80 px-0.5 text-[0.62rem] text-quiet">
        {rateFigure(top)} Mb/s
      </span>
    </div>
  );
}

/** What runs moved at a moment; else which colour is which. */
function RatesSaid({ moved }: { readonly moved: ReturnType<typeof rateAt> }) {
  if (moved === null)
    return (
      <p className="text-xs text-quiet">
        <span className="text-down">down</span> and <span className="text-up-words">up</span>
      </p>
    );
  const { downBps, upBps } = moved;
  return (
    <p className="figure truncate text-[0.85rem]">
      {downBps !== null && <span className="text-down">{rateWords(downBps)} down</span>}
      {downBps !== null && upBps !== null && ', '}
      {upBps !== null && <span className="text-up-words">{rateWords(upBps)} up</span>}
    </p>
  );
}

/** The lanes of one machine, one below the other on one axis of time. */
export function WatchPicture(props: WatchPictureProps) {
  const { data, machine, beats, live, fromMs, untilMs, timeZone, onZoom, onMove } = props;
  const { ref, width } = useWidth();
  const [pointed, setPointed] = useState<number | null>(null);
  const drag = useRef<number | null>(null);
  const frame: Frame = { width, height: LANE_HEIGHT, fromMs, untilMs };
  const lanes = useMemo(
    () =>
      machine.lanes.map((lane): LiveLane => {
        const heard = beats.get(lane.id) ?? [];
        return { ...lane, heard, steps: withBeats(lane.steps, heard) };
      }),
    [machine, beats],
  );
  const runs = useMemo(
    () => withLive(data.runs, live).filter(({ deviceId }) => deviceId === machine.deviceId),
    [data.runs, live, machine.deviceId],
  );
  const outages = data.outages.filter(({ deviceId }) => deviceId === machine.deviceId);
  // Without a pointer the newest is told: what was sent just now may still be on its way.
  const momentMs = pointed === null ? untilMs - 1500 : fromMs + pointed * (untilMs - fromMs);
  const shareAt = ({ clientX, currentTarget }: PointerEvent) => {
    const { left, width: of } = currentTarget.getBoundingClientRect();
    return Math.min(1, Math.max(0, (clientX - left) / of));
  };
  const onKey = (event: KeyboardEvent) => {
    const act: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => onMove(-0.25),
      ArrowRight: () => onMove(0.25),
      '+': () => onZoom(0.5, 1),
      '-': () => onZoom(2, 1),
      End: () => onMove(1e9),
    };
    if (act[event.key] === undefined) return;
    event.preventDefault();
    act[event.key]!();
  };
  const ticks =
    width === 0 ? [] : calendarTicks(fromMs, untilMs, timeZone, Math.max(2, Math.floor(width / TICK_WIDTH)));
  return (
    <div className="grid grid-cols-[8.5rem_1fr] md:grid-cols-[15rem_1fr]">
      <div>
        <p className="h-[1.15rem] truncate pr-2 text-xs leading-[1.15rem] text-quiet">
          {timeFormat(timeZone, untilMs - fromMs < 24 * 3600_000).format(momentMs)}
        </p>
        {lanes.map((lane) => (
          <div key={lane.id} className="border-t border-hairline">
            <LaneLabel lane={lane} momentMs={momentMs} />
          </div>
        ))}
        {runs.length > 0 && (
          <div className="border-t border-hairline pr-3" style={{ minHeight: RATES_HEIGHT }}>
            <p className="font-medium">Runs</p>
            <RatesSaid moved={rateAt(runs, momentMs)} />
          </div>
        )}
      </div>
      <div
        ref={ref}
        tabIndex={0}
        role="slider"
        aria-label={`Lanes of ${machine.name}`}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(100 * (pointed ?? 1))}
        aria-valuetext={lanes.map((lane) => `${lane.name}: ${saidAt(lane, momentMs)}`).join('; ')}
        aria-describedby="watch-keys"
        onKeyDown={onKey}
        onPointerMove={(event) => {
          const share = shareAt(event);
          setPointed(share);
          if (drag.current === null || event.buttons === 0) return;
          const by = drag.current - share;
          if (Math.abs(by) < 0.02) return;
          drag.current = share;
          onMove(by);
        }}
        onPointerDown={(event) => (drag.current = shareAt(event))}
        onPointerUp={() => (drag.current = null)}
        onPointerLeave={() => {
          setPointed(null);
          drag.current = null;
        }}
        onDoubleClick={(event) => {
          const { left, width: of } = event.currentTarget.getBoundingClientRect();
          onZoom(0.4, (event.clientX - left) / of);
        }}
        className="relative min-w-0 cursor-crosshair touch-pan-y select-none overflow-hidden"
      >
        {width > 0 && (
          <>
            <Faults outages={outages} frame={frame} />
            <MarkBands marks={data.marks} frame={frame} />
            {lanes.map((lane) => (
              <LaneRow key={lane.id} lane={lane} frame={frame} />
            ))}
            {runs.length > 0 && <RatesRow runs={runs} frame={frame} />}
            <div className="figure relative h-5 border-t-[1.5px] border-ink text-[0.68rem] text-quiet" aria-hidden>
              {ticks.map(({ atMs, label }) => (
                <span
                  key={atMs}
                  className="absolute top-0.5 whitespace-nowrap border-l border-quiet pl-1"
                  style={{ left: xOf(frame, atMs) }}
                >
                  {label}
                </span>
              ))}
            </div>
            {pointed !== null && (
              <span
                aria-hidden
                className="pointer-events-none absolute inset-y-0 w-px bg-ink"
                style={{ left: pointed * width }}
              />
            )}
          </>
        )}
      </div>
    </div>
  );
}
