import { RUN_PROFILES } from '@/core';
import { startRun } from '../run/run-runner';
import { linkToChannel } from './channel-link';
import { openBrowserTransport } from './browser-transport';
import type { WorkerOrder, WorkerReport } from './worker-messages';

/** The worker's entry: one run for each worker. */
let running: { cancel(): void } | null = null;
let cancelled = false;

const channel = linkToChannel((order: WorkerReport) => self.postMessage(order));

async function start({ grant, powerSaving, anew }: Extract<WorkerOrder, { kind: 'start' }>): Promise<void> {
  const transport = await openBrowserTransport(grant, powerSaving, channel);
  if (anew) transport.troubles.report('worker-anew');
  running ??= startRun(transport, RUN_PROFILES[grant.profile], (news: WorkerReport) => self.postMessage(news), {
    leastDirectionMs: grant.leastDirectionMs,
  });
  if (cancelled) running.cancel();
}

self.onmessage = ({ data: order }: MessageEvent<WorkerOrder>) => {
  switch (order.kind) {
    case 'start':
      // Thrown where the page hears of it.
      void start(order).catch((error: unknown) =>
        setTimeout(() => {
          throw error;
        }),
      );
      return;
    case 'cancel':
      cancelled = true;
      running?.cancel();
      return;
    case 'channel-opened':
    case 'channel-series':
      channel.take(order);
  }
};

self.postMessage({ kind: 'here' } satisfies WorkerReport);
