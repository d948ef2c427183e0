import { seededRandom, type LookAsked } from '@/core';
import type { ConsoleContext } from '@/services';
import { DEMO_RESOLVERS, simulatedLook } from './simulated-looks';

const HOUR_MS = 3600_000;

/** What was looked at in the demo's office, the oldest first. */
const LOOKED: readonly (readonly [number, LookAsked])[] = [
  [75, { what: 'path', target: 'example.com' }],
  [
    51,
    {
      what: 'names',
      resolvers: [DEMO_RESOLVERS.quick, DEMO_RESOLVERS.lying],
      names: ['example.com', 'example.net', 'example.org'],
    },
  ],
  [27, { what: 'share', folder: '/mnt/store', megabytes: 512, streams: 1 }],
  [26.5, { what: 'programs', seconds: 10 }],
  [20, { what: 'air' }],
  [3.5, { what: 'ports', target: '198.51.100.3', seconds: 10 }],
];

/** Looks of a machine that took place in the last days. */
export async function seedLooks(
  { store, newId, wallMs }: ConsoleContext,
  { siteId, deviceId, name, gateway }: { siteId: string; deviceId: string; name: string; gateway: string },
): Promise<void> {
  const random = seededRandom(53);
  for (const [hoursAgo, asked] of LOOKED) {
    const askedAtMs = wallMs() - hoursAgo * HOUR_MS;
    await store.looks.insert({
      ...{ id: newId(), siteId, deviceId, deviceName: name, asked, askedBy: 'Ines', askedAtMs },
      ...{ endedAtMs: askedAtMs + 9000, outcome: { ok: true, found: simulatedLook(asked, gateway, random) } },
    });
  }
}
