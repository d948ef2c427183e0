import { stripDataOf } from '@/core';
import { decodeEcho, encodeProbe, PEER_PATHS, type RunGrant } from '@/wire';
import { stepRun } from '../run/run-machine';
import { STANDARD_PROFILE, type RunProfile } from '../run/run-profile';
import { samplesOf, STARTING, type RunEffect, type RunEvent, type RunState } from '../run/run-state';
import { startDownload, type Streams } from './download-streams';
import { openSession, peerSocketUrl, readControlMessage, type PeerAddress } from './peer-session';
import { startUpload } from './upload-streams';
import type { SeenByPeer, WorkerReport } from './worker-messages';

const SAMPLE_MS = 50;
const PICTURE_MS = 100;

/**
 * Performs a run's effects with fetch, XMLHttpRequest and WebSocket, and feeds what happens back into the machine.
 * Lives in a worker, so that the page's own work does not disturb it. Returns what cancels the run.
 */
export function startBrowserRun(
  grant: RunGrant,
  report: (message: WorkerReport) => void,
  profile: RunProfile = { ...STANDARD_PROFILE, streams: grant.streams },
): { cancel(): void } {
  const originMs = performance.now();
  const nowMs = () => performance.now() - originMs;
  const opening = new AbortController();
  let state: RunState = STARTING;
  let seen: SeenByPeer | null = null;
  let address: PeerAddress | null = null;
  let control: WebSocket | null = null;
  let probe: WebSocket | null = null;
  let download: Streams | null = null;
  let upload: { stop(): void } | null = null;
  let nextSequence = 0;
  let probeTimer: ReturnType<typeof setInterval> | undefined;

  const perform = (effect: RunEffect) => {
    switch (effect.kind) {
      case 'start-probes':
        sendProbe();
        probeTimer = setInterval(sendProbe, 1000 / profile.probesPerSecond);
        return;
      case 'start-download':
        download = startDownload(address!, effect.streams);
        return;
      case 'stop-download':
        download?.stop();
        download = null;
        return;
      case 'start-upload':
        upload = startUpload(address!, effect.streams);
        return;
      case 'stop-upload':
        upload?.stop();
        upload = null;
        return;
      case 'close':
        close();
    }
  };

  const dispatch = (event: RunEvent) => {
    const before = state.status;
    const step = stepRun(state, event, profile);
    state = step.state;
    step.effects.forEach(perform);
    if (state.status === before) return;
    if (state.status === 'finished') report({ kind: 'finished', samples: samplesOf(state), seen: seen! });
    if (state.status === 'failed') report({ kind: 'failed', reason: state.reason, samples: samplesOf(state), seen });
  };

  const sendProbe = () => {
    if (probe?.readyState !== WebSocket.OPEN) return;
    dispatch({ kind: 'probe-sent', sequence: nextSequence, nowMs: nowMs() });
    probe.send(encodeProbe(nextSequence));
    nextSequence += 1;
  };

  const sampleTimer = setInterval(() => {
    if (download !== null) dispatch({ kind: 'download-counted', nowMs: nowMs(), bytes: [...download.bytes] });
    dispatch({ kind: 'tick', nowMs: nowMs() });
  }, SAMPLE_MS);
  const pictureTimer = setInterval(() => {
    if (state.status === 'measuring') report({ kind: 'progress', strip: stripDataOf(samplesOf(state), nowMs()) });
  }, PICTURE_MS);

  const close = () => {
    for (const timer of [sampleTimer, pictureTimer, probeTimer]) clearInterval(timer);
    opening.abort();
    download?.stop();
    upload?.stop();
    control?.close();
    probe?.close();
  };

  const connect = (path: string): Promise<WebSocket> =>
    new Promise((resolve, reject) => {
      const socket = new WebSocket(peerSocketUrl(address!, path));
      socket.binaryType = 'arraybuffer';
      socket.onopen = () => resolve(socket);
      socket.onerror = () => reject(new Error('the socket did not open'));
      socket.onclose = () => dispatch({ kind: 'lost', reason: 'peer-gone', nowMs: nowMs() });
    });

  const open = async () => {
    const result = await openSession(grant.peer.baseUrl, grant.ticket, opening.signal);
    if (!result.ok) return dispatch({ kind: 'lost', reason: result.reason, nowMs: nowMs() });
    seen = { sameMachine: result.opened.sameMachine, ipVersion: result.opened.ipVersion };
    address = { baseUrl: grant.peer.baseUrl, session: result.opened.session };
    try {
      control = await connect(PEER_PATHS.control);
      probe = await connect(PEER_PATHS.probe);
    } catch {
      return dispatch({ kind: 'lost', reason: 'no-echo', nowMs: nowMs() });
    }
    control.onmessage = ({ data }) => {
      const message = readControlMessage(data);
      if (message?.kind === 'upload-counters')
        dispatch({ kind: 'upload-counted', peerMs: message.atMs, bytes: message.bytes });
      if (message?.kind === 'limit-reached') dispatch({ kind: 'limit-reached', nowMs: nowMs() });
    };
    probe.onmessage = ({ data }) => {
      const atMs = nowMs();
      const echo = data instanceof ArrayBuffer ? decodeEcho(data) : null;
      if (echo !== null) dispatch({ kind: 'probe-echoed', ...echo, nowMs: atMs });
    };
    dispatch({ kind: 'opened', nowMs: nowMs() });
  };

  void open();
  return { cancel: () => dispatch({ kind: 'cancelled', nowMs: nowMs() }) };
}
