import { startDownload } from './download-streams';
import type { BulkOrder, BulkReport } from './bulk-messages';

const SAMPLE_MS = 50;

/** Takes orders, takes the bytes of a download in and tells every 50 ms what came. Ends with the worker it runs in. */
export function servePull(tell: (report: BulkReport) => void): { take(order: BulkOrder): void; stop(): void } {
  let download: ReturnType<typeof startDownload> | null = null;
  let timer: ReturnType<typeof setInterval> | undefined;
  return {
    take: ({ address, reader, streams }) => {
      if (download === null) {
        const started = startDownload(address, reader, (code, detail) => tell({ kind: 'trouble', code, detail }));
        download = started;
        timer = setInterval(
          () =>
            tell({
              kind: 'counts',
              timeOriginMs: performance.timeOrigin,
              atMs: performance.now(),
              bytes: [...started.bytes],
            }),
          SAMPLE_MS,
        );
      }
      download.grow(streams);
    },
    stop: () => {
      clearInterval(timer);
      download?.stop();
    },
  };
}
