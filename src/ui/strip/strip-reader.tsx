'use client';

import { useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { delayWords, rateWords, type Phase, type RateBins, type StripData } from '@/core';
import { scaleStrip, type StripYardsticks } from './strip-scale';

interface StripReaderProps {
  readonly data: StripData;
  readonly yardsticks: StripYardsticks;
  readonly width: number;
  readonly height: number;
  /** The strip itself, drawn by the server. */
  readonly children: ReactNode;
}

const STEP_MS = 100;
const NEAR_MS = 150;

const PHASE_WORDS: Record<Phase, string> = {
  idle: 'idle',
  download: 'download',
  settle: 'settling',
  upload: 'upload',
  both: 'both at once',
  paced: 'paced UDP',
};

function rateAt(bins: RateBins | null, atMs: number): number | null {
  const index = bins?.atMs.findIndex((start) => atMs >= start && atMs < start + bins.binMs) ?? -1;
  return index < 0 ? null : bins!.bps[index]!;
}

/** The probe that was sent nearest to a time; null when none was near. */
function delayAt({ probes }: StripData, atMs: number): number | null {
  let nearest = -1;
  probes.atMs.forEach((at, index) => {
    if (nearest < 0 || Math.abs(at - atMs) < Math.abs(probes.atMs[nearest]! - atMs)) nearest = index;
  });
  return nearest >= 0 && Math.abs(probes.atMs[nearest]! - atMs) <= NEAR_MS ? probes.rttMs[nearest]! : null;
}

function wordsAt(data: StripData, atMs: number): string {
  const phase = data.phases.findLast((span) => span.fromMs <= atMs)?.phase;
  const [down, up] = [rateAt(data.down, atMs), rateAt(data.up, atMs)];
  const kept = data.discarded.some(({ fromMs, toMs }) => atMs >= fromMs && atMs < toMs);
  return [
    `${(atMs / 1000).toFixed(1)} s`,
    phase === undefined ? null : PHASE_WORDS[phase],
    down === null ? null : `${rateWords(down)} down`,
    up === null ? null : `${rateWords(up)} up`,
    `delay ${delayWords(delayAt(data, atMs))}`,
    kept ? 'not counted' : null,
  ]
    .filter((words) => words !== null)
    .join(' · ');
}

/** Exact values of a strip under the pointer, and by the arrow keys: 100 ms a step, a second with Shift. */
export function StripReader({ data, yardsticks, width, height, children }: StripReaderProps) {
  const [atMs, setAtMs] = useState<number | null>(null);
  const scale = scaleStrip(data, yardsticks, width, height);
  const perMs = scale.x(1000) / 1000;
  const within = (ms: number) => Math.min(data.durationMs, Math.max(0, ms));

  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    setAtMs(within((((event.clientX - box.left) / box.width) * width) / perMs));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.shiftKey ? 10 * STEP_MS : STEP_MS;
    const next = {
      ArrowRight: (atMs ?? 0) + step,
      ArrowLeft: (atMs ?? 0) - step,
      Home: 0,
      End: data.durationMs,
    }[event.key];
    if (next === undefined) return;
    event.preventDefault();
    setAtMs(within(next));
  };
  const shown = atMs === null ? 'Point at the strip, or walk along it with the arrow keys.' : wordsAt(data, atMs);
  return (
    <div>
      <div
        className="relative border border-hairline"
        role="slider"
        tabIndex={0}
        aria-label="Time on the strip"
        aria-valuemin={0}
        aria-valuemax={Math.round(data.durationMs)}
        aria-valuenow={Math.round(atMs ?? 0)}
        aria-valuetext={shown}
        onPointerMove={onPointerMove}
        onPointerLeave={() => setAtMs(null)}
        onKeyDown={onKeyDown}
      >
        {children}
        {atMs !== null && (
          <span
            aria-hidden="true"
            className="pointer-events-none absolute inset-y-0 w-px bg-ink"
            style={{ left: `${((atMs * perMs) / width) * 100}%` }}
          />
        )}
      </div>
      <p className="figure mt-1 min-h-6 text-[0.8rem] text-quiet print:hidden">{shown}</p>
    </div>
  );
}
