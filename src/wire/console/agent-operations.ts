import * as z from 'zod';
import { REACHES } from '@/core';
import { budgetSchema, scheduleSchema } from '../forms/schedule-schemas';
import { machineFactsSchema } from './agent-messages';
import type { Operation } from './operation';

const id = z.string();
const moment = z.iso.datetime();

export const agentsDocumentSchema = z.object({
  agents: z.array(
    z.object({
      ...{ deviceId: id, name: z.string(), spot: z.string().nullable(), version: z.string() },
      ...{ present: z.boolean(), busy: z.boolean(), seenAt: moment, joinedAt: moment, lastRunAt: moment.nullable() },
      /** Results that it has still to hand in. */
      outbox: z.number().int(),
      /** How far its clock is ahead, ms; null: by less than two seconds. */
      clockOffMs: z.number().nullable(),
      facts: machineFactsSchema,
    }),
  ),
  /** Who else was heard on the network in the last week. `fresh`: nobody has said yet that he knows it. */
  neighbours: z.array(
    z.object({
      ...{ mac: z.string(), address: z.string(), name: z.string().nullable(), agent: z.string().nullable() },
      /** Who made its network interface (IEEE registry); null: not known. */
      maker: z.string().nullable(),
      ...{ firstAt: moment, lastAt: moment, fresh: z.boolean() },
    }),
  ),
  changes: z.array(z.object({ id, deviceId: id, at: moment, sentence: z.string(), seen: z.boolean() })),
});
export type AgentsDocument = z.infer<typeof agentsDocumentSchema>;

export const schedulesDocumentSchema = z.object({
  schedules: z.array(
    z.object({
      ...{ id, sentence: z.string(), who: z.string(), paused: z.boolean(), devices: z.array(z.string()).readonly() },
      ...{ runsAWeek: z.number(), bytesAMonth: z.number().nullable(), nextAt: moment.nullable() },
      /** Of the last seven days; of those that brought no run the newest, each with why. */
      ...{ made: z.number().int(), missed: z.number().int() },
      missedTimes: z.array(z.object({ dueAt: moment, device: z.string(), reach: z.enum(REACHES), why: z.string() })),
    }),
  ),
  budgets: z.array(
    z.object({ lineId: id, name: z.string(), movedBytes: z.number(), budgetBytes: z.number().nullable() }),
  ),
});
export type SchedulesDocument = z.infer<typeof schedulesDocumentSchema>;

/** Machines that measure without a person, and when. */
export const AGENT_OPERATIONS = {
  listAgents: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/sites/{id}/agents',
    summary: 'The machines of an office that stand by without a person, and what changed of their links.',
    answers: { 200: agentsDocumentSchema },
    faults: ['not-signed-in', 'site-missing'],
  },
  retireAgent: {
    caller: 'technician',
    method: 'delete',
    path: '/api/v1/agents/{id}',
    summary: 'Let a machine be an agent no more. Its device and its runs stay.',
    answers: { 204: null },
    faults: ['not-signed-in', 'agent-unknown'],
  },
  noteLinkChange: {
    caller: 'technician',
    method: 'post',
    path: '/api/v1/link-changes/{id}/seen',
    summary: 'Say that a change of a link was seen.',
    answers: { 204: null },
    faults: ['not-signed-in', 'link-change-unknown'],
  },
  noteNeighboursKnown: {
    caller: 'technician',
    method: 'post',
    path: '/api/v1/sites/{id}/neighbours/known',
    summary: 'Say that all who were heard on the network so far are known: who comes from now on is new.',
    answers: { 204: null },
    faults: ['not-signed-in', 'site-missing'],
  },
  listSchedules: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/sites/{id}/schedules',
    summary: 'When what is measured without a person, what it moves, and what became of it.',
    answers: { 200: schedulesDocumentSchema },
    faults: ['not-signed-in', 'site-missing'],
  },
  makeSchedule: {
    caller: 'technician',
    method: 'post',
    path: '/api/v1/sites/{id}/schedules',
    summary:
      'Measure without a person, as it is said: "every 20 minutes from 7 to 19, Monday to Friday, internet, quick".',
    request: scheduleSchema,
    answers: { 201: z.object({ id }) },
    faults: [
      ...(['not-signed-in', 'site-missing', 'schedule-unreadable', 'device-unknown', 'spot-unknown'] as const),
      'request-malformed',
    ],
  },
  pauseSchedule: {
    caller: 'technician',
    method: 'post',
    path: '/api/v1/schedules/{id}/pause',
    summary: 'Keep a schedule no longer for a while, or take it up again.',
    request: z.strictObject({ paused: z.boolean() }),
    answers: { 204: null },
    faults: ['not-signed-in', 'schedule-unknown', 'request-malformed'],
  },
  removeSchedule: {
    caller: 'technician',
    method: 'delete',
    path: '/api/v1/schedules/{id}',
    summary: 'Remove a schedule. The runs stay.',
    answers: { 204: null },
    faults: ['not-signed-in', 'schedule-unknown'],
  },
  setBudget: {
    caller: 'technician',
    method: 'put',
    path: '/api/v1/lines/{id}/budget',
    summary: 'Say how many GB scheduled runs may move over a line in a month; null: as many as they like.',
    request: budgetSchema,
    answers: { 204: null },
    faults: ['not-signed-in', 'line-unknown', 'request-malformed'],
  },
} as const satisfies Readonly<Record<string, Operation>>;
