import { answering, faultAnswer } from '@/app/api/v1/answer';
import { currentRole } from '@/app/role';
import { samplesDocumentOf, theConsole } from '@/services';

/** The raw samples of a run with its conditions, for checking and recomputing. */
export const GET = answering(async (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
  const { id } = await params;
  const found = await samplesDocumentOf(theConsole(), await currentRole(), id);
  if (!found.ok) return faultAnswer(found.fault);
  return Response.json(found.value, { headers: { 'Content-Disposition': `attachment; filename="run-${id}.json"` } });
});
