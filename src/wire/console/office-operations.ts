import * as z from 'zod';
import { LINK_KINDS, REACHES, VERDICT_WORDS } from '@/core';
import { IMPORT_OPERATIONS } from './import-operations';
import { HUNT_OPERATIONS } from './hunt-operations';
import { AGENT_OPERATIONS } from './agent-operations';
import { LANE_OPERATIONS } from './lane-operations';
import { LOOK_OPERATIONS } from './look-operations';
import { ALARM_OPERATIONS } from './alarm-operations';
import { SIDE_OPERATIONS } from './side-operations';
import { TIME_OPERATIONS } from './time-operations';
import { ledgerRunSchema } from './ledger-messages';
import { linkSchema } from './link-schema';
import { PEER_OPERATIONS } from './peer-operations';
import { webFarEndSchema } from './run-messages';
import { chosenRunsSchema, leaveOutSchema, noteRunsSchema, tagRunsSchema } from '../forms/ledger-schemas';
import type { Operation } from './operation';
import {
  deviceFormSchema,
  lineFormSchema,
  mergeFormSchema,
  officeFormSchema,
  planFormSchema,
  runNotesSchema,
} from '../forms/set-up-schemas';

const id = z.string();
const figure = z.number().nullable();
const made = z.object({ id });
const plan = z.object({ name: z.string(), downBps: z.number(), upBps: z.number(), basis: z.enum(['payload', 'line']) });
const site = z.object({
  id,
  name: z.string(),
  joinCode: z.string(),
  joinCodeUntil: z.iso.datetime(),
  timeZone: z.string().nullable(),
  demo: z.boolean(),
});
const office = z.object({
  site,
  lines: z.array(
    z.object({
      id,
      name: z.string(),
      provider: z.string(),
      inUse: z.boolean(),
      plan: plan.nullable(),
      plans: z.array(plan.extend({ id, validFromMs: z.number(), correctedAtMs: z.number().nullable() })),
      shown: z.string(),
    }),
  ),
  devices: z.array(
    z.object({
      ...{ id, name: z.string(), spotName: z.string(), kind: z.string().nullable(), notes: z.string() },
      ...{ link: linkSchema, standsBy: z.boolean() },
    }),
  ),
  peers: z.array(
    z.object({
      ...{ id, name: z.string(), reach: z.enum(REACHES), address: z.string(), pinned: z.boolean() },
      ...{ publicKey: z.string().nullable(), keyChanged: z.boolean(), farSiteId: z.string().nullable() },
      /** It is a web server: its pages, and what a run loads of them at most. */
      web: webFarEndSchema.nullable(),
    }),
  ),
});
const boardRow = z.object({
  ...{ deviceId: id, device: z.string(), spot: z.string().nullable(), standsBy: z.boolean() },
  cells: z.array(
    z.object({
      ...{ linkKind: z.enum(LINK_KINDS), reach: z.enum(REACHES), runId: id, runs: z.number().int() },
      ...{ newestAt: z.iso.datetime(), verdict: z.enum(VERDICT_WORDS) },
      ...{ downBps: figure, upBps: figure, yardstickDownBps: figure, yardstickUpBps: figure, addedMs: figure },
    }),
  ),
});

const runDocument = ledgerRunSchema.extend({
  sentence: z
    .object({ figures: z.string(), held: z.string(), delay: z.string(), lead: z.enum(['held', 'delay']) })
    .nullable(),
  unfinished: z.string().nullable(),
  set: z.object({ runIds: z.array(id), verdict: z.enum(VERDICT_WORDS), downBps: figure, upBps: figure }).nullable(),
  report: z.record(z.string(), z.unknown()).nullable(),
  ...{ notes: z.string(), sharePath: z.string().nullable() },
});
const queued = z.object({
  ...{ turnId: id, device: z.string(), reach: z.enum(REACHES), profile: z.string(), askedBy: z.string().nullable() },
  ...{ together: z.boolean(), status: z.enum(['running', 'asked', 'waiting']), why: z.string().nullable() },
});

const shared = { caller: 'technician' } as const;
const gone = { 204: null };

