import { visitorWith } from '@/app/visitor';
import { takeMinutes, theConsole } from '@/services';
import { laneMinutesSchema } from '@/wire';
import { answering, faultAnswer, readBody } from '../../answer';

/** Minutes of lanes from the agent that keeps them. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await readBody(request, laneMinutesSchema);
  if (!body.ok) return faultAnswer(body.fault);
  const { cookie } = await visitorWith(null);
  const taken = await takeMinutes(theConsole(), cookie, body.value.minutes);
  return taken.ok ? Response.json(taken.value) : faultAnswer(taken.fault);
});
