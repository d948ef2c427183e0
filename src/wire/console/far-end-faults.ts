import type { FaultCatalogue } from '../fault/fault';

/** What may stand in the way at the other end of a run: a peer, a web server, or another agent. */
export const FAR_END_FAULTS = {
  'peer-missing': {
    status: 409,
    title: 'No peer for this reach',
    sentence: 'No peer of reach {reach} is set up for this office. Add one in the set-up.',
  },
  'web-needs-agent': {
    status: 409,
    title: 'Only agents load a web server',
    sentence:
      'The far end {peer} is a web server, which only an agent can load, and {device} is none, or one of before: run on an agent, or set up a peer of your own outside.',
  },
  'far-end-needs-agents': {
    status: 409,
    title: 'Only agents measure between',
    sentence:
      'To measure between two machines both have to be agents of this version: {device} is none, or one of before. Let it join, or fetch its agent anew.',
  },
  'far-end-away': {
    status: 409,
    title: 'The far end is away',
    sentence:
      '{peer} does not stand by, or opened no far end in time. See on the page of agents that it is there, then ask again.',
  },
  'web-not-paced': {
    status: 409,
    title: 'A web server takes no UDP',
    sentence: 'The far end {peer} is a web server, which only sends: choose another profile, or set up a peer outside.',
  },
  'peer-plain': {
    status: 409,
    title: 'Peer without HTTPS',
    sentence:
      'This page came by https, and a browser lets it reach the peer {peer} only by https too, which that address is not. Open the page by http for this run, or give the peer a certificate.',
  },
  'peer-key-changed': {
    status: 409,
    title: 'Peer shows another key',
    sentence:
      'The peer {peer} shows another key than before: it was set up anew, or something else answers at its address. Find out which, then accept the new key in the set-up or correct the address.',
  },
} as const satisfies FaultCatalogue;
