import type { Device } from '@/store';
import type { ConsoleContext } from './console-context';
import { proofOf, provesIt } from './proofs';

export const DEVICE_COOKIE = 'bent-straw-device';
export const DEVICE_COOKIE_SECONDS = 365 * 24 * 3600;

/** What a browser keeps to be known again as this device. */
export function deviceCookieValue(context: Pick<ConsoleContext, 'signingKey'>, deviceId: string): string {
  return `${deviceId}.${proofOf(context.signingKey, 'device', deviceId)}`;
}

/** The device that a cookie proves; null for none, a forged one or a device that was removed. */
export async function deviceOfCookie(context: ConsoleContext, value: string | null): Promise<Device | null> {
  const [deviceId, proof] = value?.split('.') ?? [];
  if (!deviceId || !proof || !provesIt(context.signingKey, 'device', deviceId, proof)) return null;
  return context.store.sites.device(deviceId);
}
