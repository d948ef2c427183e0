import { answering, faultAnswer } from '@/app/api/v1/answer';
import { eventStream } from '@/app/api/v1/event-stream';
import { technician } from '@/app/role';
import { theConsole, watchBeats } from '@/services';
import { failed } from '@/wire';

/** Server-sent events: `beats` with what the lanes of an office said in the last second, `rates` with what a run of it moved. */
export const GET = answering(
  async (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> => {
    const allowed = await technician('read');
    if (!allowed.ok) return faultAnswer(allowed.fault);
    const context = theConsole();
    const { id } = await params;
    if ((await context.store.sites.byId(id)) === null) return faultAnswer(failed('site-missing').fault);
    return eventStream(request, allowed.value, (write) =>
      watchBeats(context, id, (heard) =>
        heard.kind === 'beats' ? write('beats', { beats: heard.beats }) : write('rates', heard.rates),
      ),
    );
  },
);
