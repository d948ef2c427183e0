import type { PracticeDocument } from '@/peer';
import { LINE, LINE_DOWN_QUEUE_MS, LINE_ROUND_TRIP_MS, LINE_UP_QUEUE_MS } from './scenario';

/** The practice line in front of the demo's outside peer, as the JSON document that the practice program reads. */
export function demoPracticeDocument(listenPort: number, outsidePeerPort: number): PracticeDocument {
  return {
    lines: [
      {
        name: LINE.name,
        listenPort,
        to: { host: '127.0.0.1', port: outsidePeerPort },
        roundTripMs: LINE_ROUND_TRIP_MS,
        down: { rateMbps: LINE.downMbps, queueMs: LINE_DOWN_QUEUE_MS },
        up: { rateMbps: LINE.upMbps, queueMs: LINE_UP_QUEUE_MS },
      },
    ],
  };
}
