import { PEER_PATHS } from '@/wire';
import { peerUrl, type PeerAddress } from '../run/peer-address';
import type { Load } from '../run/transport';
import type { TroubleReports } from '../run/trouble-reports';
import { rawRequest, type RawRequest } from './raw-request';

const SAMPLE_MS = 50;
const RETRY_MS = 200;

/** Downloads on several connections at once and tells every 50 ms what has arrived on each. */
export function startDownload(
  peer: PeerAddress,
  streams: number,
  onCounted: (nowMs: number, bytes: readonly number[]) => void,
  troubles: TroubleReports,
): Load {
  const bytes: number[] = [];
  const open = new Set<RawRequest>();
  let stopped = false;
  const pull = (stream: number) => {
    if (stopped) return;
    let answered: number | null = null;
    const request = rawRequest(
      new URL(peerUrl(peer, PEER_PATHS.down, stream)),
      'GET',
      {},
      {
        onStatus: (status) => {
          answered = status;
          if (status !== 200) request.destroy();
        },
        onBody: (count) => (bytes[stream]! += count),
        onClose: () => {
          open.delete(request);
          if (stopped) return;
          if (answered === null) troubles.report('download-unanswered');
          else if (answered === 200) troubles.report('download-broke');
          else troubles.report('download-refused', `status ${answered}`);
          setTimeout(() => pull(stream), RETRY_MS);
        },
      },
    );
    open.add(request);
  };
  const grow = (wanted: number) => {
    while (bytes.length < wanted) {
      bytes.push(0);
      pull(bytes.length - 1);
    }
  };
  grow(streams);
  const timer = setInterval(() => onCounted(performance.now(), [...bytes]), SAMPLE_MS);
  return {
    grow,
    stop: () => {
      stopped = true;
      clearInterval(timer);
      for (const request of open) request.destroy();
    },
  };
}
