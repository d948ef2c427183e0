import type { ChannelOrder, ChannelReport } from '@/client';

/** Serves the worker's orders about the data channel; what does it is loaded with the first order that needs it. */
export function channelServer(report: (message: ChannelReport) => void): (order: ChannelOrder) => void {
  let serving: Promise<(order: ChannelOrder) => void> | null = null;
  return (order) => {
    if (serving === null && order.kind === 'channel-stop') return;
    serving ??= import('@/client/channel').then(({ serveChannel }) => serveChannel(report));
    serving.then(
      (take) => take(order),
      (error: unknown) => {
        serving = null;
        report({ kind: 'channel-opened', trouble: { code: 'channel-broke', detail: String(error) } });
      },
    );
  };
}