/** What the set-up, the board and the page of a run do, for scripts. Forms are taken as the pages send them. */
export const OFFICE_OPERATIONS = {
  listOffices: {
    ...shared,
    method: 'get',
    path: '/api/v1/sites',
    summary: 'All offices.',
    answers: { 200: z.array(site) },
    faults: ['not-signed-in'],
  },
  addOffice: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites',
    summary: 'A new office.',
    request: officeFormSchema,
    answers: { 201: made },
    faults: ['not-signed-in', 'name-taken', 'request-malformed'],
  },
  readOffice: {
    ...shared,
    method: 'get',
    path: '/api/v1/sites/{id}',
    summary: 'An office: its lines, devices and peers.',
    answers: { 200: office },
    faults: ['not-signed-in', 'site-missing'],
  },
  renameOffice: {
    ...shared,
    method: 'put',
    path: '/api/v1/sites/{id}',
    summary: 'Rename an office.',
    request: officeFormSchema,
    answers: { 200: made },
    faults: ['not-signed-in', 'site-missing', 'name-taken', 'request-malformed'],
  },
  removeOffice: {
    ...shared,
    method: 'delete',
    path: '/api/v1/sites/{id}',
    summary: 'Remove an office with all that is in it. It can be put back for a day.',
    answers: gone,
    faults: ['not-signed-in'],
  },
  putBackOffice: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/put-back',
    summary: 'Put a removed office back.',
    answers: { 200: made },
    faults: ['not-signed-in', 'removal-over', 'name-taken'],
  },
  renewJoinCode: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/code',
    summary: 'A new code; the old one ends at once.',
    answers: { 201: z.object({ joinCode: z.string(), joinCodeUntil: z.iso.datetime() }) },
    faults: ['not-signed-in', 'site-missing'],
  },
  readBoard: {
    ...shared,
    method: 'get',
    path: '/api/v1/sites/{id}/board',
    summary: 'The board: for each device the newest set over each link and reach.',
    answers: { 200: z.array(boardRow) },
    faults: ['not-signed-in', 'site-missing'],
  },
  readQueue: {
    ...shared,
    method: 'get',
    path: '/api/v1/sites/{id}/queue',
    summary: 'What runs and what waits, in order.',
    answers: { 200: z.array(queued) },
    faults: ['not-signed-in', 'site-missing'],
  },
  addLine: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/lines',
    request: lineFormSchema,
    summary: 'A further line with its plan.',
    answers: { 201: made },
    faults: ['not-signed-in', 'site-missing', 'name-taken', 'changed-meanwhile', 'request-malformed'],
  },
  changeLine: {
    ...shared,
    method: 'put',
    path: '/api/v1/sites/{id}/lines/{line}',
    request: lineFormSchema,
    summary: 'Change a line or its plan. `shown` is what the office document says, so that nobody is overwritten.',
    answers: { 200: made },
    faults: [
      ...(['not-signed-in', 'site-missing', 'line-unknown', 'name-taken', 'changed-meanwhile'] as const),
      'request-malformed',
    ],
  },
  useLine: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/lines/{line}/use',
    summary: 'Use this line from now on.',
    answers: gone,
    faults: ['not-signed-in', 'line-unknown'],
  },
  removeLine: {
    ...shared,
    method: 'delete',
    path: '/api/v1/sites/{id}/lines/{line}',
    summary: 'Remove a line.',
    answers: gone,
    faults: ['not-signed-in', 'line-unknown', 'line-in-use'],
  },
  correctPlan: {
    ...shared,
    method: 'put',
    path: '/api/v1/sites/{id}/lines/{line}/plans/{plan}',
    request: planFormSchema,
    summary: 'Correct a plan of a line. The runs of its days are judged anew, and say that and when.',
    answers: { 200: made },
    faults: ['not-signed-in', 'plan-unknown', 'plan-day-taken', 'request-malformed'],
  },
  removePlan: {
    ...shared,
    method: 'delete',
    path: '/api/v1/sites/{id}/lines/{line}/plans/{plan}',
    summary: 'Remove a plan of a line. The runs of its days are held against the one before it, or none.',
    answers: gone,
    faults: ['not-signed-in', 'plan-unknown'],
  },
  addDevice: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/devices',
    request: deviceFormSchema,
    summary: 'A new device.',
    answers: { 201: made },
    faults: ['not-signed-in', 'site-missing', 'name-taken', 'request-malformed'],
  },
  changeDevice: {
    ...shared,
    method: 'put',
    path: '/api/v1/sites/{id}/devices/{device}',
    request: deviceFormSchema,
    summary: 'Change a device.',
    answers: { 200: made },
    faults: ['not-signed-in', 'site-missing', 'device-unknown', 'name-taken', 'request-malformed'],
  },
  removeDevice: {
    ...shared,
    method: 'delete',
    path: '/api/v1/sites/{id}/devices/{device}',
    summary: 'Remove a device; its runs stay. It can be put back for a day.',
    answers: gone,
    faults: ['not-signed-in'],
  },
  mergeDevice: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/devices/{device}/merge',
    request: mergeFormSchema,
    summary: 'This device is another one: its runs become that one’s. It can be undone for a day.',
    answers: { 200: made },
    faults: ['not-signed-in', 'device-unknown', 'request-malformed'],
  },
  ...PEER_OPERATIONS,
  undoRemoval: {
    ...shared,
    method: 'post',
    path: '/api/v1/removals/{id}/undo',
    summary: 'Put a device or a peer back.',
    answers: gone,
    faults: ['not-signed-in', 'removal-over', 'name-taken'],
  },
  readRun: {
    ...shared,
    method: 'get',
    path: '/api/v1/runs/{id}',
    summary: 'One run: its figures, the sentence, the set that it belongs to, and the whole report.',
    answers: { 200: runDocument },
    faults: ['not-signed-in', 'run-unknown'],
  },
  saveRunNotes: {
    ...shared,
    method: 'put',
    path: '/api/v1/runs/{id}/notes',
    request: runNotesSchema,
    summary: 'What the technician writes beside a run.',
    answers: gone,
    faults: ['not-signed-in', 'run-unknown', 'request-malformed'],
  },
  tagRuns: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/runs/tag',
    request: tagRunsSchema.omit({ siteId: true }),
    summary: 'Put a tag on runs, or take it off.',
    answers: gone,
    faults: ['not-signed-in', 'site-missing', 'request-malformed'],
  },
  noteRuns: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/runs/note',
    request: noteRunsSchema.omit({ siteId: true }),
    summary: 'Write a line beside each of some runs.',
    answers: gone,
    faults: ['not-signed-in', 'site-missing', 'request-malformed'],
  },
  leaveOutRuns: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/runs/leave-out',
    request: leaveOutSchema.omit({ siteId: true }),
    summary: 'Take runs out of all judgement with a reason, or with none back into it.',
    answers: { 200: z.object({ count: z.number().int() }) },
    faults: ['not-signed-in', 'site-missing', 'runs-missing', 'request-malformed'],
  },
  removeRuns: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/runs/remove',
    request: chosenRunsSchema.omit({ siteId: true }),
    summary: 'Remove runs that have ended; within a day the removal can be undone by its id.',
    answers: { 200: z.object({ removalId: z.string(), count: z.number().int() }) },
    faults: ['not-signed-in', 'site-missing', 'runs-missing', 'request-malformed'],
  },
  shareRun: {
    ...shared,
    method: 'post',
    path: '/api/v1/runs/{id}/share',
    summary: 'A link by which anybody may read this run, until it is revoked.',
    answers: { 201: z.object({ path: z.string() }) },
    faults: ['not-signed-in', 'run-unknown'],
  },
  stopSharing: {
    ...shared,
    method: 'delete',
    path: '/api/v1/runs/{id}/share',
    summary: 'Revoke that link.',
    answers: gone,
    faults: ['not-signed-in', 'run-unknown'],
  },
  ...HUNT_OPERATIONS,
  ...TIME_OPERATIONS,
  ...IMPORT_OPERATIONS,
  ...SIDE_OPERATIONS,
  ...AGENT_OPERATIONS,
  ...LOOK_OPERATIONS,
  ...LANE_OPERATIONS,
  ...ALARM_OPERATIONS,
} as const satisfies Readonly<Record<string, Operation>>;

export type OfficeOperationName = keyof typeof OFFICE_OPERATIONS;
