import { DEEP_QUEUE_MS, type Complaint, type Occasion, type RuledOut, type Said } from '@/core';
import type { Device, Line, StoredComplaint, StoredPeer } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import type { OfficeSegments } from './office-segments';
import { ruledOutIn } from './ruled-out';

/** What is measured within this after a complaint was measured because of it. */
const OF_COMPLAINT_MS = 15 * 60_000;

/** What was said, as it is kept. */
export interface KeptWords {
  readonly complaints: readonly StoredComplaint[];
  readonly ruledOut: readonly RuledOut[];
}

interface Known {
  readonly devices: readonly Device[];
  readonly outside: StoredPeer | undefined;
  readonly line: Line | null;
  readonly occasions: readonly Occasion[];
  readonly segments: OfficeSegments;
  readonly hourOf: (atMs: number) => number;
}

function complaintsOf(stored: KeptWords['complaints'], office: Known): Complaint[] {
  const { devices, outside, line, occasions, segments, hourOf } = office;
  if (outside === undefined) return [];
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

/** What people have said of an office since a time, and what was ruled out in the hunts that are open. */
export async function keptWordsOf(context: ConsoleContext, siteId: string, sinceMs: number): Promise<KeptWords> {
  const [complaints, ruledOut] = await Promise.all([
    context.store.findings.complaintsSince(siteId, sinceMs),
    ruledOutOf(context, siteId),
  ]);
  return { complaints, ruledOut };
}

/** The same as evidence beside the runs: who suffers, on which path, and whether its runs explain it. */
export function officeSaid({ complaints, ruledOut }: KeptWords, known: Known): Said {
  return { complaints: complaintsOf(complaints, known), ruledOut };
}
