import * as z from 'zod';
import { alarmRulesSchema, recipientSchema } from '../forms/alarm-schemas';
import type { Operation } from './operation';

const id = z.string();
const moment = z.iso.datetime();

export const toldDocumentSchema = z.object({
  rules: alarmRulesSchema,
  alarms: z.array(
    z.object({ id, kind: z.string(), sentence: z.string(), beganAt: moment, endedAt: moment.nullable() }),
  ),
  recipients: z.array(
    z.object({
      ...{ id, kind: z.enum(['mail', 'webhook']), target: z.string(), of: z.enum(['office', 'all']) },
      ...{ paused: z.boolean(), digest: z.boolean() },
      deliveries: z.array(
        z.object({
          ...{ id, phase: z.string(), subject: z.string(), madeAt: moment, tries: z.number().int() },
          ...{ state: z.enum(['waits', 'sent', 'failed', 'dropped']), trouble: z.string().nullable() },
        }),
      ),
    }),
  ),
});
export type ToldDocument = z.infer<typeof toldDocumentSchema>;

/** Who is told of what, and whether it arrived. */
export const ALARM_OPERATIONS = {
  readTold: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/sites/{id}/told',
    summary: 'What an office wants to be told of, what happened, who was told, and whether it arrived.',
    answers: { 200: toldDocumentSchema },
    faults: ['not-signed-in', 'site-missing'],
  },
  saveAlarmRules: {
    caller: 'technician',
    method: 'put',
    path: '/api/v1/sites/{id}/alarm-rules',
    summary: 'Say what an office wants to be told of; null: not of that.',
    request: alarmRulesSchema,
    answers: { 204: null },
    faults: ['not-signed-in', 'site-missing', 'request-malformed'],
  },
  addRecipient: {
    caller: 'technician',
    method: 'post',
    path: '/api/v1/sites/{id}/recipients',
    summary: 'Tell somebody by mail, or a program by a signed webhook, of one office. The secret is shown this once.',
    request: recipientSchema,
    answers: { 201: z.object({ id, secret: z.string().nullable() }) },
    faults: ['not-signed-in', 'site-missing', 'request-malformed'],
  },
  pauseRecipient: {
    caller: 'technician',
    method: 'post',
    path: '/api/v1/recipients/{id}/pause',
    summary: 'Tell somebody nothing for a while, or again.',
    request: z.strictObject({ paused: z.boolean() }),
    answers: { 204: null },
    faults: ['not-signed-in', 'recipient-unknown', 'request-malformed'],
  },
  tryRecipient: {
    caller: 'technician',
    method: 'post',
    path: '/api/v1/recipients/{id}/try',
    summary: 'Send a message that says nothing but that it arrives.',
    answers: { 204: null },
    faults: ['not-signed-in', 'recipient-unknown'],
  },
  removeRecipient: {
    caller: 'technician',
    method: 'delete',
    path: '/api/v1/recipients/{id}',
    summary: 'Tell somebody nothing any more.',
    answers: { 204: null },
    faults: ['not-signed-in', 'recipient-unknown'],
  },
} as const satisfies Readonly<Record<string, Operation>>;
