'use client';

import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { delayWords, FAULT_NAMES, rateFigure, type Fault } from '@/core';
import type { ShownLane, ShownMachine, ShownMark, ShownOutage, WatchedSpan } from '@/services';
import { calendarTicks } from '../time/time-axis';
import { LaneCanvas } from './lane-canvas';
import { LANE_HEIGHT, paintLane, paintRuns, topOf, xOf, type Frame } from './lane-picture';
import { placeAt, withBeats } from './live-steps';
import type { Beats } from './use-watch';

const RATES_HEIGHT = 48;
const TICK_WIDTH = 90;
const FAULT_LOOKS: Readonly<Record<Fault, string>> = {
  ours: 'bg-ink text-paper',
  line: 'bg-starved text-paper',
  theirs: 'bg-thin text-ink',
  inside: 'bg-quiet text-paper',
  'line-or-theirs': 'bg-starved text-paper',
  unknown: 'border border-quiet',
};

interface WatchPictureProps {
  readonly data: WatchedSpan;
  readonly machine: ShownMachine;
  readonly beats: Beats;
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

type Heard = readonly (readonly [number, number | null])[];
interface LiveLane extends ShownLane {
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
function saidAt({ steps, everyMs, answered, heard }: LiveLane, momentMs: number): string {
  const place = placeAt(steps, everyMs, momentMs);
  if (place === null) return heardAt(heard, everyMs, momentMs) ?? (answered ? 'not watched' : 'no answer yet');
  const { stepMs, medianMs, sent, answered: got } = steps;
  const ms = medianMs[place] ?? null;
  if (ms === null) return 'silent';
  const lost = stepMs > 0 ? sent[place]! - got[place]! : 0;
  return lost > 0 ? `${delayWords(ms)}, ${lost} of ${sent[place]} lost` : delayWords(ms);
}

const timeFormat = (timeZone: string, fine: boolean) =>
  new Intl.DateTimeFormat('en-GB', {
    ...{ timeZone, weekday: 'short', day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' },
    ...(fine ? { second: '2-digit' } : {}),
  });

function Faults({ outages, frame }: { readonly outages: readonly ShownOutage[]; readonly frame: Frame }) {
  return (
    <div className="relative h-[1.15rem]" aria-hidden>
      {outages.map(({ id, fault, fromMs, untilMs }) => {
        const [from, until] = [
          Math.max(0, xOf(frame, fromMs)),
          Math.min(frame.width, xOf(frame, untilMs ?? frame.untilMs)),
        ];
        if (until < 0 || from > frame.width) return null;
        const width = Math.max(4, until - from);
        return (
          <span
            key={id}
            className={`absolute top-0 h-full overflow-hidden whitespace-nowrap px-0.5 text-[0.7rem] leading-[1.15rem] ${FAULT_LOOKS[fault]}`}
            style={{ left: from, width }}
          >
            {width > 44 ? FAULT_NAMES[fault] : ''}
          </span>
        );
      })}
    </div>
  );
}

function MarkBands({ marks, frame }: { readonly marks: readonly ShownMark[]; readonly frame: Frame }) {
  return marks.map(({ id, label, fromMs, untilMs }) => {
    const [from, until] = [xOf(frame, fromMs), xOf(frame, untilMs ?? frame.untilMs)];
    if (until < 0 || from > frame.width) return null;
    return (
      <span
        key={id}
        title={label}
        className="pointer-events-none absolute inset-y-0 border-x border-dashed border-quiet bg-ink/[0.07]"
        style={{ left: Math.max(0, from), width: Math.max(2, Math.min(frame.width, until) - Math.max(0, from)) }}
      />
    );
  });
}

interface LaneRowProps {
  readonly lane: LiveLane;
  readonly frame: Frame;
  readonly momentMs: number;
}

function LaneLabel({ lane, momentMs }: Pick<LaneRowProps, 'lane' | 'momentMs'>) {
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

function LaneRow({ lane, frame }: Pick<LaneRowProps, 'lane' | 'frame'>) {
  const { steps, everyMs } = lane;
  const paint = useCallback(
    (ctx: CanvasRenderingContext2D, of: Frame, colors: Parameters<typeof paintLane>[4]) =>
      void paintLane(ctx, of, steps, everyMs, colors),
    [steps, everyMs],
  );
  return (
    <div className="relative border-t border-hairline">
      <LaneCanvas {...frame} height={LANE_HEIGHT} paint={paint} />
      <span aria-hidden className="figure absolute left-0.5 top-0.5 bg-paper/80 px-0.5 text-[0.62rem] text-quiet">
        {topOf(steps)} ms
      </span>
    </div>
  );
}

function RatesRow({ runs, frame }: { readonly runs: WatchedSpan['runs']; readonly frame: Frame }) {
  const paint = useCallback(
    (ctx: CanvasRenderingContext2D, of: Frame, colors: Parameters<typeof paintLane>[4]) =>
      void paintRuns(ctx, of, runs, colors),
    [runs],
  );
  const top = Math.max(1, ...runs.flatMap(({ downBps, upBps }) => [downBps ?? 0, upBps ?? 0]));
  return (
    <div className="relative border-t border-hairline">
      <LaneCanvas {...frame} height={RATES_HEIGHT} paint={paint} />
      <span aria-hidden className="figure absolute left-0.5 top-0.5 bg-paper/80 px-0.5 text-[0.62rem] text-quiet">
        {rateFigure(top)} Mb/s
      </span>
    </div>
  );
}

/** The lanes of one machine, one below the other on one axis of time. */
export function WatchPicture(props: WatchPictureProps) {
  const { data, machine, beats, fromMs, untilMs, timeZone, onZoom, onMove } = props;
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
    () => data.runs.filter(({ deviceId }) => deviceId === machine.deviceId),
    [data.runs, machine.deviceId],
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
            <p className="text-xs text-quiet">
              <span className="text-down">down</span> and <span className="text-up">up</span>
            </p>
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
