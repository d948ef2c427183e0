import type { TunnelKind } from '../domain/link';

/** How a ceiling was reckoned, in figures: rates in bits per second, payload and wire in bytes of a full packet. */
export type CeilingGround =
  | {
      readonly kind: 'ethernet';
      readonly payloadBytes: number;
      readonly wireBytes: number;
      readonly vlan: boolean;
      readonly pppoe: boolean;
    }
  | {
      readonly kind: 'tunnel';
      readonly tunnel: TunnelKind;
      readonly payloadBytes: number;
      readonly wireBytes: number;
    }
  | { readonly kind: 'wifi'; readonly sharedAir: boolean };

/** What a link can carry at best. Bits per second of TCP payload. */
export interface LinkCeiling {
  /** What a result is held against: the ceiling, or the lower end of it where it is a range. */
  readonly payloadBps: number;
  readonly rangeBps: { readonly low: number; readonly high: number } | null;
  /** The rate that the link itself names: negotiated, link rate, or carrier's. */
  readonly lineRateBps: number;
  readonly ground: CeilingGround;
}
