import { scheduleWords } from '@/core';
import {
  makeSchedule,
  noteChangeSeen,
  noteNeighboursKnown,
  pauseSchedule,
  removeSchedule,
  retireAgent,
  setBudget,
  type ConsoleContext,
  type ScheduleOrder,
  type StoredSchedule,
} from '@/services';
import type { Command, Look } from './command';
import { deviceLook, siteLook } from './facts';

async function scheduleLook({ store }: ConsoleContext, id: string): Promise<Look | null> {
  const stored = await store.schedules.byId(id);
  if (stored === null) return null;
  const { siteId, schedule, paused, who, spreadMinutes } = stored;
  return { siteId, subject: scheduleWords(schedule), facts: { paused, for: who.kind, spreadMinutes } };
}

async function changeLook({ store }: ConsoleContext, id: string): Promise<Look | null> {
  const change = await store.agents.change(id);
  return change === null ? null : deviceLook({ store } as ConsoleContext, change.deviceId);
}

async function budgetLook({ store }: ConsoleContext, lineId: string): Promise<Look | null> {
  const line = await store.sites.line(lineId);
  if (line === null) return null;
  const gigabytes = line.budgetBytes === null ? null : line.budgetBytes / 1e9;
  return { siteId: line.siteId, subject: line.name, facts: { gigabytesAMonth: gigabytes } };
}

export const AGENT_COMMANDS = {
  retireAgent: {
    ...{ scope: 'everything', changes: ['presence', 'office'], audited: 'agent-retired' },
    look: ({ context, input }) => deviceLook(context, input.deviceId),
    run: ({ context, input }) => retireAgent(context, input.deviceId),
  } satisfies Command<{ readonly deviceId: string }, null>,

  noteLinkChange: {
    ...{ scope: 'everything', changes: ['presence'], audited: 'link-change-seen' },
    look: ({ context, input }) => changeLook(context, input.changeId),
    run: ({ context, input }) => noteChangeSeen(context, input.changeId),
  } satisfies Command<{ readonly changeId: string }, null>,

  noteNeighboursKnown: {
    ...{ scope: 'everything', changes: ['presence'], audited: 'neighbours-known' },
    look: ({ context, input }) => siteLook(context, input.siteId),
    run: ({ context, input }) => noteNeighboursKnown(context, input.siteId),
  } satisfies Command<{ readonly siteId: string }, null>,

  makeSchedule: {
    ...{ scope: 'everything', changes: ['presence'], audited: 'schedule-made' },
    look: ({ context }, made) => (made === null ? Promise.resolve(null) : scheduleLook(context, made.id)),
    run: ({ context, actor, input }) => makeSchedule(context, actor.name, input),
  } satisfies Command<ScheduleOrder, StoredSchedule>,

  pauseSchedule: {
    ...{ scope: 'everything', changes: ['presence', 'queue'], audited: 'schedule-paused' },
    look: ({ context, input }) => scheduleLook(context, input.id),
    run: ({ context, input }) => pauseSchedule(context, input.id, input.paused),
  } satisfies Command<{ readonly id: string; readonly paused: boolean }, StoredSchedule>,

  removeSchedule: {
    ...{ scope: 'everything', changes: ['presence', 'queue'], audited: 'schedule-removed' },
    look: ({ context, input }) => scheduleLook(context, input.id),
    run: ({ context, input }) => removeSchedule(context, input.id),
  } satisfies Command<{ readonly id: string }, null>,

  setBudget: {
    ...{ scope: 'everything', changes: ['presence'], audited: 'budget-set' },
    look: ({ context, input }) => budgetLook(context, input.lineId),
    run: ({ context, input }) => setBudget(context, input.lineId, input.gigabytes),
  } satisfies Command<{ readonly lineId: string; readonly gigabytes: number | null }, null>,
};
