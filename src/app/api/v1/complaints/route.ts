import { answering, faultAnswer, readBody } from '@/app/api/v1/answer';
import { visitorWith } from '@/app/visitor';
import { noteComplaint, theConsole } from '@/services';
import { complaintSchema } from '@/wire';

/** Somebody at a device says that it is slow now. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await readBody(request, complaintSchema);
  if (!body.ok) return faultAnswer(body.fault);
  const noted = await noteComplaint(theConsole(), await visitorWith(body.value.code), body.value);
  return noted.ok ? Response.json({ noted: true }, { status: 201 }) : faultAnswer(noted.fault);
});
