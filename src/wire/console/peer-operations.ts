import * as z from 'zod';
import { peerFormSchema, webFarEndFormSchema } from '../forms/set-up-schemas';
import type { Operation } from './operation';

const shared = { caller: 'technician' } as const;
const made = z.object({ id: z.string() });
const gone = { 204: null };

/** The other ends of runs: peers, and web servers where there is none outside. */
export const PEER_OPERATIONS = {
  addPeer: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/peers',
    summary: 'A new peer.',
    request: peerFormSchema,
    answers: { 201: made },
    faults: ['not-signed-in', 'site-missing', 'name-taken', 'request-malformed'],
  },
  changePeer: {
    ...shared,
    method: 'put',
    path: '/api/v1/sites/{id}/peers/{peer}',
    request: peerFormSchema,
    summary: 'Change a peer.',
    answers: { 200: made },
    faults: ['not-signed-in', 'site-missing', 'name-taken', 'request-malformed'],
  },
  addWebFarEnd: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/web-far-ends',
    summary: 'A web server as the far end of downloads by agents, where there is no peer outside.',
    request: webFarEndFormSchema,
    answers: { 201: made },
    faults: ['not-signed-in', 'site-missing', 'name-taken', 'request-malformed'],
  },
  changeWebFarEnd: {
    ...shared,
    method: 'put',
    path: '/api/v1/sites/{id}/web-far-ends/{peer}',
    summary: 'Change a web server that is a far end.',
    request: webFarEndFormSchema,
    answers: { 200: made },
    faults: ['not-signed-in', 'site-missing', 'name-taken', 'request-malformed'],
  },
  removePeer: {
    ...shared,
    method: 'delete',
    path: '/api/v1/sites/{id}/peers/{peer}',
    summary: 'Remove a peer. It can be put back for a day.',
    answers: gone,
    faults: ['not-signed-in'],
  },
  pinPeer: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/peers/{peer}/pin',
    summary: 'Runs of its reach go to this peer from now on.',
    answers: gone,
    faults: ['not-signed-in'],
  },
  acceptPeerKey: {
    ...shared,
    method: 'post',
    path: '/api/v1/sites/{id}/peers/{peer}/accept-key',
    summary: 'Take the key that the peer shows now for its own.',
    answers: gone,
    faults: ['not-signed-in'],
  },
} as const satisfies Readonly<Record<string, Operation>>;
