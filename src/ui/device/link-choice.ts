import {
  ETHERNET_RATES_BPS,
  linkKindOf,
  nominalRateFigure,
  USUAL_MTU_BYTES,
  type Link,
  type LinkKind,
  type TUNNEL_RIDES,
  type TunnelKind,
} from '@/core';

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

/** The answers about a link; blank is not known. Rates in Mb/s: of the cable, or of the Wi-Fi. */
export interface LinkAnswers {
  readonly link: DeviceLinkChoice;
  readonly rateMbps: string;
  readonly accessPoint: string;
  readonly tunnelKind: TunnelKind | '';
  readonly rides: (typeof TUNNEL_RIDES)[number] | '';
}

/** What was answered, or found out, before. */
export function answersOfLink(link: Link): LinkAnswers {
  const rateBps = link.medium === 'wired' ? link.negotiatedBps : link.medium === 'wifi' ? link.linkRateBps : null;
  return {
    link: linkKindOf(link),
    rateMbps: rateBps === null ? '' : nominalRateFigure(rateBps),
    accessPoint: link.medium === 'wifi' ? (link.accessPoint ?? '') : '',
    tunnelKind: link.medium === 'tunnel' ? (link.kind ?? '') : '',
    rides: link.medium === 'tunnel' ? (link.rides ?? '') : '',
  };
}

const rateOf = (mbps: string) => {
  const rate = Number(mbps.replace(',', '.'));
  return mbps.trim() !== '' && rate > 0 && rate <= 100_000 ? rate * 1e6 : null;
};

/**
 * The link that the answers describe. What is known of a link of this kind besides, and nobody was asked, stays; a rate
 * that nobody knows stays unknown.
 */
export function linkOfAnswers(
  { link: choice, rateMbps, accessPoint, tunnelKind, rides }: LinkAnswers,
  known: Link,
): Link {
  const same = linkKindOf(known) === choice ? known : null;
  if (choice === 'unknown') return { medium: 'unknown' };
  if (choice === 'wired') {
    const before = same?.medium === 'wired' ? same : { medium: 'wired' as const, mtuBytes: USUAL_MTU_BYTES };
    return { ...before, negotiatedBps: rateOf(rateMbps) };
  }
  if (choice === 'tunnel')
    return {
      ...(same?.medium === 'tunnel' ? same : { medium: 'tunnel' }),
      ...(tunnelKind !== '' && { kind: tunnelKind }),
      ...(rides !== '' && { rides }),
    };
  const band = choice === 'wifi' ? null : choice === 'wifi-2.4' ? '2.4' : choice === 'wifi-5' ? '5' : '6';
  return {
    ...(same?.medium === 'wifi' ? same : { medium: 'wifi' as const, band }),
    linkRateBps: rateOf(rateMbps),
    ...(accessPoint.trim() !== '' && { accessPoint: accessPoint.trim() }),
  };
}
