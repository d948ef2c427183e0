import { answering, faultAnswer, readBody } from '@/app/api/v1/answer';
import { COMMANDS, perform } from '@/app/commands';
import { technician } from '@/app/role';
import { betweenOrderSchema } from '@/wire';

/** Puts a run from one agent to another into the queue. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const allowed = await technician('measure');
  if (!allowed.ok) return faultAnswer(allowed.fault);
  const body = await readBody(request, betweenOrderSchema);
  if (!body.ok) return faultAnswer(body.fault);
  const queued = await perform(COMMANDS.queueBetween, body.value);
  return queued.ok ? Response.json({ turnId: queued.value }, { status: 201 }) : faultAnswer(queued.fault);
});
