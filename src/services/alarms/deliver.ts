import type { StoredDelivery } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { mailServerOf } from './mail-server';
import { secretOf } from './recipients';
import type { Senders } from '../console/senders';

const MINUTE_MS = 60_000;
const AT_ONCE = 20;
/** Pauses before each further try; after the last it is given up, and that is shown. */
const PAUSES_MS = [1, 5, 15, 60, 180, 360, 720].map((minutes) => minutes * MINUTE_MS);
const MOST_TROUBLE = 300;

async function send(context: ConsoleContext, delivery: StoredDelivery, senders: Senders): Promise<void> {
  const { alarms, sites } = context.store;
  const recipient = (await alarms.recipient(delivery.recipientId))!;
  const { id, subject, text, phase, madeAtMs, eventId } = delivery;
  if (recipient.kind === 'mail') {
    const server = await mailServerOf(context);
    if (server === null) throw new Error('no mail server is named; name one, then it is sent');
    return senders.mail(server, recipient.target, { id, subject, text });
  }
  const secret = secretOf(context, recipient);
  if (secret === null) throw new Error('its secret cannot be read with this console’s key; make the recipient anew');
  const event = eventId === null ? null : await alarms.alarm(eventId);
  const siteId = event?.siteId ?? recipient.siteId;
  const office = siteId === null ? 'all offices' : ((await sites.byId(siteId))?.name ?? '');
  const { target: url, allowPrivate } = recipient;
  const message = { id, subject, text, phase, office, kind: event?.alarm.kind ?? null, atMs: madeAtMs };
  return senders.webhook({ url, secret, allowPrivate }, message);
}

/** Tries one message. What was tried is written down before: one that ends in the middle is tried again, with the same id. */
async function deliverOne(context: ConsoleContext, delivery: StoredDelivery, senders: Senders): Promise<void> {
  const { alarms } = context.store;
  const tries = delivery.tries + 1;
  const pause = PAUSES_MS[delivery.tries];
  const nowMs = context.wallMs();
  await alarms.settle(delivery.id, { tries, nextTryAtMs: nowMs + (pause ?? 0) });
  try {
    await send(context, delivery, senders);
    await alarms.settle(delivery.id, { state: 'sent', trouble: null, endedAtMs: context.wallMs() });
  } catch (error) {
    const trouble = (error instanceof Error ? error.message : String(error)).slice(0, MOST_TROUBLE);
    context.log.warn({ delivery: delivery.id, tries, trouble }, 'a message did not arrive');
    const givenUp = pause === undefined;
    await alarms.settle(delivery.id, {
      trouble,
      ...(givenUp && { state: 'failed' as const, endedAtMs: context.wallMs() }),
    });
  }
}

/** Sends what is to be sent now; one that hangs keeps no other. */
export async function deliverDue(context: ConsoleContext): Promise<void> {
  const { senders } = context;
  if (senders === undefined) return;
  const due = await context.store.alarms.due(context.wallMs(), AT_ONCE);
  await Promise.all(due.map((delivery) => deliverOne(context, delivery, senders)));
  if (due.length > 0) context.changes.tell('findings');
}
