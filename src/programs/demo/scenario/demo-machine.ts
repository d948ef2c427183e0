import type { MachineFacts } from '@/core';

/** What a small box of the demo sees of itself. */
export function demoMachine(gateway: string): MachineFacts {
  return {
    ...{ system: 'Debian GNU/Linux 12 (bookworm), arm64', gateway: { address: gateway, link: 'eth0' }, gatewayMs: 0.4 },
    resolvers: [gateway],
    links: [
      {
        ...{ name: 'eth0', medium: 'wired', up: true, speedMbps: 1000, duplex: 'full', mtuBytes: 1500 },
        ...{ driver: 'r8169', addresses: [gateway.replace(/\d+$/, '40')] },
      },
    ],
  };
}
