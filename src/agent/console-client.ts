import { httpRequest } from '@/client/node';
import type { Post } from '@/session';
import { AgentFault } from './agent-faults';
import type { DeviceMemory } from './known-devices';

/** Longer than the console may hold an answer back, ms. */
const PATIENCE_MS = 30_000;
export const DEVICE_COOKIE_NAME = 'bent-straw-device';

/** Where a console is, and how one came to it. */
export interface ConsoleAddress {
  readonly origin: string;
  readonly code: string | null;
}

/** From an address as the board shows it: `http://192.0.2.20:4870/j/KMT4QX`. Throws AgentFault. */
export function readConsoleAddress(address: string): ConsoleAddress {
  let url: URL;
  try {
    url = new URL(address);
  } catch {
    throw new AgentFault('address-malformed', { address });
  }
  if (url.protocol !== 'http:' && url.protocol !== 'https:') throw new AgentFault('address-malformed', { address });
  return { origin: url.origin, code: /^\/j\/([^/]+)$/.exec(url.pathname)?.[1] ?? null };
}

/** The value of the device's cookie that an answer sets; null when it sets none. */
function cookieSetBy(setCookies: readonly string[]): string | null {
  const set = setCookies.find((line) => line.startsWith(`${DEVICE_COOKIE_NAME}=`));
  return set === undefined ? null : (/=([^;]*)/.exec(set)?.[1] ?? null);
}

/**
 * Posts to a console as the device that this machine is known as under a name, with the cookie that proves it, as a
 * browser does; what the console gives is remembered.
 */
export function postTo(origin: string, name: string, devices: DeviceMemory): Post {
  return async (path, body) => {
    const cookie = devices.of(origin, name)?.cookie ?? null;
    const answer = await httpRequest(new URL(path, origin), {
      method: 'POST',
      headers: {
        'Content-Type': 'application/json',
        ...(cookie !== null && { Cookie: `${DEVICE_COOKIE_NAME}=${cookie}` }),
      },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(PATIENCE_MS),
    });
    const set = cookieSetBy(answer.setCookies);
    if (set !== null) devices.remember(origin, name, { id: decodeURIComponent(set).split('.')[0]!, cookie: set });
    return answer;
  };
}
