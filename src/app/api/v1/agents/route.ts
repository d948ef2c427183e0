import { setDeviceCookie } from '@/app/device-cookie';
import { visitorWith } from '@/app/visitor';
import { joinAgent, theConsole } from '@/services';
import { joinAgentSchema } from '@/wire';
import { answering, faultAnswer, readBody } from '../answer';

/** A machine enrols as an agent: it is known as this device from now on. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await readBody(request, joinAgentSchema);
  if (!body.ok) return faultAnswer(body.fault);
  const context = theConsole();
  const joined = await joinAgent(context, await visitorWith(body.value.code), body.value);
  if (!joined.ok) return faultAnswer(joined.fault);
  await setDeviceCookie(context, joined.value.deviceId);
  return Response.json(joined.value, { status: 201 });
});
