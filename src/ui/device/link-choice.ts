import { ETHERNET_RATES_BPS, USUAL_MTU_BYTES, type Link, type LinkKind } from '@/core';

/** How a person answers "how is it connected". */
export type DeviceLinkChoice = LinkKind;

export const LINK_CHOICE_WORDS: Record<DeviceLinkChoice, string> = {
  unknown: 'not sure',
  wired: 'by cable',
  wifi: 'Wi-Fi, band not known',
  'wifi-2.4': 'Wi-Fi, 2.4 GHz',
  'wifi-5': 'Wi-Fi, 5 GHz',
  'wifi-6': 'Wi-Fi, 6 GHz',
  tunnel: 'through a VPN',
};

export const RATE_CHOICES_MBPS = ETHERNET_RATES_BPS.map((rateBps) => String(rateBps / 1e6));

/** The link that the answers describe. A rate that nobody knows stays unknown. */
export function linkOfChoice(choice: DeviceLinkChoice, rateMbps: string): Link {
  switch (choice) {
    case 'wired':
      return {
        medium: 'wired',
        negotiatedBps: rateMbps === '' ? null : Number(rateMbps) * 1e6,
        mtuBytes: USUAL_MTU_BYTES,
      };
    case 'wifi':
      return { medium: 'wifi', band: null, linkRateBps: null };
    case 'wifi-2.4':
      return { medium: 'wifi', band: '2.4', linkRateBps: null };
    case 'wifi-5':
      return { medium: 'wifi', band: '5', linkRateBps: null };
    case 'wifi-6':
      return { medium: 'wifi', band: '6', linkRateBps: null };
    case 'tunnel':
    case 'unknown':
      return { medium: choice };
  }
}
