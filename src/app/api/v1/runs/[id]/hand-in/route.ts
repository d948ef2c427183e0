import { answering, faultAnswer, readBody } from '@/app/api/v1/answer';
import { handInRun, theConsole } from '@/services';
import { handInRequestSchema } from '@/wire';

/** Takes a run in, finished or not; may be repeated. */
export const POST = answering(
  async (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
    const body = await readBody(request, handInRequestSchema);
    if (!body.ok) return faultAnswer(body.fault);
    const { runKey, handIn } = body.value;
    const answer = await handInRun(theConsole(), (await params).id, runKey, handIn);
    return answer.ok ? Response.json(answer.value) : faultAnswer(answer.fault);
  },
);
