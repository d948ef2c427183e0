import { toldPageOf, type ConsoleContext } from '@/services';
import { done, type Outcome, type ToldDocument } from '@/wire';

const moment = (atMs: number) => new Date(atMs).toISOString();

export async function toldDocument(
  context: ConsoleContext,
  siteId: string,
): Promise<Outcome<ToldDocument, 'site-missing'>> {
  const page = await toldPageOf(context, siteId);
  if (!page.ok) return page;
  const { rules, alarms, recipients } = page.value;
  return done({
    rules,
    alarms: alarms.map(({ id, kind, sentence, beganAtMs, endedAtMs }) => ({
      ...{ id, kind, sentence, beganAt: moment(beganAtMs), endedAt: endedAtMs === null ? null : moment(endedAtMs) },
    })),
    recipients: recipients.map(({ id, kind, target, ofAll, paused, digest, deliveries }) => ({
      ...{ id, kind, target, paused, digest, of: ofAll ? ('all' as const) : ('office' as const) },
      deliveries: deliveries.map((each) => ({
        ...{ id: each.id, phase: each.phase, subject: each.subject, madeAt: moment(each.madeAtMs) },
        ...{ tries: each.tries, state: each.state, trouble: each.trouble },
      })),
    })),
  });
}
