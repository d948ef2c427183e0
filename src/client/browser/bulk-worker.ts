import { startDownload } from './download-streams';
import type { BulkOrder, BulkReport } from './bulk-messages';

/** Takes the bytes of a download in and counts them; does nothing else. Ends by being terminated. */
const SAMPLE_MS = 50;
let download: ReturnType<typeof startDownload> | null = null;

self.onmessage = ({ data: { address, streams } }: MessageEvent<BulkOrder>) => {
  if (download === null) {
    const started = startDownload(address);
    download = started;
    setInterval(() => {
      const report: BulkReport = {
        timeOriginMs: performance.timeOrigin,
        atMs: performance.now(),
        bytes: [...started.bytes],
      };
      self.postMessage(report);
    }, SAMPLE_MS);
  }
  download.grow(streams);
};
