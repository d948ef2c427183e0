import type { TUNNEL_RIDES, TunnelKind } from '@/core';

export const TUNNEL_WORDS: Record<TunnelKind, string> = {
  wireguard: 'WireGuard',
  openvpn: 'OpenVPN',
  ipsec: 'IPsec',
  'ipsec-nat': 'IPsec behind NAT',
};

export const RIDES_WORDS: Record<(typeof TUNNEL_RIDES)[number], string> = {
  wired: 'a cable',
  wifi: 'Wi-Fi',
  mobile: 'mobile data',
};
