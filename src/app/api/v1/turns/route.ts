import { answering, faultAnswer, readBody } from '@/app/api/v1/answer';
import { COMMANDS, perform } from '@/app/commands';
import { technician } from '@/app/role';
import { queueOrderSchema } from '@/wire';

/** Puts a round into the queue. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const allowed = await technician('measure');
  if (!allowed.ok) return faultAnswer(allowed.fault);
  const body = await readBody(request, queueOrderSchema);
  if (!body.ok) return faultAnswer(body.fault);
  const queued = await perform(COMMANDS.queueTurns, body.value);
  return queued.ok ? Response.json({ queued: queued.value }, { status: 201 }) : faultAnswer(queued.fault);
});
