import * as z from 'zod';
import { lookAskedSchema, lookOutcomeSchema, lookRequestSchema } from './look-messages';
import type { Operation } from './operation';

const id = z.string();
const moment = z.iso.datetime();

export const lookDocumentSchema = z.object({
  ...{ id, deviceId: id, device: z.string(), asked: lookAskedSchema, by: z.string() },
  ...{ askedAt: moment, endedAt: moment.nullable(), outcome: lookOutcomeSchema.nullable() },
  /** What was found, in a sentence; null: it is under way. */
  sentence: z.string().nullable(),
});
export type LookDocument = z.infer<typeof lookDocumentSchema>;

/** What a device asks for: it posts what it found. */
export const takeLookOperation: Operation = {
  caller: 'device',
  method: 'post',
  path: '/api/v1/looks/{id}/outcome',
  summary: 'What an agent found that was asked to look at something. May be repeated: the first one counts.',
  request: lookOutcomeSchema,
  answers: { 204: null },
  faults: ['not-joined', 'look-unknown', 'request-malformed', 'request-too-large'],
};

/** Looking at something from a machine that stands by. */
export const LOOK_OPERATIONS = {
  listLooks: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/sites/{id}/looks',
    summary: 'What the machines of an office were asked to look at, and what they found, the newest first.',
    answers: { 200: z.object({ looks: z.array(lookDocumentSchema) }) },
    faults: ['not-signed-in', 'site-missing'],
  },
  readLook: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/looks/{id}',
    summary: 'One look, with all that was found.',
    answers: { 200: lookDocumentSchema },
    faults: ['not-signed-in', 'look-unknown'],
  },
  askLook: {
    caller: 'technician',
    scope: 'measure',
    method: 'post',
    path: '/api/v1/agents/{id}/looks',
    summary:
      'Ask an agent to look at something: a share, a host, resolvers, a path, its programs, the air, ports of a switch.',
    request: lookRequestSchema,
    answers: { 201: z.object({ id }) },
    faults: [
      ...(['not-signed-in', 'agent-unknown', 'agent-away', 'agent-cannot', 'agent-busy', 'line-taken'] as const),
      'request-malformed',
    ],
  },
  stopLook: {
    caller: 'technician',
    scope: 'measure',
    method: 'delete',
    path: '/api/v1/looks/{id}',
    summary: 'Stop a look that is under way.',
    answers: { 204: null },
    faults: ['not-signed-in', 'look-unknown'],
  },
} as const satisfies Readonly<Record<string, Operation>>;
