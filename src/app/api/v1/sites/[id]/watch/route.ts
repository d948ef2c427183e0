import { answering, faultAnswer, readQuery } from '@/app/api/v1/answer';
import { technician } from '@/app/role';
import { theConsole, watchedSpanOf } from '@/services';
import { watchQuerySchema } from '@/wire';

const HOUR_MS = 3600_000;

/** The lanes of an office over a span of time. */
export const GET = answering(
  async (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
    const allowed = await technician('read');
    if (!allowed.ok) return faultAnswer(allowed.fault);
    const query = readQuery(request, watchQuerySchema);
    if (!query.ok) return faultAnswer(query.fault);
    const context = theConsole();
    const untilMs = query.value.until === undefined ? context.wallMs() : Date.parse(query.value.until);
    const fromMs = query.value.from === undefined ? untilMs - HOUR_MS : Date.parse(query.value.from);
    const span = await watchedSpanOf(context, (await params).id, { fromMs: Math.min(fromMs, untilMs), untilMs });
    return span.ok ? Response.json(span.value) : faultAnswer(span.fault);
  },
);
