import type { WebFarEnd } from '@/core';
import { readClientAddress } from '@/wire/address';
import { clockStepMs } from '../../run/clock-step';
import type { OpenResult, Transport } from '../../run/transport';
import { TroubleReports } from '../../run/trouble-reports';
import { machineTraffic } from '../machine-traffic';
import { otherTraffic } from '../other-traffic';
import { powerSaving } from '../power-profile';
import { findPlace, WebPlaceError } from './find-place';
import { handshakeProbes } from './handshake-probes';
import { startWebDownload } from './web-download';
import type { WebManners, WebPlace } from './web-place';

/** Nobody signs for a web server, and it has nothing to say about a run. */
const NOTHING_SIGNED = JSON.stringify({ kind: 'receipt', receipt: null });

/**
 * Measures against pages of a web server that is not ours: downloads alone, counted where they arrive, and the delay from
 * handshakes. The same orchestrator as against a peer drives it.
 */
export function openWebTransport(web: WebFarEnd, manners: WebManners): Transport {
  let places: readonly WebPlace[] = [];
  let loaded = 0;
  let before: { readonly traffic: ReturnType<typeof machineTraffic>; readonly atMs: number } | null = null;
  const troubles = new TroubleReports();
  const stepMs = clockStepMs(() => performance.now());

  const open = async (): Promise<OpenResult> => {
    try {
      places = await Promise.all(web.pages.map((page) => findPlace(page, manners)));
    } catch (error) {
      if (!(error instanceof WebPlaceError)) throw error;
      troubles.report(error.refused ? 'download-refused' : 'download-unanswered', error.message);
      return { ok: false, reason: error.refused ? 'web-refused' : 'web-unreachable' };
    }
    const seen = places.map(({ address }) => readClientAddress(address));
    const sameMachine = seen.some((each) => each.sameMachine);
    return { ok: true, opened: { sameMachine, ipVersion: seen[0]!.ipVersion, interfaceBps: null } };
  };

  return {
    troubles,
    nowMs: () => performance.now(),
    wallMs: () => Date.now(),
    open,
    openControl: ({ onMessage }) =>
      Promise.resolve({ send: () => queueMicrotask(() => onMessage(NOTHING_SIGNED)), close: () => undefined }),
    openProbes: (events) => Promise.resolve(handshakeProbes(places[0]!, events)),
    startDownload: (streams, onCounted) => {
      before ??= { traffic: machineTraffic(), atMs: performance.now() };
      const counted = (atMs: number, bytes: readonly number[]) => {
        loaded = bytes.reduce((sum, count) => sum + count, 0);
        onCounted(atMs, bytes);
      };
      return startWebDownload({ places, manners, mostBytes: web.mostBytes }, streams, counted, troubles);
    },
    startUpload: () => {
      throw new Error('nothing is sent up to a web server');
    },
    startUdp: () => Promise.resolve(null),
    sightings: () => ({
      ...{ selfReadBps: null, powerSaving: powerSaving(), clockStepMs: stepMs, reader: 'socket' },
      otherTraffic: otherTraffic(before, { downBytes: loaded, upBytes: 0 }, machineTraffic(), performance.now()),
    }),
  };
}
