import {
  alarmOverWords,
  alarmsOf,
  alarmWords,
  isGoodNews,
  overTimeOfColumn,
  quietForMinutes,
  USUAL_RULES,
  type AlarmRules,
  type AlarmState,
  type LineShift,
  type Moment,
} from '@/core';
import type { Site, StoredAlarm, StoredDelivery, StoredRecipient } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { wallClock } from '../office/wall-clock';
import { lineBudget } from '../schedules';
import { timeSeriesOf } from '../views/time-series';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;
const NEWEST_RUNS = 60;
/** The course of a line over a quarter of a year says whether its level changed. */
const COURSE_MS = 90 * DAY_MS;
const TOLD_FOR_MS = 400 * DAY_MS;

/** What an office wants to be told of. */
export async function alarmRulesOf({ store }: Pick<ConsoleContext, 'store'>, siteId: string): Promise<AlarmRules> {
  return { ...USUAL_RULES, ...(await store.alarms.rulesOf(siteId)) };
}

export async function saveAlarmRules(
  context: ConsoleContext,
  siteId: string,
  rules: AlarmRules,
): Promise<Outcome<null, 'site-missing'>> {
  const { store } = context;
  if ((await store.sites.byId(siteId)) === null) return failed('site-missing');
  await store.alarms.saveRules(siteId, rules);
  // Whoever changed them sees at once what that comes to.
  await watchAlarms(context);
  return done(null);
}

/** How an office tells a time. */
export function momentOf({ timeZone }: Pick<Site, 'timeZone'>): Moment {
  const zone = timeZone === null ? {} : { timeZone };
  const format = new Intl.DateTimeFormat('en-GB', {
    ...zone,
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });
  return (atMs) => format.format(atMs);
}

/** Changes of level are worked out once an hour: they take a while, and are of days. */
interface KnownShiftsOf {
  readonly atMs: number;
  readonly shifts: readonly LineShift[];
}
type KnownShifts = Map<string, KnownShiftsOf>;
const shiftsKnown = new WeakMap<object, KnownShifts>();

async function shiftsOf(context: ConsoleContext, siteId: string, lineId: string): Promise<readonly LineShift[]> {
  const nowMs = context.wallMs();
  let known = shiftsKnown.get(context.standing);
  if (known === undefined) {
    known = new Map<string, KnownShiftsOf>();
    shiftsKnown.set(context.standing, known);
  }
  const before = known.get(lineId);
  if (before !== undefined && Math.abs(nowMs - before.atMs) < HOUR_MS) return before.shifts;
  const series = await timeSeriesOf(context, siteId, `line ${lineId}`, {
    fromMs: nowMs - COURSE_MS,
    untilMs: Infinity,
  });
  const shifts = !series.ok
    ? []
    : (['down', 'up'] as const).flatMap((direction) =>
        overTimeOfColumn(series.value.occasions, series.value.occasions[direction], direction).shown.shifts.map(
          ({ fromMs, untilMs, before: beforeBps, after: afterBps }): LineShift => ({
            ...{ direction, beforeBps, afterBps, fromMs, untilMs },
          }),
        ),
      );
  known.set(lineId, { atMs: nowMs, shifts });
  return shifts;
}

/** What is known of an office now. An agent that has not come back since the console was opened was heard of last then. */
async function stateOf(context: ConsoleContext, site: Site, rules: AlarmRules): Promise<AlarmState> {
  const { store } = context;
  const nowMs = context.wallMs();
  const [lines, agents, devices, findings, outages, lanes] = await Promise.all([
    store.sites.linesOf(site.id),
    store.agents.ofSite(site.id),
    store.sites.devicesOf(site.id),
    store.findings.findingsOf(site.id),
    rules.outageSeconds === null ? [] : store.lanes.outages(site.id, nowMs - HOUR_MS, nowMs + DAY_MS),
    store.lanes.ofSite(site.id),
  ]);
  const nameOf = (id: string) => devices.find((device) => device.id === id)?.name ?? '';
  return {
    nowMs,
    lines: await Promise.all(
      lines.map(async (line) => ({
        ...{ id: line.id, name: line.name },
        newest: await store.alarms.newestOfLine(line.id, NEWEST_RUNS),
        shifts: rules.levelShifts ? await shiftsOf(context, site.id, line.id) : [],
        movedBytes: (await lineBudget(context, line)).movedBytes,
        budgetBytes: line.budgetBytes,
      })),
    ),
    agents: agents.map(({ deviceId, seenAtMs }) => ({
      id: deviceId,
      name: nameOf(deviceId),
      silentSinceMs: context.standing.isPresent(deviceId) ? null : Math.max(seenAtMs, context.live.sinceMs),
    })),
    outages: outages.map(({ id, fault, laneIds, air, fromMs, untilMs }) => ({
      ...{ id, fault, air, fromMs, untilMs },
      names: lanes.filter((lane) => laneIds.includes(lane.id)).map(({ name }) => name),
    })),
    findings: findings
      // What got better is good to know, and nothing to be told of at night.
      .filter(({ state, finding }) => (state === 'open' || state === 'worked-on') && !isGoodNews(finding))
      .map(({ findingKey, finding }) => ({ key: findingKey, finding })),
  };
}

