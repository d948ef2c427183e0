import { visitedOrigin, visitorWith } from '@/app/visitor';
import { laneTicket, theConsole } from '@/services';
import { answering, faultAnswer } from '../../../answer';

/** A ticket for watching, for the page that keeps this lane. */
export const POST = answering(
  async (_: Request, { params }: { readonly params: Promise<{ readonly id: string }> }): Promise<Response> => {
    const [{ id }, { cookie }] = await Promise.all([params, visitorWith(null)]);
    const given = await laneTicket(theConsole(), cookie, id, await visitedOrigin());
    return given.ok ? Response.json(given.value) : faultAnswer(given.fault);
  },
);
