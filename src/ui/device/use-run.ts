'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import { deliverLeft, RunSession, type Post, type SessionState } from '@/session';
import type { HandIn, StartRun } from '@/wire';
import { browserOutbox } from './browser-outbox';
import { keepLastResult } from './last-result';
import { measureInWorker } from './measure-in-worker';
import { fetchRunView } from './run-view-later';

/** A page that goes away can send so much and no more. */
const KEEPALIVE_BYTES = 60_000;

/** Posts to the console that served this page. */
export const post: Post = (path, body) => {
  const text = JSON.stringify(body);
  return fetch(path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: text,
    keepalive: text.length < KEEPALIVE_BYTES,
  });
};

/** A page that is left in the middle of a run ends it at once, so that its line is free for the next. */
function endForLeaving(state: SessionState): void {
  if (state.status !== 'measuring') return;
  const { runId, runKey } = state.grant;
  const handIn: HandIn = { outcome: 'unfinished', reason: 'tab-closed', samples: null, facts: null };
  void post(`/api/v1/runs/${runId}/hand-in`, { runKey, handIn }).catch(() => undefined);
}

/** One session of the page: everything of it ends when the page is left, and begins anew when it is come back to. */
export function useRun() {
  const [view, setView] = useState<SessionState>({ status: 'ready' });
  const session = useRef<RunSession | null>(null);

  useEffect(() => {
    let last: SessionState = { status: 'ready' };
    const open = () => {
      last = { status: 'ready' };
      session.current = new RunSession({
        post,
        prepare: fetchRunView,
        outbox: browserOutbox,
        measure: measureInWorker,
        onState: (state) => {
          last = state;
          if (state.status === 'done') keepLastResult(state.answer);
          setView(state);
        },
      });
      void deliverLeft(post, browserOutbox).catch(() => undefined);
    };
    const leave = () => {
      endForLeaving(last);
      session.current?.close();
      last = { status: 'ready' };
    };
    // A page that the browser brings back as it was has nothing going on any more.
    const comeBack = ({ persisted }: PageTransitionEvent) => {
      if (!persisted) return;
      open();
      setView({ status: 'ready' });
    };
    open();
    window.addEventListener('pagehide', leave);
    window.addEventListener('pageshow', comeBack);
    return () => {
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('pageshow', comeBack);
      leave();
    };
  }, []);

  const start = useCallback((order: StartRun) => void session.current?.run(order), []);
  const cancel = useCallback(() => session.current?.cancel(), []);
  const giveUp = useCallback(() => session.current?.giveUp(), []);
  return { view, start, cancel, giveUp };
}
