import { cookies, headers } from 'next/headers';
import { cookieOfDevice, DEVICE_COOKIE, DEVICE_COOKIE_SECONDS, type ConsoleContext } from '@/services';

/** Lets whoever asked be known as this device from now on. */
export async function setDeviceCookie(context: ConsoleContext, deviceId: string): Promise<void> {
  (await cookies()).set(DEVICE_COOKIE, await cookieOfDevice(context, deviceId), {
    httpOnly: true,
    sameSite: 'lax',
    secure: (await headers()).get('x-forwarded-proto') === 'https',
    path: '/',
    maxAge: DEVICE_COOKIE_SECONDS,
  });
}
