import type { PeerAddress } from '../run/peer-address';
import type { TroubleReport } from '../run/trouble-reports';

/** Worker → page: only a page may open a data channel, so the worker asks it to. */
export type ChannelOrder =
  | { readonly kind: 'channel-open'; readonly address: PeerAddress }
  /** Probes a second from now on; null: the usual number. */
  | { readonly kind: 'channel-probe'; readonly perSecond: number | null }
  /** Stop sending, wait for the last echoes, and hand the series over. */
  | { readonly kind: 'channel-finish' }
  | { readonly kind: 'channel-stop' };

/** Raw series of the channel, on the clock of the page. */
export interface ChannelSeries {
  readonly timeOriginMs: number;
  readonly sentMs: readonly number[];
  readonly rttMs: readonly (number | null)[];
  readonly reflected: readonly (number | null)[];
  readonly duplicates: number;
}

/** Page → worker. */
export type ChannelReport =
  | { readonly kind: 'channel-opened'; readonly trouble: TroubleReport | null }
  | { readonly kind: 'channel-series'; readonly series: ChannelSeries | null };
