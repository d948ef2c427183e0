import { answering, faultAnswer } from '@/app/api/v1/answer';
import { technician } from '@/app/role';
import { theConsole, type ChangedThing } from '@/services';
import { eventStream } from '../event-stream';

/** Server-sent events: `changed` with what has, whenever something on the console did. */
export const GET = answering(async (request: Request): Promise<Response> => {
  const allowed = await technician();
  if (!allowed.ok) return faultAnswer(allowed.fault);
  return eventStream(request, allowed.value, (write) =>
    theConsole().changes.listen((what: readonly ChangedThing[]) => write('changed', { what })),
  );
});
