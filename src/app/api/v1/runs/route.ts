import { setDeviceCookie } from '@/app/device-cookie';
import { visitedOrigin, visitorWith } from '@/app/visitor';
import { technician } from '@/app/role';
import { askForRun, ledgerPageOf, theConsole } from '@/services';
import { ledgerQuerySchema, startRunSchema } from '@/wire';
import { answering, faultAnswer, readBody, readQuery } from '../answer';

/** The ledger, a page at a time. */
export const GET = answering(async (request: Request): Promise<Response> => {
  const allowed = await technician();
  if (!allowed.ok) return faultAnswer(allowed.fault);
  const query = readQuery(request, ledgerQuerySchema);
  if (!query.ok) return faultAnswer(query.fault);
  const { site, query: typed, device, link, reach, from, until, sort, way, after } = query.value;
  const narrowed = {
    ...{ siteId: site, query: typed, deviceId: device, linkKind: link, reach, sort, after },
    descending: way === undefined ? undefined : way === 'down',
    fromMs: from === undefined ? undefined : Date.parse(from),
    untilMs: until === undefined ? undefined : Date.parse(until),
  };
  const found = await ledgerPageOf(theConsole(), narrowed);
  return found.ok ? Response.json(found.value) : faultAnswer(found.fault);
});

/**
 * Asks for a run: answers with the grant (201), or with a place in the queue (202), after which the device asks again
 * with its turn. Lets the browser be known as this device from now on.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await readBody(request, startRunSchema);
  if (!body.ok) return faultAnswer(body.fault);
  const context = theConsole();
  const asked = await askForRun(context, await visitorWith(body.value.code), body.value, await visitedOrigin());
  if (!asked.ok) return faultAnswer(asked.fault);
  await setDeviceCookie(context, asked.value.deviceId);
  return Response.json(asked.value, { status: asked.value.status === 'granted' ? 201 : 202 });
});
