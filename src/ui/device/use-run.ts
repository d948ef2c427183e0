'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { StripData } from '@/core';
import type { SeenByPeer, WorkerOrder, WorkerReport } from '@/client';
import type { HandIn, HandInAnswer, RunGrant, RunWaiting, StartRun } from '@/wire';
import { askForRun, type Refusal } from './ask-for-run';
import { channelServer } from './channel-server';
import { powerSaving } from './power-saving';
import { forgetHandIn, handIn, keepHandIn, keptHandIns, type PendingHandIn } from './pending-hand-ins';

/** What the page on a device is doing. */
export type RunView =
  | { readonly status: 'ready' }
  | { readonly status: 'asking' }
  | { readonly status: 'waiting'; readonly waiting: RunWaiting }
  | { readonly status: 'refused'; readonly problem: Refusal }
  | { readonly status: 'measuring'; readonly grant: RunGrant; readonly strip: StripData | null }
  | {
      readonly status: 'handing-in';
      readonly grant: RunGrant;
      readonly strip: StripData | null;
      readonly away: boolean;
    }
  | {
      readonly status: 'done';
      readonly grant: RunGrant;
      readonly strip: StripData | null;
      readonly answer: HandInAnswer;
    };

const ALIVE_MS = 3000;
const RETRY_MS = 3000;
function post(path: string, body: unknown): void {
  void fetch(path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
    keepalive: true,
  }).catch(() => undefined);
}

/** Counts how long the page was out of sight while it is measured. */
function watchHidden(): () => number {
  let hiddenMs = 0;
  let since = document.hidden ? performance.now() : null;
  const change = () => {
    if (document.hidden) since ??= performance.now();
    else if (since !== null) {
      hiddenMs += performance.now() - since;
      since = null;
    }
  };
  document.addEventListener('visibilitychange', change);
  return () => {
    document.removeEventListener('visibilitychange', change);
    return hiddenMs + (since === null ? 0 : performance.now() - since);
  };
}

function factsOf(seen: SeenByPeer | null, pageHiddenMs: number, receipt: string | null = null) {
  return {
    sameMachine: seen?.sameMachine ?? null,
    ipVersion: seen?.ipVersion ?? null,
    pageHiddenMs,
    peerLinkBps: seen?.peerLinkBps ?? null,
    userAgent: navigator.userAgent.slice(0, 400),
    receipt,
  };
}

/** Runs the worker, keeps the console informed, and hands the result in, now or later. */
export function useRun() {
  const [view, setView] = useState<RunView>({ status: 'ready' });
  const worker = useRef<Worker | null>(null);
  const givenUp = useRef(false);
  const retry = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  const deliver = useCallback(async (grant: RunGrant, strip: StripData | null, pending: PendingHandIn) => {
    const result = await handIn(pending);
    if (result.status === 'away') {
      setView({ status: 'handing-in', grant, strip, away: true });
      retry.current = setTimeout(() => void deliver(grant, strip, pending), RETRY_MS);
      return;
    }
    forgetHandIn(pending.runId);
    if (result.status === 'taken') setView({ status: 'done', grant, strip, answer: result.answer });
    else setView({ status: 'refused', problem: { code: 'hand-in-refused', detail: result.detail } });
  }, []);

  const start = useCallback(
    async (order: StartRun): Promise<RunGrant | null> => {
      setView({ status: 'asking' });
      givenUp.current = false;
      const answer = await askForRun(
        order,
        (waiting) => {
          if (!givenUp.current) setView({ status: 'waiting', waiting });
        },
        () => givenUp.current,
      );
      if (answer.status === 'given-up') return null;
      if (answer.status === 'refused') {
        setView({ status: 'refused', problem: answer.problem });
        return null;
      }
      const { grant } = answer;
      setView({ status: 'measuring', grant, strip: null });
      const stopWatching = watchHidden();
      const running = new Worker(new URL('../../client/browser/measuring-worker.ts', import.meta.url), {
        type: 'module',
      });
      worker.current = running;
      let strip: StripData | null = null;
      const alive = setInterval(() => post(`/api/v1/runs/${grant.runId}/alive`, { runKey: grant.runKey }), ALIVE_MS);
      const closed = () => {
        const outcome: HandIn = { outcome: 'unfinished', reason: 'tab-closed', samples: null, facts: null };
        post(`/api/v1/runs/${grant.runId}/hand-in`, { runKey: grant.runKey, handIn: outcome });
      };
      window.addEventListener('pagehide', closed);

      const end = (outcome: HandIn) => {
        clearInterval(alive);
        window.removeEventListener('pagehide', closed);
        channel({ kind: 'channel-stop' });
        running.terminate();
        worker.current = null;
        const pending = { runId: grant.runId, request: { runKey: grant.runKey, handIn: outcome } };
        keepHandIn(pending);
        setView({ status: 'handing-in', grant, strip, away: false });
        void deliver(grant, strip, pending);
      };
      running.onerror = (event) => {
        event.preventDefault();
        end({ outcome: 'unfinished', reason: 'browser-lacks', samples: null, facts: factsOf(null, stopWatching()) });
      };
      const toWorker = (message: WorkerOrder) => running.postMessage(message);
      const channel = channelServer(toWorker);
      running.onmessage = ({ data }: MessageEvent<WorkerReport>) => {
        if (data.kind !== 'progress' && data.kind !== 'finished' && data.kind !== 'failed') return channel(data);
        if (data.kind === 'progress') {
          strip = data.strip;
          setView({ status: 'measuring', grant, strip });
          return;
        }
        const facts = factsOf(data.seen, stopWatching(), data.kind === 'finished' ? data.receipt : null);
        if (data.kind === 'finished') end({ outcome: 'finished', samples: data.samples, facts });
        else end({ outcome: 'unfinished', reason: data.reason, samples: data.samples, facts });
      };
      toWorker({ kind: 'start', grant, powerSaving: await powerSaving() });
      return grant;
    },
    [deliver],
  );

  const cancel = useCallback(() => worker.current?.postMessage({ kind: 'cancel' } satisfies WorkerOrder), []);

  /** Stops waiting for a turn; the console gives it to the next. */
  const giveUp = useCallback(() => {
    givenUp.current = true;
    setView({ status: 'ready' });
  }, []);

  useEffect(() => {
    for (const pending of keptHandIns())
      void handIn(pending).then((result) => {
        if (result.status !== 'away') forgetHandIn(pending.runId);
      });
    return () => {
      clearTimeout(retry.current);
      worker.current?.terminate();
      givenUp.current = true;
    };
  }, []);

  return { view, start, cancel, giveUp };
}
