import { Gauge, Registry } from 'prom-client';
import type { ConsoleContext } from '../console/console-context';
import { agentsPageOf } from '../views/agents-page';
import { weekOfRuns } from '../views/week-of-runs';
import { crossingOf } from '../office/line-choice';
import { lineBudget } from '../schedules';

const DIRECTIONS = ['down', 'up'] as const;

/** Figures of all offices as OpenMetrics: what is not known has no sample. Rates bits per second, delays seconds. */
export async function metricsOf(context: ConsoleContext): Promise<{ readonly type: string; readonly text: string }> {
  const { store } = context;
  const registry = new Registry<'application/openmetrics-text; version=1.0.0; charset=utf-8'>();
  registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE);
  const gauge = <Label extends string>(name: string, help: string, labelNames: readonly Label[]) =>
    new Gauge({
      name: `bent_straw_${name}`,
      help,
      labelNames: [...labelNames],
      registers: [registry],
    });
  const rate = gauge('line_rate_bps', 'Median of the runs over a line in the last seven days.', [
    'office',
    'line',
    'direction',
  ]);
  const plan = gauge('line_plan_bps', 'What the plan of a line promises, payload.', ['office', 'line', 'direction']);
  const added = gauge('line_added_delay_seconds', 'Delay that load adds, median of seven days.', ['office', 'line']);
  const runs = gauge('line_runs', 'Runs over a line in the last seven days.', ['office', 'line']);
  const moved = gauge('line_moved_bytes', 'What runs have moved over a line in this month.', ['office', 'line']);
  const present = gauge('agent_present', 'Whether an agent stands by.', ['office', 'agent']);
  const alarms = gauge('alarms_open', 'What was told and is not over.', ['office', 'kind']);
  const findings = gauge('findings_open', 'What stands out.', ['office']);
  for (const site of await store.sites.all()) {
    const office = site.name;
    const { line, plan: promised } = await crossingOf(context, site.id, { reach: 'internet' }, context.wallMs());
    if (line !== null) {
      const labels = { office, line: line.name };
      const week = await weekOfRuns(context, site.id, 'internet', promised);
      runs.set(labels, week.count);
      for (const direction of DIRECTIONS) {
        const [is, should] =
          direction === 'down' ? [week.downBps, week.yardstickDownBps] : [week.upBps, week.yardstickUpBps];
        if (is !== null) rate.set({ ...labels, direction }, is);
        if (should !== null) plan.set({ ...labels, direction }, should);
      }
      if (week.addedMs !== null) added.set(labels, week.addedMs / 1000);
      moved.set(labels, (await lineBudget(context, line)).movedBytes);
    }
    for (const { name, present: here } of (await agentsPageOf(context, site.id)).agents)
      present.set({ office, agent: name }, here ? 1 : 0);
    const counts = new Map<string, number>();
    for (const { alarm } of await store.alarms.openAlarms(site.id))
      counts.set(alarm.kind, (counts.get(alarm.kind) ?? 0) + 1);
    for (const [kind, count] of counts) alarms.set({ office, kind }, count);
    const open = (await store.findings.findingsOf(site.id)).filter(
      ({ state }) => state === 'open' || state === 'worked-on',
    );
    findings.set({ office }, open.length);
  }
  return { type: registry.contentType, text: await registry.metrics() };
}
