import { startBrowserRun } from './browser-run';
import type { WorkerOrder } from './worker-messages';

/** The worker's entry: one run for each worker. */
let running: { cancel(): void } | null = null;

self.onmessage = ({ data: order }: MessageEvent<WorkerOrder>) => {
  switch (order.kind) {
    case 'start':
      running ??= startBrowserRun(order.grant, (message) => self.postMessage(message));
      return;
    case 'cancel':
      running?.cancel();
  }
};
