import { alarmWords, type AlarmRules } from '@/core';
import type { StoredDelivery, StoredRecipient } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import type { MailServer } from '../console/senders';
import { mailServerOf } from './mail-server';
import { alarmRulesOf, momentOf } from './watch-alarms';

const MOST_ALARMS = 40;
const MOST_DELIVERIES = 15;

/** Something that was told, as it is shown. */
export interface ShownAlarm {
  readonly id: string;
  readonly kind: string;
  readonly sentence: string;
  readonly beganAtMs: number;
  readonly endedAtMs: number | null;
}

/** Whoever is told, and what became of the last messages. */
export interface ShownRecipient extends Pick<
  StoredRecipient,
  'id' | 'kind' | 'target' | 'paused' | 'digest' | 'quiet'
> {
  readonly ofAll: boolean;
  readonly deliveries: readonly Pick<
    StoredDelivery,
    'id' | 'phase' | 'subject' | 'state' | 'trouble' | 'madeAtMs' | 'tries' | 'nextTryAtMs' | 'endedAtMs'
  >[];
}

export interface ToldPage {
  readonly rules: AlarmRules;
  readonly alarms: readonly ShownAlarm[];
  readonly recipients: readonly ShownRecipient[];
  /** Without its password; null: none is named. */
  readonly mailServer: Omit<MailServer, 'password'> | null;
}

/** What an office wants to be told of, what happened, who was told, and whether it arrived. */
export async function toldPageOf(context: ConsoleContext, siteId: string): Promise<Outcome<ToldPage, 'site-missing'>> {
  const { alarms, sites } = context.store;
  const site = await sites.byId(siteId);
  if (site === null) return failed('site-missing');
  const moment = momentOf(site);
  const [rules, found, all, server] = await Promise.all([
    alarmRulesOf(context, siteId),
    alarms.alarmsOf(siteId, MOST_ALARMS),
    alarms.recipients(),
    mailServerOf(context),
  ]);
  const own = all.filter((each) => each.siteId === null || each.siteId === siteId);
  return done({
    rules,
    alarms: found.map(({ id, alarm, beganAtMs, endedAtMs }) => ({
      ...{ id, kind: alarm.kind, beganAtMs, endedAtMs },
      sentence: alarmWords(alarm, moment),
    })),
    recipients: await Promise.all(
      own.map(async ({ id, kind, target, paused, digest, quiet, siteId: of }) => ({
        ...{ id, kind, target, paused, digest, quiet, ofAll: of === null },
        deliveries: await alarms.deliveriesOf(id, MOST_DELIVERIES),
      })),
    ),
    mailServer:
      server === null
        ? null
        : { host: server.host, port: server.port, security: server.security, user: server.user, from: server.from },
  });
}
