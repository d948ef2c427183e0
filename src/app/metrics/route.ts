import { answering, faultAnswer } from '@/app/api/v1/answer';
import { technician } from '@/app/role';
import { metricsOf, theConsole } from '@/services';

/** Figures for a program that gathers them (OpenMetrics), with a token that may read. */
export const GET = answering(async (): Promise<Response> => {
  const allowed = await technician('read');
  if (!allowed.ok) return faultAnswer(allowed.fault);
  const { type, text } = await metricsOf(theConsole());
  return new Response(text, { headers: { 'Content-Type': type, 'Cache-Control': 'no-store' } });
});
