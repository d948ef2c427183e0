import type { Site } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../../console/console-context';
import { letterheadOf } from '../../office/letterhead';
import type { Report, ReportOrder } from './report';
import { SPAN_SECTIONS, spanReport } from './span-report';
import { huntReport, swapReport } from './story-report';

const zoneOf = ({ timeZone }: Pick<Site, 'timeZone'>) => timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Moments and days as they are written at an office. */
function clockOf(site: Pick<Site, 'timeZone'>) {
  const zone = { timeZone: zoneOf(site) };
  const moment = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', ...zone });
  const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', ...zone });
  return { moment: (atMs: number) => moment.format(atMs), day: (atMs: number) => day.format(atMs) };
}

const chosen = <Each extends { readonly key: string }>(all: readonly Each[], keys: readonly string[] | null) =>
  keys === null ? all : all.filter(({ key }) => keys.includes(key));

/** A report as it was ordered. */
export async function reportOf(
  context: ConsoleContext,
  order: ReportOrder,
): Promise<Outcome<Report, 'site-missing' | 'report-unknown'>> {
  const site = await context.store.sites.byId(order.siteId);
  if (site === null) return failed('site-missing');
  const { moment, day } = clockOf(site);
  const frame = {
    site: { id: site.id, name: site.name, demo: site.demo, timeZone: site.timeZone },
    letterhead: await letterheadOf(context),
    madeAtMs: context.wallMs(),
  };
  if (order.kind === 'span') {
    const { fromMs, untilMs, title } = order;
    const { lead, sections } = await spanReport(context, site.id, site.timeZone, { fromMs, untilMs }, moment);
    const [first, last] = [day(fromMs), day(Math.max(fromMs, untilMs - 1))];
    return done({
      ...{ ...frame, title, lead, possible: SPAN_SECTIONS, sections: chosen(sections, order.sections) },
      span: first === last ? first : `${first} to ${last}`,
    });
  }
  const told =
    order.kind === 'hunt'
      ? await huntReport(context, order.id, moment)
      : await swapReport(context, site.id, order.id, moment);
  // One of another office than the one that was named would be believed.
  if (told === null || told.siteId !== site.id) return failed('report-unknown');
  return done({
    ...{ ...frame, title: told.title, lead: told.lead, sections: chosen(told.sections, order.sections) },
    possible: told.sections.map(({ key }) => key),
    span: `${moment(told.fromMs)} to ${moment(told.untilMs)}`,
  });
}
