import { answering, faultAnswer, readBody } from '@/app/api/v1/answer';
import { visitorWith } from '@/app/visitor';
import { takeLook, theConsole } from '@/services';
import { lookOutcomeSchema } from '@/wire';

/** What an agent found that was asked to look at something. */
export const POST = answering(
  async (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
    const body = await readBody(request, lookOutcomeSchema);
    if (!body.ok) return faultAnswer(body.fault);
    const { cookie } = await visitorWith(null);
    const taken = await takeLook(theConsole(), cookie, (await params).id, body.value);
    return taken.ok ? new Response(null, { status: 204 }) : faultAnswer(taken.fault);
  },
);
