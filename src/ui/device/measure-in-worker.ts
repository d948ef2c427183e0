import type { SeenByPeer, WorkerOrder, WorkerReport } from '@/client';
import type { Measure } from '@/session';
import type { HandIn } from '@/wire';
import { channelServer } from './channel-server';
import { powerSaving } from './power-saving';
import { watchSilence } from './silence-watch';
import { watchHidden } from './watch-hidden';

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

/** Measures in a worker of its own, so that drawing and the page's other work do not disturb it. */
export const measureInWorker: Measure = (grant, signal, onProgress) =>
  new Promise<HandIn>((resolve) => {
    const stopWatching = watchHidden();
    const endWithout = (reason: 'browser-lacks' | 'browser-silent') => {
      const facts = factsOf(null, stopWatching());
      resolve({ outcome: 'unfinished', reason, samples: null, facts });
    };
    let worker: Worker;
    try {
      worker = new Worker(new URL('../../client/browser/measuring-worker.ts', import.meta.url), { type: 'module' });
    } catch {
      return endWithout('browser-lacks');
    }
    const toWorker = (message: WorkerOrder) => worker.postMessage(message);
    const channel = channelServer(toWorker);
    const silence = watchSilence(() => {
      end();
      endWithout('browser-silent');
    });
    const end = () => {
      silence.stop();
      channel({ kind: 'channel-stop' });
      worker.terminate();
      signal.removeEventListener('abort', cancel);
    };
    const cancel = () => toWorker({ kind: 'cancel' });
    signal.addEventListener('abort', cancel);
    worker.onerror = (event) => {
      event.preventDefault();
      end();
      endWithout('browser-lacks');
    };
    worker.onmessage = ({ data }: MessageEvent<WorkerReport>) => {
      silence.heard();
      if (data.kind === 'progress') return onProgress(data.strip);
      if (data.kind !== 'finished' && data.kind !== 'failed') return channel(data);
      end();
      const facts = factsOf(data.seen, stopWatching(), data.kind === 'finished' ? data.receipt : null);
      if (data.kind === 'finished') resolve({ outcome: 'finished', samples: data.samples, facts });
      else resolve({ outcome: 'unfinished', reason: data.reason, samples: data.samples, facts });
    };
    void powerSaving().then((saving) => {
      toWorker({ kind: 'start', grant, powerSaving: saving });
      if (signal.aborted) cancel();
    });
  });
