import { technician } from '@/app/role';
import { receiveImport, theConsole } from '@/services';
import { importPartSchema } from '@/wire';
import { answering, faultAnswer, readBytes, readQuery } from '../../../answer';

/** The next bytes of a file that was opened for bringing in. */
export const POST = answering(
  async (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
    const allowed = await technician('everything');
    if (!allowed.ok) return faultAnswer(allowed.fault);
    const query = readQuery(request, importPartSchema);
    if (!query.ok) return faultAnswer(query.fault);
    const part = await readBytes(request);
    if (!part.ok) return faultAnswer(part.fault);
    const { id } = await params;
    const received = await receiveImport(theConsole(), id, query.value.from, part.value);
    return received.ok ? Response.json({ receivedBytes: received.value.receivedBytes }) : faultAnswer(received.fault);
  },
);
