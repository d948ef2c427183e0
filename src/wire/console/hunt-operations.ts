import * as z from 'zod';
import { REACHES, STRENGTHS, SWAP_CODES } from '@/core';
import {
  endHuntSchema,
  huntNoteSchema,
  letBeSchema,
  openHuntSchema,
  ruleOutSchema,
  swapSchema,
} from '../forms/hunt-schemas';
import type { Operation } from './operation';

const id = z.string();
const moment = z.iso.datetime();
const gone = { 204: null };
const shared = { caller: 'technician', scope: 'measure' } as const;

const finding = z.object({
  ...{ id, code: z.string(), sentence: z.string(), nextStep: z.string() },
  ...{ strength: z.enum(STRENGTHS), state: z.enum(['open', 'worked-on', 'let-be']), reason: z.string() },
  ...{ since: moment.nullable(), devices: z.array(z.string()), runsFor: z.array(id), runsAgainst: z.array(id) },
});

const test = z.object({
  ...{ kind: z.enum(['run', 'swap']), deviceId: id, device: z.string(), reach: z.enum(REACHES), minutes: z.number() },
  ...{ swap: z.enum(SWAP_CODES).nullable(), byClick: z.boolean(), gainBits: z.number() },
  ...{ ifFast: z.array(z.string()), ifSlow: z.array(z.string()) },
});

const hunt = z.object({
  ...{ id, title: z.string(), state: z.enum(['open', 'found', 'mended', 'given-up']), openedAt: moment },
  found: z.array(z.string()),
  /** How likely each part of the way is to hold back, 0 to 1. */
  suspected: z.array(z.object({ id, what: z.string(), probability: z.number() })),
  next: z.array(test),
});

/** What stands out, hunts and swaps, for scripts. */
export const HUNT_OPERATIONS = {
  readFindings: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/sites/{id}/findings',
    summary: 'What stands out in an office, worst first.',
    answers: { 200: z.array(finding) },
    faults: ['not-signed-in', 'site-missing'],
  },
  letFindingBe: {
    ...shared,
    method: 'post',
    path: '/api/v1/findings/{id}/let-be',
    summary: 'Let a finding be, with a reason.',
    request: letBeSchema.omit({ findingId: true }),
    answers: gone,
    faults: ['not-signed-in', 'finding-unknown', 'request-malformed'],
  },
  openFindingAgain: {
    ...shared,
    method: 'post',
    path: '/api/v1/findings/{id}/open',
    summary: 'Take a finding up again that was let be.',
    answers: gone,
    faults: ['not-signed-in', 'finding-unknown'],
  },
  openHunt: {
    ...shared,
    method: 'post',
    path: '/api/v1/hunts',
    summary: 'Open a hunt, from a finding or about a device; the open one about the same is given where there is one.',
    request: openHuntSchema,
    answers: { 201: z.object({ id }) },
    faults: ['not-signed-in', 'finding-unknown', 'device-unknown', 'site-missing', 'request-malformed'],
  },
  readHunt: {
    caller: 'technician',
    method: 'get',
    path: '/api/v1/hunts/{id}',
    summary: 'A hunt: what is suspected, and the next tests with what each outcome would mean.',
    answers: { 200: hunt },
    faults: ['not-signed-in', 'hunt-unknown'],
  },
  noteInHunt: {
    ...shared,
    method: 'post',
    path: '/api/v1/hunts/{id}/notes',
    summary: 'Write a line into the story of a hunt.',
    request: huntNoteSchema.omit({ huntId: true }),
    answers: gone,
    faults: ['not-signed-in', 'hunt-unknown', 'hunt-over', 'request-malformed'],
  },
  ruleOut: {
    ...shared,
    method: 'post',
    path: '/api/v1/hunts/{id}/checks',
    summary: 'Say what a look has ruled out, or take that back; it counts as evidence for a day.',
    request: ruleOutSchema.omit({ huntId: true }),
    answers: gone,
    faults: ['not-signed-in', 'hunt-unknown', 'hunt-over', 'check-needs-device', 'request-malformed'],
  },
  endHunt: {
    ...shared,
    method: 'post',
    path: '/api/v1/hunts/{id}/end',
    summary: 'End a hunt: found, mended, or given up.',
    request: endHuntSchema.omit({ huntId: true }),
    answers: gone,
    faults: ['not-signed-in', 'hunt-unknown', 'hunt-over', 'request-malformed'],
  },
  noteSwap: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/swaps',
    summary: 'Write down what was changed on purpose.',
    request: swapSchema.omit({ siteId: true }),
    answers: { 201: z.object({ id }) },
    faults: [
      ...(['not-signed-in', 'site-missing', 'swap-twice', 'swap-other-place', 'swap-in-future'] as const),
      'request-malformed',
    ],
  },
  undoSwap: {
    ...shared,
    method: 'delete',
    path: '/api/v1/swaps/{id}',
    summary: 'Take a swap back that was written down by mistake.',
    answers: gone,
    faults: ['not-signed-in', 'swap-unknown'],
  },
} as const satisfies Readonly<Record<string, Operation>>;
