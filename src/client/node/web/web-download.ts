import { SMALLEST_PAGE_BYTES } from '@/core';
import type { Load } from '../../run/transport';
import type { TroubleReports } from '../../run/trouble-reports';
import { openWebConnection, type WebConnection } from './web-connection';
import { rangeFrom, type WebManners, type WebPlace } from './web-place';

const SAMPLE_MS = 50;
const RETRY_MS = 500;
/** Answers by which a server says that it has had enough (RFC 9110 §15.6.4, RFC 6585 §4). */
const ENOUGH = [429, 503];

/** Streams begin at different places of a page, so that they do not all read what one cache has ready. */
const SPREAD = 0.618;

export interface WebDownload {
  readonly places: readonly WebPlace[];
  readonly manners: WebManners;
  /** No stream asks for more once so much has come, bytes. */
  readonly mostBytes: number;
}

/**
 * Loads pages over several connections at once, each from another place on and from the beginning again at their end, and
 * tells every 50 ms what has arrived on each. Bytes of the content count, whatever framed them.
 */
export function startWebDownload(
  { places, manners, mostBytes }: WebDownload,
  streams: number,
  onCounted: (nowMs: number, bytes: readonly number[]) => void,
  troubles: TroubleReports,
): Load {
  const bytes: number[] = [];
  const connections: WebConnection[] = [];
  const breakOff = new Map<number, () => void>();
  const timers = new Set<NodeJS.Timeout>();
  let stopped = false;

  const stop = () => {
    stopped = true;
    clearInterval(counting);
    timers.forEach(clearTimeout);
    breakOff.forEach((end) => end());
    connections.forEach((connection) => connection.close());
  };
  const isEnough = () => bytes.reduce((sum, each) => sum + each, 0) >= mostBytes;

  const pull = (stream: number, first: boolean) => {
    if (stopped || isEnough()) return;
    const { sizeBytes, takesRanges } = places[stream % places.length]!;
    const fromByte = first && takesRanges && sizeBytes !== null ? Math.floor(sizeBytes * ((stream * SPREAD) % 1)) : 0;
    let status: number | null = null;
    const before = bytes[stream]!;
    const isBody = () => status === 200 || status === 206;
    const end = connections[stream]!.get(takesRanges ? rangeFrom(fromByte) : null, {
      onHead: (head) => {
        status = head.status;
        if (!isBody()) end();
      },
      onBody: (count) => {
        if (!isBody()) return;
        bytes[stream]! += count;
        if (isEnough()) breakOff.forEach((each) => each());
      },
      onEnd: (trouble) => {
        breakOff.delete(stream);
        if (stopped || isEnough()) return;
        if (isBody() && trouble === null) {
          // From a place near its end on a page may be short; from its beginning it is to be worth the asking.
          if (fromByte > 0 || bytes[stream]! - before >= SMALLEST_PAGE_BYTES) return pull(stream, false);
          return troubles.report('download-refused', `only ${bytes[stream]! - before} bytes long`);
        }
        if (status === null) troubles.report('download-unanswered', trouble ?? '');
        else if (isBody()) troubles.report('download-broke', trouble ?? '');
        else troubles.report('download-refused', `status ${status}`);
        // A server that has had enough is left alone.
        if (status !== null && ENOUGH.includes(status)) return;
        const timer = setTimeout(() => {
          timers.delete(timer);
          pull(stream, false);
        }, RETRY_MS);
        timers.add(timer);
      },
    });
    breakOff.set(stream, end);
  };

  const grow = (wanted: number) => {
    while (bytes.length < wanted) {
      const stream = bytes.push(0) - 1;
      connections.push(openWebConnection(places[stream % places.length]!, manners));
      pull(stream, true);
    }
  };
  const counting = setInterval(() => onCounted(performance.now(), [...bytes]), SAMPLE_MS);
  grow(streams);
  return { grow, stop };
}
