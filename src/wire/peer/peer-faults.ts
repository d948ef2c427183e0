import type { FaultCatalogue } from '../fault/fault';

/** Everything that a peer may answer instead of measuring. The table in docs/errors.md is held against this one. */
export const PEER_FAULTS = {
  'ticket-missing': {
    status: 401,
    title: 'Ticket missing',
    sentence: 'A measurement needs a ticket from a console. Start the run from the device page or the agent.',
  },
  'ticket-malformed': {
    status: 401,
    title: 'Ticket malformed',
    sentence: 'The ticket cannot be read. Start the run again to get a new one.',
  },
  'ticket-forged': {
    status: 401,
    title: 'Ticket not trusted',
    sentence:
      'The ticket is not signed by a console that this peer is paired with. Pair them: start the peer with --trust and the key shown in the console set-up.',
  },
  'ticket-expired': {
    status: 401,
    title: 'Ticket expired',
    sentence:
      'The ticket ran out {secondsAgo} s ago by the clock of this peer. Start the run again; if that happens each time, set the clocks of console and peer right.',
  },
  'ticket-early': {
    status: 401,
    title: 'Ticket from the future',
    sentence:
      'The ticket was made {secondsAhead} s ahead of the clock of this peer. Set the clocks of console and peer right.',
  },
  'ticket-used': {
    status: 401,
    title: 'Ticket used',
    sentence: 'The ticket was used before; a ticket serves one run. Start the run again to get a new one.',
  },
  'path-malformed': {
    status: 400,
    title: 'Address malformed',
    sentence: 'The address cannot be read: a % in it stands alone. Copy it again, or type it anew.',
  },
  'session-unknown': {
    status: 401,
    title: 'Session unknown',
    sentence: 'There is no such measuring session here, or it has ended. Start the run again.',
  },
  'ticket-elsewhere': {
    status: 401,
    title: 'Ticket for another peer',
    sentence:
      'The ticket was made for another peer. Check in the set-up of the console that the address of each peer is its own, then run again.',
  },
  'receipt-unknown': {
    status: 404,
    title: 'No receipt',
    sentence:
      'No session with that ticket has ended here lately. Receipts are kept for an hour, and not over a restart.',
  },
  'direction-not-allowed': {
    status: 403,
    title: 'Direction not allowed',
    sentence: 'The ticket of this session does not allow {direction}. Ask for a ticket that does.',
  },
  'limit-bytes': {
    status: 413,
    title: 'Byte limit reached',
    sentence: 'The session may move {limit} bytes and would go beyond that. Ask for a ticket with a higher limit.',
  },
  'limit-streams': {
    status: 429,
    title: 'Stream limit reached',
    sentence: 'The session may use {limit} streams in each direction at once. Close one first.',
  },
  'limit-sockets': {
    status: 429,
    title: 'Socket limit reached',
    sentence: 'A session may hold {limit} of these sockets at once. Close one first.',
  },
  'stream-malformed': {
    status: 400,
    title: 'Stream number malformed',
    sentence: 'The stream must be a whole number from 0 to 15. Correct the request.',
  },
  'bytes-malformed': {
    status: 400,
    title: 'Number of bytes malformed',
    sentence: 'The bytes of a download must be a whole number from 1 to 999999999999. Correct the request.',
  },
  'peer-busy': {
    status: 503,
    title: 'Peer busy',
    sentence: 'This peer is serving {active} runs and takes no more at once. Wait a minute and run again.',
  },
  'udp-off': {
    status: 409,
    title: 'UDP not enabled',
    sentence: 'This peer answers no UDP probes. Start it with --udp PORT to have loss measured.',
  },
  'channel-off': {
    status: 409,
    title: 'Data channels not enabled',
    sentence:
      'This peer opens no data channels, or all of its ports are taken. Start it with --channel-ports FROM-TO to have loss measured from browsers.',
  },
  'offer-malformed': {
    status: 400,
    title: 'Offer malformed',
    sentence: 'The offer of the data channel cannot be read. Start the run again in a current browser.',
  },
  'limit-offers': {
    status: 429,
    title: 'Too many offers',
    sentence: 'A session may offer {limit} data channels. Start the run again.',
  },
  'port-malformed': {
    status: 400,
    title: 'Port malformed',
    sentence: 'The port must be a whole number from 1 to 65535. Correct the request.',
  },
  'limit-knocks': {
    status: 429,
    title: 'Too many ports',
    sentence: 'A session may have {limit} ports knocked at, one after the other. Wait for the answer, or ask anew.',
  },
  'path-unknown': {
    status: 404,
    title: 'Nothing here',
    sentence: 'This peer has nothing at that path. Check the address; the protocol is described in docs/protocol.md.',
  },
  'method-not-allowed': {
    status: 405,
    title: 'Method not allowed',
    sentence: 'That path does not take this method. The protocol is described in docs/protocol.md.',
  },
  'body-too-large': {
    status: 413,
    title: 'Request too large',
    sentence: 'The request is larger than {limit} bytes, more than any run needs. Send less.',
  },
  'host-unknown': {
    status: 421,
    title: 'Name not known',
    sentence:
      'This console is not known by the name in the address. Open it by its own address, or start it with --host NAME to let that name be used.',
  },
  'console-unreachable': {
    status: 502,
    title: 'Console not answering',
    sentence:
      'The console behind this address is not answering. Wait a few seconds and load the page again; a result that is waiting on the device is kept.',
  },
  'no-console': {
    status: 404,
    title: 'No console here',
    sentence: 'This is a measurement peer without a console. Open the address of the console instead.',
  },
} as const satisfies FaultCatalogue;

export type PeerFaultCode = keyof typeof PEER_FAULTS;
