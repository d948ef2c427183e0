import { figuresOfMinutes, MINUTE_MS, type LaneMinute } from '@/core';
import { done, failed, type LaneMinuteSent, type Outcome } from '@/wire';
import { deviceOfCookie } from '../access/device-cookie';
import type { ConsoleContext } from '../console/console-context';
import { refreshOutages } from './outages';
import { sumAnew } from './sum-lanes';

/** What lies further ahead of the console's clock cannot have been measured. */
const AHEAD_MS = 2 * MINUTE_MS;

/** What is shown of a minute is worked out here, from its requests: the figures that came with them are not believed. */
function received({ laneId, fromMs, raw: text }: LaneMinuteSent): LaneMinute {
  const raw = new Uint8Array(Buffer.from(text, 'base64'));
  return { laneId, fromMs, ...figuresOfMinutes([raw]), raw };
}

/** Minutes of lanes from the machine that keeps them. May be repeated: each is written down once. */
export async function takeMinutes(
  context: ConsoleContext,
  cookie: string | null,
  sent: readonly LaneMinuteSent[],
): Promise<Outcome<{ readonly taken: number; readonly nowMs: number }, 'not-joined'>> {
  const device = await deviceOfCookie(context, cookie);
  if (device === null) return failed('not-joined');
  const nowMs = context.wallMs();
  const own = new Set((await context.store.lanes.ofDevice(device.id)).map(({ id }) => id));
  const minutes = sent
    .filter(({ laneId, fromMs }) => own.has(laneId) && fromMs % MINUTE_MS === 0 && fromMs <= nowMs + AHEAD_MS)
    .map(received)
    .filter((minute) => minute.sent > 0);
  if (minutes.length > 0) {
    await context.store.lanes.addMinutes(minutes);
    await sumAnew(context, minutes);
    const times = minutes.map(({ fromMs }) => fromMs);
    const [first, last] = [Math.min(...times), Math.max(...times)];
    const begunOrOver = await refreshOutages(
      context,
      { deviceId: device.id, siteId: device.siteId },
      first,
      last + MINUTE_MS,
    );
    // Minutes come all the time; a board shows only what goes on.
    context.changes.tell('lanes', ...(begunOrOver ? (['presence'] as const) : []));
  }
  return done({ taken: minutes.length, nowMs });
}
