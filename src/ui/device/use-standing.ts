'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { Post } from '@/session';
import type { StandingAnswer, StandingOrder } from '@/wire';
import { STANDING_PATH } from '@/wire/console/device';
import type { LanesWanted, PageLanes } from './page-lanes';

export type AskedToRun = Extract<StandingOrder, { kind: 'asked' }>;

/** How a page stands by: not at all, trying to reach the console, or heard by it. */
export type Standing =
  | { readonly status: 'off' }
  | { readonly status: 'reaching' }
  | { readonly status: 'standing' }
  | { readonly status: 'elsewhere' };

const BACK_AFTER_MS = 2000;

/**
 * Lets this device stand by while `wanted`: the console sees it and can ask it to run. `onAsked` hears of a run that
 * begins when its notice is over and nobody refused. Keeps the screen awake where the browser allows it.
 */
export function useStanding(wanted: boolean, post: Post, onAsked: (order: AskedToRun) => void) {
  const [standing, setStanding] = useState<Standing>({ status: 'off' });
  const [asked, setAsked] = useState<AskedToRun | null>(null);
  /** What it does for the picture of delays meanwhile, in words. */
  const [watching, setWatching] = useState<string | null>(null);
  const socket = useRef<WebSocket | null>(null);
  /** Fetched when a page is asked to keep lanes, which most never are. */
  const lanes = useRef<Promise<PageLanes> | null>(null);
  const begin = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const answer = useRef(onAsked);
  useEffect(() => {
    answer.current = onAsked;
  }, [onAsked]);

  useEffect(() => {
    if (!wanted) return;
    let over = false;
    let again: ReturnType<typeof setTimeout> | undefined;
    const forget = () => {
      clearTimeout(begin.current);
      setAsked(null);
    };
    const say = (answer: StandingAnswer) => {
      if (socket.current?.readyState === WebSocket.OPEN) socket.current.send(JSON.stringify(answer));
    };
    const rest = () =>
      void lanes.current?.then(
        (kept) => kept.rest(),
        () => undefined,
      );
    const keepLanes = (order: LanesWanted) => {
      lanes.current ??= import('./page-lanes').then(({ keepPageLanes }) =>
        keepPageLanes({ post, onBeats: (beats) => say({ kind: 'beats', beats: [...beats] }), onWords: setWatching }),
      );
      lanes.current.then(
        (kept) => !over && kept.set(order),
        // It could not be fetched; the next order tries anew.
        () => (lanes.current = null),
      );
    };
    const hear = (order: StandingOrder) => {
      switch (order.kind) {
        case 'asked':
          setAsked(order);
          begin.current = setTimeout(() => {
            setAsked(null);
            answer.current(order);
          }, order.inMs);
          return;
        case 'withdrawn':
          return forget();
        case 'lanes':
          return keepLanes(order);
        // Only an agent is asked to look at something, or to serve.
        case 'serve':
        case 'serve-over':
        case 'look':
        case 'look-withdrawn':
          return;
        case 'dismissed':
          over = true;
          rest();
          setStanding({ status: order.reason === 'elsewhere' ? 'elsewhere' : 'off' });
      }
    };
    const open = () => {
      setStanding({ status: 'reaching' });
      const opened = new WebSocket(`${location.origin.replace(/^http/, 'ws')}${STANDING_PATH}`);
      socket.current = opened;
      opened.onopen = () => setStanding({ status: 'standing' });
      // From the console that served this page: what it sends needs no schema here.
      opened.onmessage = ({ data }: MessageEvent<string>) => hear(JSON.parse(data) as StandingOrder);
      opened.onclose = () => {
        forget();
        if (over) return;
        setStanding({ status: 'reaching' });
        again = setTimeout(open, BACK_AFTER_MS);
      };
    };
    open();
    return () => {
      over = true;
      clearTimeout(again);
      clearTimeout(begin.current);
      socket.current?.close();
      // It measures itself now, or is left: it asks nobody else meanwhile.
      rest();
      setStanding({ status: 'off' });
    };
  }, [wanted, post]);

  useEffect(
    () => () =>
      void lanes.current?.then(
        (kept) => kept.close(),
        () => undefined,
      ),
    [],
  );

  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    const keep = () => {
      if (document.visibilityState === 'visible')
        navigator.wakeLock.request('screen').then(
          (held) => (lock = held),
          () => undefined,
        );
    };
    keep();
    document.addEventListener('visibilitychange', keep);
    return () => {
      document.removeEventListener('visibilitychange', keep);
      void lock?.release();
    };
  }, [wanted]);

  const refuse = useCallback(() => {
    if (asked === null) return;
    clearTimeout(begin.current);
    socket.current?.send(JSON.stringify({ kind: 'refuse', turnId: asked.turnId } satisfies StandingAnswer));
    setAsked(null);
  }, [asked]);

  const agree = useCallback(() => {
    if (asked === null) return;
    clearTimeout(begin.current);
    setAsked(null);
    answer.current(asked);
  }, [asked]);

  return { standing, watching, asked, refuse, agree };
}
