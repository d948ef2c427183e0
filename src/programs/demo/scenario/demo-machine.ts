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

/** Whom the demo's agents hear on their networks. */
export function demoNeighbours(gateway: string) {
  const at = (last: number) => gateway.replace(/\d+$/, String(last));
  const mac = (last: number) => `02:00:5e:53:00:${last.toString(16).padStart(2, '0')}`;
  const heard: readonly (readonly [number, string | null])[] = [
    ...([
      [1, 'router'],
      [2, 'paper-store'],
      [17, 'scan-room'],
      [21, 'large-format-printer'],
    ] as const),
    ...([
      [34, 'intercom-base'],
      [57, null],
    ] as const),
  ];
  return heard.map(([last, name]) => ({
    ...{ address: at(last), mac: mac(last) },
    name: name === null ? null : `${name}.larkspur.example`,
  }));
}
