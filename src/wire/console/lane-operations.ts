import * as z from 'zod';
import { newLaneSchema, newMarkSchema } from '../forms/lane-schemas';
import { laneMinutesSchema, laneMinutesTakenSchema, laneSchema, laneTicketSchema } from './lane-messages';
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
      ...{ deviceId: id, name: z.string(), isAgent: z.boolean(), state: z.enum(['stands-by', 'measures', 'away']) },
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
  /** When answers came much later than usual, the newest first. */
  slow: z.array(
    z.object({
      ...{ deviceId: id, laneIds: z.array(id), fault: z.string(), fromMs: ms, untilMs: ms, sentence: z.string() },
      because: z.enum(['busy', 'soak']).nullable(),
    }),
  ),
  runs: z.array(
    z.object({
      ...{ id, deviceId: id, atMs: ms, downBps: maybe, upBps: maybe },
      seconds: z.object({ fromMs: ms, downBps: z.array(maybe), upBps: z.array(maybe) }).nullable(),
    }),
  ),
  /** Devices that can be asked to measure just now. */
  standing: z.array(z.object({ deviceId: id, name: z.string(), isAgent: z.boolean() })),
  /** Peers that a page which stands by can ask. */
  peers: z.array(z.object({ id, name: z.string() })),
});

/** What has routes of its own. */
export const LANE_ROUTES: readonly Operation[] = [
  {
    caller: 'device',
    method: 'post',
    path: '/api/v1/lanes/minutes',
    summary: 'Minutes of lanes from the machine that keeps them. May be repeated: each is written down once.',
    request: laneMinutesSchema,
    answers: { 200: laneMinutesTakenSchema },
    faults: ['not-joined', 'request-malformed', 'request-too-large', 'store-full'],
  },
  {
    caller: 'device',
    method: 'post',
    path: '/api/v1/lanes/{id}/ticket',
    summary: 'A ticket for watching, with which the page of a device goes on asking a peer.',
    answers: { 200: laneTicketSchema },
    faults: ['not-joined', 'lane-unknown', 'lane-peer-missing', 'peer-plain'],
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
      'One more lane of an agent: echo requests, STAMP, the handshake of a port, or the first byte of a web page; or of a page that stands by: probes of a peer, whose id is the target.',
    request: newLaneSchema,
    answers: { 201: z.object({ id }) },
    faults: [
      ...([
        'not-signed-in',
        'device-unknown',
        'agent-cannot',
        'page-asks-peers',
        'lane-peer-missing',
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
