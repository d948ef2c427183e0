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

/** A worker says at once that it is there; one that does not within so many looks was never started. */
const FIRST_WORD_LOOKS = 5;

/** Measures in a worker of its own, so that drawing and the page's other work do not disturb it. */
export const measureInWorker: Measure = (grant, signal, onProgress) =>
  new Promise<HandIn>((resolve) => {
    const stopWatching = watchHidden();
    const endWithout = (reason: 'browser-lacks' | 'browser-silent') => {
      end();
      resolve({ outcome: 'unfinished', reason, samples: null, facts: factsOf(null, stopWatching()) });
    };
    let worker: Worker | null = null;
    let firstWord: ReturnType<typeof watchSilence> | null = null;
    const toWorker = (message: WorkerOrder) => worker?.postMessage(message);
    const channel = channelServer(toWorker);
    const silence = watchSilence(() => endWithout('browser-silent'));
    const end = () => {
      silence.stop();
      firstWord?.stop();
      channel({ kind: 'channel-stop' });
      worker?.terminate();
      signal.removeEventListener('abort', cancel);
    };
    const cancel = () => toWorker({ kind: 'cancel' });
    signal.addEventListener('abort', cancel);
    const hear = (report: WorkerReport) => {
      silence.heard();
      firstWord?.stop();
      if (report.kind === 'here') return;
      if (report.kind === 'progress') return onProgress(report.strip);
      if (report.kind !== 'finished' && report.kind !== 'failed') return channel(report);
      end();
      const facts = factsOf(report.seen, stopWatching(), report.kind === 'finished' ? report.receipt : null);
      if (report.kind === 'finished') resolve({ outcome: 'finished', samples: report.samples, facts });
      else resolve({ outcome: 'unfinished', reason: report.reason, samples: report.samples, facts });
    };
    const startWorker = (powerSavingWords: string | null, anew: boolean) => {
      try {
        worker = new Worker(new URL('../../client/browser/measuring-worker.ts', import.meta.url), { type: 'module' });
      } catch {
        return endWithout('browser-lacks');
      }
      worker.onerror = (event) => {
        event.preventDefault();
        endWithout('browser-lacks');
      };
      worker.onmessage = ({ data }: MessageEvent<WorkerReport>) => hear(data);
      if (!anew)
        firstWord = watchSilence(() => {
          // It has opened nothing: another one may take its place.
          worker?.terminate();
          startWorker(powerSavingWords, true);
        }, FIRST_WORD_LOOKS);
      toWorker({ kind: 'start', grant, powerSaving: powerSavingWords, anew });
      if (signal.aborted) cancel();
    };
    void powerSaving().then((words) => startWorker(words, false));
  });
