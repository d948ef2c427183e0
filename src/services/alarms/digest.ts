import { alarmWords, countWords, median, shareWords, type PlanOverTime } from '@/core';
import type { Site, StoredRecipient } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { wallClock } from '../office/wall-clock';
import { lineBudget } from '../schedules';
import { availabilitySentences } from '../views/report/silence-section';
import { timeSeriesOf } from '../views/time-series';
import { deliveryTo, momentOf } from './watch-alarms';

const HOUR_MS = 3600_000;
const WEEK_MS = 7 * 24 * HOUR_MS;
const MONDAY = 1;
const AT_HOUR = 7;
/** A fall of the median of a week by so much is told. */
const TOLD_CHANGE = 0.05;

const shareOf = ({ met, notMet }: Pick<PlanOverTime, 'met' | 'notMet'>) =>
  met + notMet === 0 ? null : met / (met + notMet);

const middle = (values: readonly (number | null)[]) => median(values.filter((value) => value !== null));

/** What a week of an office comes to, a sentence each. */
export async function weekSentences(context: ConsoleContext, site: Site, untilMs: number): Promise<string[]> {
  const { store } = context;
  const sentences: string[] = [];
  for (const line of await store.sites.linesOf(site.id)) {
    const week = async (endMs: number) => {
      const series = await timeSeriesOf(context, site.id, `line ${line.id}`, {
        fromMs: endMs - WEEK_MS,
        untilMs: endMs,
      });
      return series.ok ? series.value : null;
    };
    const [now, before] = [await week(untilMs), await week(untilMs - WEEK_MS)];
    const share = now?.plan ? shareOf(now.plan) : null;
    if (now === null || now.occasions.runId.length === 0) {
      sentences.push(`${line.name} was not measured.`);
      continue;
    }
    if (share !== null)
      sentences.push(`${line.name} met its plan in ${shareWords(share)} of the runs that could tell.`);
    for (const direction of ['down', 'up'] as const) {
      const [is, was] = [middle(now.occasions[direction]), middle(before?.occasions[direction] ?? [])];
      if (is === null || was === null || Math.abs(is / was - 1) < TOLD_CHANGE) continue;
      const word = is < was ? 'fell' : 'rose';
      const way = direction === 'down' ? 'download' : 'upload';
      sentences.push(`${line.name}: the ${way} ${word} by ${shareWords(Math.abs(is / was - 1))}.`);
    }
    const { movedBytes, budgetBytes } = await lineBudget(context, line);
    if (budgetBytes !== null)
      sentences.push(`${line.name}: ${shareWords(movedBytes / budgetBytes)} of the month’s data volume is used.`);
  }
  sentences.push(...(await availabilitySentences(context, site.id, { fromMs: untilMs - WEEK_MS, untilMs })));
  const moment = momentOf(site);
  const open = await store.alarms.openAlarms(site.id);
  for (const { alarm } of open.slice(0, 5)) sentences.push(`Still so: ${alarmWords(alarm, moment)}`);
  if (open.length > 5) sentences.push(`… and ${countWords(open.length - 5, 'other thing')}.`);
  return sentences;
}

/** When the last Monday at seven of an office was. */
function lastMondayMs({ timeZone }: Pick<Site, 'timeZone'>, nowMs: number): number {
  const clock = wallClock(timeZone);
  const wall = new Date(clock.wallAt(nowMs));
  const days = (wall.getUTCDay() - MONDAY + 7) % 7;
  const onWall = (back: number) =>
    Date.UTC(wall.getUTCFullYear(), wall.getUTCMonth(), wall.getUTCDate() - back, AT_HOUR);
  const thisWeek = clock.instantOf(onWall(days));
  return thisWeek !== null && thisWeek <= nowMs ? thisWeek : (clock.instantOf(onWall(days + 7)) ?? nowMs);
}

async function sumUp(context: ConsoleContext, recipient: StoredRecipient, sites: readonly Site[], atMs: number) {
  const [first] = sites;
  if (first === undefined) return;
  const parts: string[] = [];
  for (const site of sites) parts.push(`${site.name}\n${(await weekSentences(context, site, atMs)).join('\n')}`);
  const subject = sites.length === 1 ? `${first.name}: the week` : `${countWords(sites.length, 'office')}: the week`;
  const telling = { eventId: null, phase: 'digest', subject, text: parts.join('\n\n') } as const;
  await context.store.alarms.tell(null, [deliveryTo(context, recipient, first, telling, context.wallMs())]);
}

/** Sums the week up for whoever wants that, on Mondays at seven of the (first) office, once. */
export async function sumUpWeeks(context: ConsoleContext): Promise<void> {
  const { alarms, sites } = context.store;
  const all = await sites.all();
  for (const recipient of await alarms.recipients()) {
    const own = recipient.siteId === null ? all : all.filter(({ id }) => id === recipient.siteId);
    const [first] = own;
    if (!recipient.digest || recipient.paused || first === undefined) continue;
    const atMs = lastMondayMs(first, context.wallMs());
    if (recipient.digestAtMs >= atMs) continue;
    await sumUp(context, recipient, own, atMs);
    await alarms.saveRecipient({ ...recipient, digestAtMs: context.wallMs() });
  }
}
