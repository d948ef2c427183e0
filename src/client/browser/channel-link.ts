import type { PeerAddress } from '../run/peer-address';
import type { UdpProbing } from '../run/transport';
import type { TroubleReport, TroubleReports } from '../run/trouble-reports';
import type { ChannelOrder, ChannelReport, ChannelSeries } from './channel-messages';

const SERIES_PATIENCE_MS = 2000;
/** The page waits for three seconds itself, and may have to fetch first what it opens one with. */
const OPEN_PATIENCE_MS = 6000;

/** The worker's end of the data channel, which the page holds. */
export interface ChannelLink {
  /** Null where the page could not open a channel; why is reported. */
  open(address: PeerAddress, troubles: TroubleReports): Promise<UdpProbing | null>;
  take(report: ChannelReport): void;
}

/** `order` goes to the page. The times in the series are moved from the page's clock to this worker's. */
export function linkToChannel(order: (message: ChannelOrder) => void): ChannelLink {
  let answerOpened: ((trouble: TroubleReport | null) => void) | null = null;
  let answerSeries: ((series: ChannelSeries | null) => void) | null = null;
  const stop = () => order({ kind: 'channel-stop' });
  const probing = (troubles: TroubleReports): UdpProbing => ({
    stop,
    probe: (perSecond) => order({ kind: 'channel-probe', perSecond }),
    pace: null,
    finish: async (received, originMs) => {
      const series = await new Promise<ChannelSeries | null>((resolve) => {
        answerSeries = resolve;
        setTimeout(() => resolve(null), SERIES_PATIENCE_MS);
        order({ kind: 'channel-finish' });
      });
      const peerReceived = await received();
      stop();
      if (series === null) {
        troubles.report('channel-silent');
        return null;
      }
      const { timeOriginMs, sentMs, ...rest } = series;
      const shiftMs = timeOriginMs - performance.timeOrigin - originMs;
      return {
        ...rest,
        kind: 'data-channel',
        sentMs: sentMs.map((atMs) => atMs + shiftMs),
        upMs: sentMs.map(() => null),
        peerReceived,
      };
    },
  });
  return {
    open: async (address, troubles) => {
      const trouble = await new Promise<TroubleReport | null>((resolve) => {
        answerOpened = resolve;
        setTimeout(() => resolve({ code: 'channel-not-open', detail: 'the page gave no answer' }), OPEN_PATIENCE_MS);
        order({ kind: 'channel-open', address });
      });
      if (trouble === null) return probing(troubles);
      troubles.report(trouble.code, trouble.detail);
      // One that opens all the same is not used.
      stop();
      return null;
    },
    take: (report) => {
      if (report.kind === 'channel-opened') answerOpened?.(report.trouble);
      else answerSeries?.(report.series);
    },
  };
}
