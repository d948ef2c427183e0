import * as z from 'zod';
import { newLaneSchema, newMarkSchema } from '../forms/lane-schemas';
import { laneMinutesSchema, laneMinutesTakenSchema, laneSchema } from './lane-messages';
import type { Operation } from './operation';

const id = z.string();
const ms = z.number();
const maybe = z.number().nullable();

/** From when to when; absent: the last hour. */
export const watchQuerySchema = z.object({
  from: z.iso.datetime({ offset: true }).optional(),
  until: z.iso.datetime({ offset: true }).optional(),
});

const steps = z.object({
  /** Length of a step, ms; 0: each is one request. */
  stepMs: ms,
  ...{ atMs: z.array(ms), sent: z.array(ms), answered: z.array(ms) },
  /** Of those without an answer, how many are known to be lost on the way there and back; absent where none is. */
  ...{ lostThere: z.array(ms).optional(), lostBack: z.array(ms).optional() },
  ...{ minMs: z.array(maybe), medianMs: z.array(maybe), p95Ms: z.array(maybe) },
});

export const watchedSpanSchema = z.object({
  ...{ fromMs: ms, untilMs: ms },
  machines: z.array(
    z.object({
      ...{ deviceId: id, name: z.string(), present: z.boolean() },
      lanes: z.array(laneSchema.extend({ asked: z.boolean(), answered: z.boolean(), steps })),
      availability: z.object({ share: maybe, watchedMs: ms, silentMs: ms, outages: z.number().int() }),
    }),
  ),
  outages: z.array(
    z.object({
      ...{ id, deviceId: id, deviceName: z.string(), fault: z.string(), laneIds: z.array(id) },
      ...{ fromMs: ms, untilMs: maybe, sentence: z.string() },
    }),
  ),
  marks: z.array(
    z.object({
      ...{ id, label: z.string(), byName: z.string(), fromMs: ms, untilMs: maybe },
      effects: z.array(z.object({ laneName: z.string(), sentence: z.string(), differs: z.boolean() })),
    }),
  ),
  /** When a line was busy by its router's counters, the newest first. */
  busy: z.array(z.object({ deviceId: id, fromMs: ms, untilMs: ms, sentence: z.string() })),
  runs: z.array(z.object({ id, deviceId: id, atMs: ms, downBps: maybe, upBps: maybe })),
});

/** What has routes of its own. */
export const LANE_ROUTES: readonly Operation[] = [
  {
    caller: 'device',
    method: 'post',
    path: '/api/v1/lanes/minutes',
    summary: 'Minutes of lanes from the agent that keeps them. May be repeated: each is written down once.',
    request: laneMinutesSchema,
    answers: { 200: laneMinutesTakenSchema },
    faults: ['not-joined', 'request-malformed', 'request-too-large', 'store-full'],
  },
  {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/sites/{id}/watch',
    summary:
      'The lanes of an office over a span of time, what was silent in it, and whose fault that was. Of loads (`load-in`, `load-out`) the figures are Mb/s, of all others ms.',
    query: watchQuerySchema,
    answers: { 200: watchedSpanSchema },
    faults: ['not-signed-in', 'site-missing', 'request-malformed'],
  },
  {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/sites/{id}/beats',
    summary:
      'Server-sent events: `beats` with what the lanes said in the last second, [lane, sent, round trip or null].',
    answers: { 200: 'text/event-stream' },
    faults: ['not-signed-in', 'site-missing'],
  },
];

export const LANE_OPERATIONS = {
  addLane: {
    caller: 'technician',
    method: 'post',
    path: '/api/v1/lanes',
    summary:
      'One more lane of an agent: echo requests, STAMP, the handshake of a port, or the first byte of a web page.',
    request: newLaneSchema,
    answers: { 201: z.object({ id }) },
    faults: [
      ...([
        'not-signed-in',
        'agent-unknown',
        'agent-cannot',
        'too-many-lanes',
        'lane-there',
        'request-malformed',
      ] as const),
    ],
  },
  endLane: {
    caller: 'technician',
    method: 'delete',
    path: '/api/v1/lanes/{id}',
    summary: 'Ask a lane no more. What it said stays.',
    answers: { 204: null },
    faults: ['not-signed-in', 'lane-unknown'],
  },
  beginMark: {
    caller: 'technician',
    scope: 'measure',
    method: 'post',
    path: '/api/v1/sites/{id}/marks',
    summary: 'Write down that something begins that may matter: "heater on".',
    request: newMarkSchema,
    answers: { 201: z.object({ id }) },
    faults: ['not-signed-in', 'site-missing', 'request-malformed'],
  },
  endMark: {
    caller: 'technician',
    scope: 'measure',
    method: 'post',
    path: '/api/v1/marks/{id}/end',
    summary: 'It is over.',
    answers: { 204: null },
    faults: ['not-signed-in', 'mark-unknown'],
  },
  removeMark: {
    caller: 'technician',
    method: 'delete',
    path: '/api/v1/marks/{id}',
    summary: 'Remove a mark.',
    answers: { 204: null },
    faults: ['not-signed-in', 'mark-unknown'],
  },
} as const satisfies Readonly<Record<string, Operation>>;