/** When a message may go: at once, or when the recipient's quiet hours are over. */
function mayGoAtMs({ quiet }: StoredRecipient, { timeZone }: Site, nowMs: number): number {
  const wall = new Date(wallClock(timeZone).wallAt(nowMs));
  return nowMs + quietForMinutes(quiet, wall.getUTCHours() * 60 + wall.getUTCMinutes()) * MINUTE_MS;
}

type Telling = Pick<StoredDelivery, 'eventId' | 'phase' | 'subject' | 'text'>;

/** A message for a recipient, to be sent when it may go. */
export function deliveryTo(
  { newId }: Pick<ConsoleContext, 'newId'>,
  recipient: StoredRecipient,
  site: Site,
  telling: Telling,
  nowMs: number,
): StoredDelivery {
  return {
    ...{ ...telling, id: newId(), recipientId: recipient.id, madeAtMs: nowMs, tries: 0 },
    nextTryAtMs: mayGoAtMs(recipient, site, nowMs),
    ...{ state: 'waits', trouble: null, endedAtMs: null },
  };
}

/** Who is told of an office. */
export const toldOf = (recipients: readonly StoredRecipient[], siteId: string) =>
  recipients.filter((each) => !each.paused && (each.siteId === null || each.siteId === siteId));

async function begin(context: ConsoleContext, site: Site, recipients: readonly StoredRecipient[], began: StoredAlarm) {
  const text = alarmWords(began.alarm, momentOf(site));
  const telling = { eventId: began.id, phase: 'began', subject: `${site.name}: ${text}`, text } as const;
  const deliveries = recipients.map((each) => deliveryTo(context, each, site, telling, began.beganAtMs));
  await context.store.alarms.tell({ began }, deliveries);
}

async function end(context: ConsoleContext, site: Site, recipients: readonly StoredRecipient[], ended: StoredAlarm) {
  const { alarms } = context.store;
  const nowMs = context.wallMs();
  const text = alarmOverWords(ended.alarm);
  const telling = { eventId: ended.id, phase: 'over', subject: `${site.name}: over. ${text}`, text } as const;
  const deliveries: StoredDelivery[] = [];
  for (const recipient of recipients) {
    const began = await alarms.beganFor(recipient.id, ended.id);
    // Who was not told that it began is not told that it is over; and one that waits for the morning is not told at all.
    if (began === null) continue;
    if (began.state === 'waits' && began.tries === 0)
      await alarms.settle(began.id, { state: 'dropped', endedAtMs: nowMs, trouble: 'it was over before' });
    else deliveries.push(deliveryTo(context, recipient, site, telling, nowMs));
  }
  await alarms.tell({ ended, atMs: nowMs }, deliveries);
}

/** Looks at an office and tells what has begun and what is over, each once. */
async function watchOffice(context: ConsoleContext, site: Site, all: readonly StoredRecipient[]): Promise<boolean> {
  const { alarms } = context.store;
  const [rules, open] = await Promise.all([alarmRulesOf(context, site.id), alarms.openAlarms(site.id)]);
  const now = alarmsOf(rules, await stateOf(context, site, rules), new Set(open.map(({ alarmKey }) => alarmKey)));
  const recipients = toldOf(all, site.id);
  const nowMs = context.wallMs();
  const begun = now.filter(({ key }) => !open.some(({ alarmKey }) => alarmKey === key));
  const over = open.filter(({ alarmKey }) => !now.some(({ key }) => key === alarmKey));
  for (const { key, alarm } of begun)
    await begin(context, site, recipients, {
      ...{ id: context.newId(), siteId: site.id, alarmKey: key, alarm, beganAtMs: nowMs, endedAtMs: null },
    });
  for (const each of over) await end(context, site, recipients, each);
  return begun.length + over.length > 0;
}

/** Looks at all offices. */
export async function watchAlarms(context: ConsoleContext): Promise<void> {
  await context.alarmDesk.run(async () => {
    const [sites, recipients] = await Promise.all([context.store.sites.all(), context.store.alarms.recipients()]);
    let changed = false;
    for (const site of sites) changed = (await watchOffice(context, site, recipients)) || changed;
    if (changed) context.changes.tell('findings');
  });
}

/** What was told long ago is forgotten. */
export async function forgetOldAlarms({ store, wallMs }: ConsoleContext): Promise<void> {
  await store.alarms.forgetBefore(wallMs() - TOLD_FOR_MS);
}
