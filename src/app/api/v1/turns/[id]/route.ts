import { faultAnswer } from '@/app/api/v1/answer';
import { technician } from '@/app/role';
import { theConsole, withdrawTurn } from '@/services';

/** Takes a turn out of the queue; one that is running already goes on. */
export async function DELETE(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const allowed = await technician();
  if (!allowed.ok) return faultAnswer(allowed.fault);
  await withdrawTurn(theConsole(), (await params).id);
  return new Response(null, { status: 204 });
}
