import { agentsPageOf, schedulesPageOf, type ConsoleContext } from '@/services';
import { done, failed, type AgentsDocument, type Outcome, type SchedulesDocument } from '@/wire';

const moment = (atMs: number) => new Date(atMs).toISOString();
const maybeMoment = (atMs: number | null) => (atMs === null ? null : moment(atMs));

export async function agentsDocument(
  context: ConsoleContext,
  siteId: string,
): Promise<Outcome<AgentsDocument, 'site-missing'>> {
  if ((await context.store.sites.byId(siteId)) === null) return failed('site-missing');
  const { agents, changes, neighbours } = await agentsPageOf(context, siteId);
  return done({
    neighbours: neighbours.map(({ mac, address, name, agentName, maker, firstAtMs, lastAtMs, fresh }) => ({
      ...{ mac, address, name, agent: agentName, maker, fresh, firstAt: moment(firstAtMs), lastAt: moment(lastAtMs) },
    })),
    agents: agents.map((agent) => ({
      ...{ deviceId: agent.deviceId, name: agent.name, spot: agent.spotName, version: agent.version },
      ...{ present: agent.present, busy: agent.busy, outbox: agent.outbox, facts: agent.facts },
      ...{ seenAt: moment(agent.seenAtMs), joinedAt: moment(agent.joinedAtMs), clockOffMs: agent.clockOffMs },
      lastRunAt: maybeMoment(agent.lastRunAtMs),
    })),
    changes: changes.map(({ id, deviceId, atMs, sentence, seenAtMs }) => ({
      ...{ id, deviceId, sentence, at: moment(atMs), seen: seenAtMs !== null },
    })),
  });
}

export async function schedulesDocument(
  context: ConsoleContext,
  siteId: string,
): Promise<Outcome<SchedulesDocument, 'site-missing'>> {
  if ((await context.store.sites.byId(siteId)) === null) return failed('site-missing');
  const { schedules, budgets } = await schedulesPageOf(context, siteId);
  return done({
    schedules: schedules.map((of) => ({
      ...{ id: of.id, sentence: of.words, who: of.who, paused: of.paused, devices: of.devices },
      ...{ runsAWeek: of.runsAWeek, bytesAMonth: of.bytesAMonth, nextAt: maybeMoment(of.nextAtMs) },
      ...{ made: of.made, missed: of.missed },
      missedTimes: of.missedTimes.map(({ dueAtMs, deviceName, reach, why }) => ({
        ...{ dueAt: moment(dueAtMs), device: deviceName, reach, why },
      })),
    })),
    budgets: budgets.map(({ line, movedBytes, budgetBytes }) => ({
      ...{ lineId: line.id, name: line.name, movedBytes, budgetBytes },
    })),
  });
}
