import { answering, faultAnswer, readForm, readQuery } from '@/app/api/v1/answer';
import { technician } from '@/app/role';
import { exportedRuns, theConsole } from '@/services';
import { exportChosenSchema, exportQuerySchema, type ExportFormat } from '@/wire';

const TYPES: Readonly<Record<ExportFormat, string>> = {
  csv: 'text/csv; charset=utf-8; header=present',
  json: 'application/json',
  ndjson: 'application/x-ndjson',
};

async function fileAnswer(query: Parameters<typeof exportedRuns>[1], format: ExportFormat): Promise<Response> {
  const found = await exportedRuns(theConsole(), query, format);
  if (!found.ok) return faultAnswer(found.fault);
  const { name, parts } = found.value;
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const part = await parts.next();
      if (part.done === true) controller.close();
      else controller.enqueue(encoder.encode(part.value));
    },
    // Whoever goes away in the middle lets it end here as well.
    async cancel() {
      await parts.return(undefined);
    },
  });
  return new Response(body, {
    headers: { 'Content-Type': TYPES[format], 'Content-Disposition': `attachment; filename="${name}"` },
  });
}

/** All runs that match as a file. */
export const GET = answering(async (request: Request): Promise<Response> => {
  const allowed = await technician();
  if (!allowed.ok) return faultAnswer(allowed.fault);
  const query = readQuery(request, exportQuerySchema);
  if (!query.ok) return faultAnswer(query.fault);
  const { site, query: typed, device, format } = query.value;
  return fileAnswer({ siteId: site, query: typed, deviceId: device }, format);
});

/** Those that were chosen, from a form: their ids would not fit into an address. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const allowed = await technician();
  if (!allowed.ok) return faultAnswer(allowed.fault);
  const form = await readForm(request, exportChosenSchema);
  if (!form.ok) return faultAnswer(form.fault);
  const { format, ...chosen } = form.value;
  return fileAnswer(chosen, format);
});
