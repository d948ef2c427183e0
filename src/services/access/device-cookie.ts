import type { Device } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { proofOf, provesIt } from '../console/proofs';

export const DEVICE_COOKIE = 'bent-straw-device';
const DAY_MS = 24 * 3600_000;
/** Without use it ends: whoever found an old telephone is nobody here. */
const LIFE_MS = 90 * DAY_MS;
export const DEVICE_COOKIE_SECONDS = LIFE_MS / 1000;
/** One that is older is replaced when the device asks for a run. */
const RENEW_MS = DAY_MS;
/** The one before holds so long: the answer with the new one may have been lost. */
const GRACE_MS = DAY_MS;
/** Stands for when cookies did not say when they were given. */
const UNDATED = 0;

type Cookied = Pick<Device, 'id' | 'cookieAtMs' | 'cookieBeforeMs' | 'simulated'>;

const claimOf = (deviceId: string, givenAtMs: number) =>
  givenAtMs === UNDATED ? deviceId : `${deviceId} ${Math.round(givenAtMs)}`;

/** What a browser keeps to be known again as this device. `givenAtMs`: the device's `cookieAtMs`; the demo's own say no time. */
export function deviceCookieValue(
  { signingKey }: Pick<ConsoleContext, 'signingKey'>,
  deviceId: string,
  givenAtMs = UNDATED,
): string {
  return `${deviceId}.${Math.round(givenAtMs)}.${proofOf(signingKey, 'device', claimOf(deviceId, givenAtMs))}`;
}

function isCurrent({ cookieAtMs, cookieBeforeMs, simulated }: Cookied, givenAtMs: number, nowMs: number): boolean {
  // The demo plays these, as often as it starts.
  if (simulated) return true;
  if (givenAtMs === UNDATED) return cookieBeforeMs === UNDATED;
  if (nowMs - givenAtMs > LIFE_MS || cookieAtMs === null) return false;
  if (givenAtMs === Math.round(cookieAtMs)) return true;
  return cookieBeforeMs !== null && givenAtMs === Math.round(cookieBeforeMs) && nowMs - cookieAtMs <= GRACE_MS;
}

/** The device that a cookie proves; null for none, a forged, an ended or a replaced one, or a device that was removed. */
export async function deviceOfCookie(context: ConsoleContext, value: string | null): Promise<Device | null> {
  const parts = value?.split('.') ?? [];
  const [deviceId = '', given, proof] = parts.length === 2 ? [parts[0], String(UNDATED), parts[1]] : parts;
  const givenAtMs = Number(given);
  if (
    !Number.isSafeInteger(givenAtMs) ||
    !provesIt(context.signingKey, 'device', claimOf(deviceId, givenAtMs), proof ?? '')
  )
    return null;
  const device = await context.store.sites.device(deviceId);
  if (device === null) return null;
  // One that was known by another id has the cookie of before its merger.
  if (device.id !== deviceId) return context.wallMs() - givenAtMs <= LIFE_MS || givenAtMs === UNDATED ? device : null;
  return isCurrent(device, givenAtMs, context.wallMs()) ? device : null;
}

/** The cookie that a device has now, for the answer to whoever asked for a run as it. */
export async function cookieOfDevice(context: ConsoleContext, deviceId: string): Promise<string> {
  const device = await context.store.sites.device(deviceId);
  return deviceCookieValue(context, deviceId, device?.cookieAtMs ?? context.wallMs());
}

/** Whether some browser or agent is this device now. */
export function isTaken({ cookieAtMs }: Pick<Device, 'cookieAtMs'>, nowMs: number): boolean {
  return cookieAtMs !== null && nowMs - cookieAtMs <= LIFE_MS;
}

/** How whoever asks for a run comes to be the device. */
export type Becoming = 'itself' | 'beside' | 'instead';

/**
 * What is remembered of a device's cookie when it asks for a run: *itself* gets a new one each day; whoever runs *beside*
 * it from the console's own machine shares it; one that came *instead* ends the one before at once.
 */
export function cookieTimes(
  existing: Pick<Device, 'cookieAtMs' | 'cookieBeforeMs'> | undefined,
  becoming: Becoming,
  nowMs: number,
): Pick<Device, 'cookieAtMs' | 'cookieBeforeMs'> {
  const was = existing?.cookieAtMs ?? null;
  if (existing === undefined || was === null || becoming === 'instead')
    return { cookieAtMs: nowMs, cookieBeforeMs: null };
  if (becoming === 'itself' && nowMs - was <= RENEW_MS)
    return { cookieAtMs: was, cookieBeforeMs: existing.cookieBeforeMs };
  return { cookieAtMs: nowMs, cookieBeforeMs: was };
}
