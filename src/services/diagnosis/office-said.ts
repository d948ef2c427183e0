import { DEEP_QUEUE_MS, type Complaint, type Occasion, type RuledOut, type Said } from '@/core';
import type { Device, Line, StoredPeer } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import type { OfficeSegments } from './office-segments';
import { ruledOutIn } from './ruled-out';

/** What is measured within this after a complaint was measured because of it. */
const OF_COMPLAINT_MS = 15 * 60_000;

interface Known {
  readonly siteId: string;
  readonly sinceMs: number;
  readonly devices: readonly Device[];
  readonly outside: StoredPeer | undefined;
  readonly line: Line | null;
  readonly occasions: readonly Occasion[];
  readonly segments: OfficeSegments;
  readonly hourOf: (atMs: number) => number;
}

async function complaintsOf({ store }: ConsoleContext, office: Known): Promise<Complaint[]> {
  const { devices, outside, line, occasions, segments, hourOf } = office;
  if (outside === undefined) return [];
  const stored = await store.findings.complaintsSince(office.siteId, office.sinceMs);
  return stored.flatMap(({ deviceId: known, deviceName, what, atMs }): Complaint[] => {
    // Who had never measured before is known by name once its runs have come.
    const device = devices.find(({ id, name }) => (known === '' ? name === deviceName : id === known));
    // Calls suffer from waiting, which has a map of its own; who it is must be known, or there is no way to speak of.
    if (device === undefined || what === 'calls') return [];
    const deviceId = device.id;
    const measured = occasions.filter(
      (each) => each.deviceId === deviceId && each.startedAtMs >= atMs && each.startedAtMs <= atMs + OF_COMPLAINT_MS,
    );
    const waits = measured.some(
      ({ addedDownMs, addedUpMs }) => Math.max(addedDownMs ?? 0, addedUpMs ?? 0) >= DEEP_QUEUE_MS,
    );
    const path =
      measured.find(({ reach }) => reach === 'internet')?.path ??
      segments.pathOf({
        ...{ deviceId, link: device.link, startedAtMs: atMs, ipVersion: 4, reach: 'internet' },
        ...{ peerId: outside.id, lineId: line?.id ?? null },
      });
    return [{ deviceId, path, atMs, hour: hourOf(atMs), explained: waits }];
  });
}

async function ruledOutOf({ store, wallMs }: ConsoleContext, siteId: string): Promise<RuledOut[]> {
  const open = (await store.findings.huntsOf(siteId)).filter(({ state }) => state === 'open');
  const each = await Promise.all(
    open.map(async ({ id, focus }) =>
      [...ruledOutIn(await store.findings.stepsOf(id), wallMs())].map((check) => ({
        check,
        deviceId: focus.deviceId ?? null,
      })),
    ),
  );
  return each.flat();
}

/** What people say of an office beside its runs: who suffers, and what was ruled out in the hunts that are open. */
export async function officeSaid(context: ConsoleContext, known: Known): Promise<Said> {
  const [complaints, ruledOut] = await Promise.all([complaintsOf(context, known), ruledOutOf(context, known.siteId)]);
  return { complaints, ruledOut };
}
