import { ceilingOfEthernet } from './ethernet-ceiling';
import type { Link } from '../domain/link';
import type { LinkCeiling } from './link-ceiling-type';
import { ceilingOfTunnel } from './tunnel-ceiling';
import { ceilingOfWifi } from './wifi-ceiling';

/**
 * What a link can carry at best, or null when that cannot be said: an unknown link, a cable or Wi-Fi whose rate nobody
 * read, a tunnel of unknown kind or over something unknown.
 */
export function ceilingOfLink(link: Link, ipVersion: 4 | 6): LinkCeiling | null {
  switch (link.medium) {
    case 'unknown':
      return null;
    case 'wired': {
      const { negotiatedBps, mtuBytes, vlan, pppoe } = link;
      if (negotiatedBps === null) return null;
      return ceilingOfEthernet({ lineRateBps: negotiatedBps, mtuBytes, ipVersion, timestamps: true, vlan, pppoe });
    }
    case 'wifi':
      return link.linkRateBps === null ? null : ceilingOfWifi(link.linkRateBps, link.sharedAir ?? false);
    case 'tunnel': {
      const { kind, carrierBps } = link;
      if (kind === undefined || carrierBps === undefined) return null;
      return ceilingOfTunnel({ kind, carrierBps, outerIpVersion: 4, ipVersion, timestamps: true });
    }
  }
}
