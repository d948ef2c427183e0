import type { MachineFacts } from '@/core';

/** What an agent sees of a plain machine by cable. */
export const FACTS: MachineFacts = {
  ...{ system: 'Debian', gateway: { address: '192.168.7.1', link: 'eth0' }, gatewayMs: 0.4 },
  resolvers: ['192.168.7.1', '8.8.4.4', '9.9.9.9'],
  links: [
    {
      ...{ name: 'eth0', medium: 'wired', up: true, speedMbps: 1000, duplex: 'full', mtuBytes: 1500, driver: null },
      addresses: ['192.168.7.40'],
    },
  ],
};
