import { RUN_PROFILES } from '@/core';
import { startRun } from '../run/run-runner';
import { linkToChannel } from './channel-link';
import { openBrowserTransport } from './browser-transport';
import type { WorkerOrder, WorkerReport } from './worker-messages';

/** The worker's entry: one run for each worker. */
let running: { cancel(): void } | null = null;
let cancelled = false;

const channel = linkToChannel((order: WorkerReport) => self.postMessage(order));

async function start({ grant, powerSaving }: Extract<WorkerOrder, { kind: 'start' }>): Promise<void> {
  const transport = await openBrowserTransport(grant, powerSaving, channel);
  running ??= startRun(transport, RUN_PROFILES[grant.profile], (news: WorkerReport) => self.postMessage(news), {
    leastDirectionMs: grant.leastDirectionMs,
  });
  if (cancelled) running.cancel();
}

self.onmessage = ({ data: order }: MessageEvent<WorkerOrder>) => {
  switch (order.kind) {
    case 'start':
      void start(order);
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
