import type { LinkCeiling } from './link-ceiling-type';

/** Share of the link rate that is usually left for payload: half-duplex air, acknowledgements, gaps. */
const USUAL_SHARE = { low: 0.5, high: 0.7 } as const;

/**
 * What Wi-Fi carries is a range: usually 50 to 70 % of its link rate, and half of that when both ends are on one access
 * point, since each byte then crosses the air twice. Example: 866 Mb/s → 433 to 606 Mb/s.
 */
export function ceilingOfWifi(linkRateBps: number, sharedAir: boolean): LinkCeiling {
  const times = sharedAir ? 0.5 : 1;
  const low = linkRateBps * USUAL_SHARE.low * times;
  const high = linkRateBps * USUAL_SHARE.high * times;
  return {
    payloadBps: low,
    rangeBps: { low, high },
    lineRateBps: linkRateBps,
    ground: { kind: 'wifi', sharedAir },
  };
}
