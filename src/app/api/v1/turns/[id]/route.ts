import { answering, faultAnswer } from '@/app/api/v1/answer';
import { COMMANDS, perform } from '@/app/commands';

/** Takes a turn out of the queue; one that is running is stopped. */
export const DELETE = answering(
  async (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
    const outcome = await perform(COMMANDS.withdrawTurn, { turnId: (await params).id });
    return outcome.ok ? new Response(null, { status: 204 }) : faultAnswer(outcome.fault);
  },
);
