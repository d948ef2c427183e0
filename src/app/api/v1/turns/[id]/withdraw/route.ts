import { answering, faultAnswer, readBody } from '@/app/api/v1/answer';
import { giveTurnBack, theConsole } from '@/services';
import { failed, withdrawRequestSchema } from '@/wire';

/** A device that waits for a turn gives it back. */
export const POST = answering(
  async (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
    const body = await readBody(request, withdrawRequestSchema);
    if (!body.ok) return faultAnswer(body.fault);
    const given = await giveTurnBack(theConsole(), (await params).id, body.value.turnKey);
    return given ? new Response(null, { status: 204 }) : faultAnswer(failed('turn-key-wrong').fault);
  },
);
