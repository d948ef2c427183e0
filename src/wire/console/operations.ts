import * as z from 'zod';
import { complaintSchema } from '../forms/hunt-schemas';
import { joinAgentSchema, joinedAgentSchema } from './agent-messages';
import { exportedRunSchema, exportQuerySchema } from './export-messages';
import { importPartSchema } from '../forms/import-schemas';
import { ledgerPageSchema, ledgerQuerySchema } from './ledger-messages';
import { LANE_ROUTES } from './lane-operations';
import { takeLookOperation } from './look-operations';
import { OFFICE_OPERATIONS } from './office-operations';
import type { Operation } from './operation';
import { betweenOrderSchema, queueOrderSchema } from './queue-messages';
import {
  aliveAnswerSchema,
  aliveRequestSchema,
  handInAnswerSchema,
  handInRequestSchema,
  runAnswerSchema,
  startRunSchema,
  withdrawRequestSchema,
} from './run-messages';
import { runSamplesSchema } from './samples-schema';

/** Every operation of the API. A test holds this list against the routes; the OpenAPI document is made from it. */
export const OPERATIONS: readonly Operation[] = [
  {
    method: 'post',
    path: '/api/v1/runs',
    summary: 'Ask for a run: a grant, or a place in the queue, after which the device asks again with its turn.',
    caller: 'device',
    request: startRunSchema,
    answers: { 201: runAnswerSchema, 202: runAnswerSchema },
    faults: [
      ...(['code-unknown', 'code-ended', 'too-many-tries', 'not-joined', 'device-unknown', 'device-busy'] as const),
      ...(['label-unknown', 'device-taken', 'too-many-devices', 'too-many-runs'] as const),
      ...(['device-not-yours', 'name-taken', 'peer-missing', 'peer-plain', 'turn-over', 'request-malformed'] as const),
    ],
  },
  {
    method: 'post',
    path: '/api/v1/agents',
    summary: 'A machine enrols as an agent, with a code: it stands by from now on without a person.',
    caller: 'device',
    request: joinAgentSchema,
    answers: { 201: joinedAgentSchema },
    faults: [
      ...(['code-unknown', 'code-ended', 'too-many-tries', 'device-taken', 'too-many-devices', 'name-taken'] as const),
      ...(['device-not-yours', 'agent-other-version', 'request-malformed'] as const),
    ],
  },
  {
    method: 'post',
    path: '/api/v1/complaints',
    summary: 'Somebody at a device says that it is slow now; the technician sees it on the board.',
    caller: 'device',
    request: complaintSchema,
    answers: { 201: z.object({ noted: z.boolean() }) },
    faults: [
      ...(['code-unknown', 'code-ended', 'too-many-tries', 'not-joined', 'label-unknown'] as const),
      ...(['label-busy', 'request-malformed'] as const),
    ],
  },
  {
    method: 'get',
    path: '/api/v1/runs',
    summary: 'The ledger: all runs, the newest first or in another order, a hundred at a time.',
    caller: 'technician',
    query: ledgerQuerySchema,
    answers: { 200: ledgerPageSchema },
    faults: ['not-signed-in', 'site-missing', 'request-malformed'],
  },
  {
    method: 'post',
    path: '/api/v1/runs/{id}/alive',
    summary: 'The device is still measuring.',
    caller: 'device',
    request: aliveRequestSchema,
    answers: { 200: aliveAnswerSchema },
    faults: ['request-malformed'],
  },
  {
    method: 'post',
    path: '/api/v1/runs/{id}/hand-in',
    summary: 'Hand a run in, finished or not. May be repeated: the same run gets the same answer.',
    caller: 'device',
    request: handInRequestSchema,
    answers: { 200: handInAnswerSchema },
    faults: ['run-key-wrong', 'run-unknown', 'request-malformed', 'request-too-large', 'store-full'],
  },
  {
    method: 'get',
    path: '/api/v1/runs/export',
    summary: 'All runs that match as a file: CSV (RFC 4180, the members as columns), JSON, or a JSON text a line.',
    caller: 'technician',
    query: exportQuerySchema,
    answers: { 200: z.array(exportedRunSchema) },
    faults: ['not-signed-in', 'site-missing', 'request-malformed'],
  },
  {
    method: 'post',
    path: '/api/v1/runs/export',
    summary: 'The same of runs that are named in a form: siteId, runIds with commas, format.',
    caller: 'technician',
    answers: { 200: z.array(exportedRunSchema) },
    faults: ['not-signed-in', 'site-missing', 'request-malformed', 'request-too-large'],
  },
  {
    method: 'post',
    path: '/api/v1/imports/{id}/part',
    summary: 'The next bytes of a file that was opened for bringing in, as they are, up to 4 MiB at a time.',
    caller: 'technician',
    query: importPartSchema,
    answers: { 200: z.object({ receivedBytes: z.number().int() }) },
    faults: ['not-signed-in', 'import-unknown', 'import-part', 'import-unreadable', 'store-full', 'request-too-large'],
  },
  {
    method: 'get',
    path: '/api/v1/runs/{id}/samples',
    summary: 'The raw samples of a run with its conditions, for checking and recomputing.',
    caller: 'device',
    answers: {
      200: z.object({
        runId: z.string(),
        methodVersion: z.number().int().nullable(),
        startedAt: z.iso.datetime(),
        conditions: z.record(z.string(), z.unknown()),
        device: z.string(),
        peer: z.string(),
        samples: runSamplesSchema,
      }),
    },
    faults: ['not-signed-in', 'run-unknown', 'samples-missing'],
  },
  {
    method: 'post',
    path: '/api/v1/turns',
    summary: 'Put a round into the queue: these devices, so many times each, these reaches one after the other.',
    caller: 'technician',
    scope: 'measure',
    request: queueOrderSchema,
    answers: { 201: z.object({ queued: z.number().int().positive() }) },
    faults: ['not-signed-in', 'site-missing', 'device-unknown', 'peer-missing', 'request-malformed'],
  },
  {
    method: 'post',
    path: '/api/v1/between',
    summary: 'Measure from one agent to another, which serves as the far end of that run.',
    caller: 'technician',
    scope: 'measure',
    request: betweenOrderSchema,
    answers: { 201: z.object({ turnId: z.string() }) },
    faults: ['not-signed-in', 'device-unknown', 'far-end-needs-agents', 'request-malformed'],
  },
  {
    method: 'post',
    path: '/api/v1/turns/{id}/withdraw',
    summary: 'A device that waits for this turn does not want it any more.',
    caller: 'device',
    request: withdrawRequestSchema,
    answers: { 204: null },
    faults: ['turn-key-wrong', 'request-malformed'],
  },
  {
    method: 'delete',
    path: '/api/v1/turns/{id}',
    summary:
      'Take a turn out of the queue. Of one that is running the device is told to end it, which it does in some seconds, without a result.',
    caller: 'technician',
    scope: 'measure',
    answers: { 204: null },
    faults: ['not-signed-in'],
  },
  {
    method: 'get',
    path: '/api/v1/changes',
    summary: 'Server-sent events: one `changed` whenever something on the console has changed.',
    caller: 'technician',
    answers: { 200: 'text/event-stream' },
    faults: ['not-signed-in'],
  },
  {
    method: 'get',
    path: '/api/v1/openapi.json',
    summary: 'This document.',
    caller: 'device',
    answers: { 200: z.record(z.string(), z.unknown()) },
    faults: [],
  },
  takeLookOperation,
  ...LANE_ROUTES,
  ...Object.values(OFFICE_OPERATIONS),
];
