import { randomBytes, timingSafeEqual } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { DOOR_HEADER } from '@/wire';

/** Where both find the secret of front door and console: in their environment, which only their user can read. */
export const DOOR_SECRET_VARIABLE = 'BENT_STRAW_DOOR';

export function newDoorSecret(): string {
  return randomBytes(32).toString('base64url');
}

/** Whether a request came through the front door, and not straight to the console's loopback port. */
export function cameThroughDoor({ headers }: IncomingMessage, secret: string): boolean {
  const [given, wanted] = [Buffer.from(String(headers[DOOR_HEADER] ?? '')), Buffer.from(secret)];
  return wanted.length > 0 && given.length === wanted.length && timingSafeEqual(given, wanted);
}
