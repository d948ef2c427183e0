import { lineLoads, overTimeOfColumn, planOverTimeWords, shareWords, timeSentences, type SideQuantity } from '@/core';
import type { ConsoleContext } from '../../console/console-context';
import { timeSeriesOf, type TimeSeries } from '../time-series';
import type { ReportSpan } from './measured-section';
import { section, type ReportSection } from './report';

/** What a line is asked over time. */
const ASKED: readonly SideQuantity[] = ['down', 'up', 'addedUp'];

function shownOf({ occasions }: TimeSeries, quantity: SideQuantity) {
  const { shown, last } = overTimeOfColumn(occasions, occasions[quantity], quantity);
  return { ...shown, last };
}

/** Whether the lines kept what was promised in a span, day by day; the first sentence of each line leads the report. */
export async function lineSection(
  context: ConsoleContext,
  siteId: string,
  span: ReportSpan,
  moment: (atMs: number) => string,
): Promise<{ readonly lead: readonly string[]; readonly section: ReportSection | null }> {
  const lead: string[] = [];
  const sentences: string[] = [];
  const rows: string[][] = [];
  for (const line of await context.store.sites.linesOf(siteId)) {
    const series = await timeSeriesOf(context, siteId, `line ${line.id}`, span);
    if (!series.ok || series.value.plan === null || series.value.occasions.runId.length === 0) continue;
    const { plan, flags, hourLoads, plans } = series.value;
    const within = flags.filter(({ atMs }) => atMs >= span.fromMs && atMs < span.untilMs);
    const [first, ...more] = planOverTimeWords(plan, moment);
    lead.push(`${line.name}: ${first}`);
    const shows = ASKED.map((quantity) => shownOf(series.value, quantity));
    for (const sentence of [...more, ...timeSentences(shows, within, moment, lineLoads(hourLoads, plans.at(-1)))])
      sentences.push(`${line.name}: ${sentence}`);
    for (const { day, met, notMet } of plan.days)
      rows.push([day, line.name, String(met), String(notMet), shareWords(met / (met + notMet))]);
  }
  return {
    lead,
    section: section('plan', 'Against what is paid for', sentences, {
      head: ['day', 'line', 'met the plan', 'did not', 'share'],
      shares: [0.18, 0.36, 0.16, 0.15, 0.15],
      rows,
    }),
  };
}
