'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { ChangedThing, WatchedSpan } from '@/services';
import { withRates, type LiveRun, type LiveRuns } from './live-runs';
import { endOf, type WatchSpan } from './watch-span';

/** Up to this length every request is shown, and what is heard just now is added. */
export const LIVE_UP_TO_MS = 25 * 60_000;
const TICK_MS = 1000;
const AGAIN_MS = 30_000;
/** A clock that lags a little leaves out nothing of what has just begun. */
const AHEAD_MS = 10_000;

/** What was heard since the page was read, by lane. */
export type Beats = ReadonlyMap<string, readonly (readonly [number, number | null])[]>;

export interface Watched {
  readonly data: WatchedSpan | null;
  readonly beats: Beats;
  /** Runs that are heard of since the page was read. */
  readonly live: LiveRuns;
  readonly nowMs: number;
  /** Why nothing new comes; null: it does. */
  readonly trouble: string | null;
  readonly reload: () => void;
}

/** The lanes of an office over a span, read anew when something of them changed, and live where the span goes on with now. */
export function useWatch(siteId: string, span: WatchSpan, serverNowMs: number): Watched {
  const [data, setData] = useState<WatchedSpan | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [nowMs, setNowMs] = useState(serverNowMs);
  const [beats, setBeats] = useState<Beats>(new Map());
  const [liveRuns, setLiveRuns] = useState<LiveRuns>(new Map());
  const [again, setAgain] = useState(0);
  // The picture goes by the console's clock, whatever the browser's says.
  const offset = useRef<number | null>(null);
  const clock = useCallback(() => {
    offset.current ??= serverNowMs - Date.now();
    return Date.now() + offset.current;
  }, [serverNowMs]);
  const reload = useCallback(() => setAgain((count) => count + 1), []);
  const isLive = span.untilMs === null;

  useEffect(() => {
    const stop = new AbortController();
    const untilMs = endOf(span, clock());
    const [from, until] = [untilMs - span.lengthMs, untilMs + (span.untilMs === null ? AHEAD_MS : 0)];
    const query = `from=${new Date(from).toISOString()}&until=${new Date(until).toISOString()}`;
    fetch(`/api/v1/sites/${siteId}/watch?${query}`, { signal: stop.signal })
      .then(async (answer) => {
        if (!answer.ok) throw new Error(((await answer.json()) as { detail?: string }).detail ?? 'It was refused.');
        setData((await answer.json()) as WatchedSpan);
        setTrouble(null);
      })
      .catch((error: unknown) => {
        if (stop.signal.aborted) return;
        const said = error instanceof Error && error.name !== 'TypeError' ? error.message : '';
        setTrouble(said === '' ? 'The console does not answer. What is shown is what was known.' : said);
      });
    return () => stop.abort();
  }, [siteId, span, again, clock]);

  useEffect(() => {
    if (!isLive) return;
    const timer = setInterval(() => setNowMs(clock()), TICK_MS);
    const slow = setInterval(reload, AGAIN_MS);
    const changes = new EventSource('/api/v1/changes');
    changes.addEventListener('changed', ({ data: text }: MessageEvent<string>) => {
      const { what } = JSON.parse(text) as { readonly what: readonly ChangedThing[] };
      // Whoever comes or goes can be asked from now on, or no more.
      if (what.includes('lanes') || what.includes('presence')) reload();
    });
    changes.addEventListener('open', reload);
    const live = new EventSource(`/api/v1/sites/${siteId}/beats`);
    live.addEventListener('beats', ({ data: text }: MessageEvent<string>) => {
      const { beats: heard } = JSON.parse(text) as { readonly beats: readonly [string, number, number | null][] };
      setBeats((before) => added(before, heard, clock() - LIVE_UP_TO_MS));
    });
    const begun = new Set<string>();
    live.addEventListener('rates', ({ data: text }: MessageEvent<string>) => {
      const heard = JSON.parse(text) as LiveRun;
      setLiveRuns((before) => withRates(before, heard));
      // Of a device that keeps no lanes nothing was to be shown before.
      if (!begun.has(heard.runId)) reload();
      begun.add(heard.runId);
    });
    return () => {
      clearInterval(timer);
      clearInterval(slow);
      changes.close();
      live.close();
    };
  }, [siteId, isLive, reload, clock]);

  return { data, beats, live: liveRuns, nowMs, trouble, reload };
}

/** A request that was answered late takes the place of itself without an answer. */
const SAME_MS = 400;

function added(before: Beats, heard: readonly (readonly [string, number, number | null])[], sinceMs: number): Beats {
  const next = new Map(before);
  for (const [laneId, atMs, ms] of heard) {
    const of = (next.get(laneId) ?? []).filter(
      ([at, was]) => at >= sinceMs && !(was === null && Math.abs(at - atMs) < SAME_MS),
    );
    next.set(
      laneId,
      [...of, [atMs, ms] as const].sort(([a], [b]) => a - b),
    );
  }
  return next;
}
