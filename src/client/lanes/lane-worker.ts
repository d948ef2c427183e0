import type { Lane } from '@/core';
import { laneTicketPath, laneTicketSchema, PEER_PATHS } from '@/wire';
import { socketTo } from '../browser/socket-to';
import { openSession } from '../run/open-session';
import { probesOver } from '../run/probe-socket';
import type { LaneOrder, LaneReport } from './lane-messages';
import { PeerLane, type PeerLaneParts } from './peer-lane';

const PATIENCE_MS = 5000;

const askTicket = async (laneId: string): ReturnType<PeerLaneParts['ticket']> => {
  try {
    const url = new URL(laneTicketPath(laneId), self.location.origin);
    const answer = await fetch(url, { method: 'POST', signal: AbortSignal.timeout(PATIENCE_MS) });
    if (!answer.ok) return answer.status >= 500 ? 'away' : 'no';
    return laneTicketSchema.safeParse(await answer.json()).data ?? 'away';
  } catch {
    return 'away';
  }
};

const steadyMs = () => performance.now();

function keep({ id, everyMs }: Lane, report: (report: LaneReport) => void): PeerLane {
  return new PeerLane({
    ...{ everyMs, nowMs: steadyMs, wallMs: () => Date.now(), ticket: () => askTicket(id) },
    open: ({ baseUrl, ticket }) =>
      openSession(
        (url, signal) => fetch(url, { method: 'POST', signal, cache: 'no-store' }),
        baseUrl,
        ticket,
        AbortSignal.timeout(PATIENCE_MS),
      ),
    probes: ({ baseUrl }, session, events) =>
      probesOver((socket) => socketTo({ baseUrl, session }, PEER_PATHS.probe, socket), events),
    onEcho: (sentMs, ms, key) => report({ laneId: id, sentMs: Date.now() - (steadyMs() - sentMs), ms, key }),
  });
}

/** Lanes kept apart from the page's own work: a page in the background is held back, its workers hardly. */
const kept = new Map<string, { readonly words: string; readonly lane: PeerLane }>();

self.onmessage = ({ data: { lanes } }: MessageEvent<LaneOrder>) => {
  for (const [id, { words, lane }] of kept)
    if (!lanes.some((each) => JSON.stringify(each) === words)) {
      lane.close();
      kept.delete(id);
    }
  for (const lane of lanes)
    if (!kept.has(lane.id))
      kept.set(lane.id, { words: JSON.stringify(lane), lane: keep(lane, (report) => self.postMessage(report)) });
};
