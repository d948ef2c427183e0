import type { TroubleCode } from '@/core';
import { startDownload } from './download-streams';
import { startFrameDownload } from './frame-streams';
import type { BulkOrder, BulkReport } from './bulk-messages';

const SAMPLE_MS = 50;

/** Takes orders, takes the bytes of a download in and tells every 50 ms what came. Ends with the worker it runs in. */
export function servePull(tell: (report: BulkReport) => void): { take(order: BulkOrder): void; stop(): void } {
  let download: ReturnType<typeof startDownload> | ReturnType<typeof startFrameDownload> | null = null;
  let timer: ReturnType<typeof setInterval> | undefined;
  return {
    take: ({ address, reader, streams, long }) => {
      if (download === null) {
        const report = (code: TroubleCode, detail: string) => tell({ kind: 'trouble', code, detail });
        const started = long ? startFrameDownload(address, report) : startDownload(address, reader, report);
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
