import { answering, faultAnswer, readBody } from '@/app/api/v1/answer';
import { noteRunAlive, theConsole } from '@/services';
import { aliveRequestSchema } from '@/wire';

/** The device is still measuring. */
export const POST = answering(
  async (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
    const body = await readBody(request, aliveRequestSchema);
    if (!body.ok) return faultAnswer(body.fault);
    const { runKey, rates } = body.value;
    return Response.json(await noteRunAlive(theConsole(), (await params).id, runKey, rates ?? null));
  },
);
