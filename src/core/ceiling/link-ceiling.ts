import { ceilingOfEthernet, type LinkCeiling } from './ethernet-ceiling';
import type { Link } from './link';

/**
 * What a link can carry at best, or null when that cannot be said: an unknown link, a cable whose rate nobody read,
 * Wi-Fi (only its link rate would tell, and then only a range) and tunnels.
 */
export function ceilingOfLink(link: Link, ipVersion: 4 | 6): LinkCeiling | null {
  if (link.medium !== 'wired' || link.negotiatedBps === null) return null;
  return ceilingOfEthernet({
    lineRateBps: link.negotiatedBps,
    mtuBytes: link.mtuBytes,
    ipVersion,
    timestamps: true,
  });
}
