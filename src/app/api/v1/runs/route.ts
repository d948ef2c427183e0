import { cookies } from 'next/headers';
import { visitedOrigin, visitorWith } from '@/app/visitor';
import { DEVICE_COOKIE, DEVICE_COOKIE_SECONDS, deviceCookieValue, startRun, theConsole } from '@/services';
import { startRunSchema } from '@/wire';
import { faultAnswer, readBody } from '../answer';

/** Starts a run: answers with the grant, and lets the browser be known as this device from now on. */
export async function POST(request: Request): Promise<Response> {
  const body = await readBody(request, startRunSchema);
  if (!body.ok) return faultAnswer(body.fault);
  const context = theConsole();
  const started = await startRun(context, await visitorWith(body.value.code), body.value, await visitedOrigin());
  if (!started.ok) return faultAnswer(started.fault);
  (await cookies()).set(DEVICE_COOKIE, deviceCookieValue(context, started.value.deviceId), {
    httpOnly: true,
    sameSite: 'lax',
    path: '/',
    maxAge: DEVICE_COOKIE_SECONDS,
  });
  return Response.json(started.value, { status: 201 });
}
