/** The measurement paths, all served by the peer process itself. */
export const PEER_PREFIX = '/peer/v1/';
export const PEER_PATHS = {
  info: '/peer/v1/info',
  sessions: '/peer/v1/sessions',
  down: '/peer/v1/down',
  up: '/peer/v1/up',
  control: '/peer/v1/control',
  probe: '/peer/v1/probe',
  udp: '/peer/v1/udp',
  channel: '/peer/v1/channel',
  receipt: '/peer/v1/receipt',
  knock: '/peer/v1/knock',
} as const;

/** A browser's test page and its peer may be on other hosts, so the simple-request rules of CORS are kept to. */
export const MOST_STREAM_NUMBER = 15;
export const DEFAULT_PORT = 4870;
/** Names one request in the logs of the door, the console and the peer, and in what somebody is shown when it failed. */
export const REQUEST_ID_HEADER = 'x-request-id';
/** By it the front door shows the console that a request came through it; its value is a secret of the two. */
export const DOOR_HEADER = 'x-bent-straw-door';
/** A run of ten minutes takes about 1 MB; nothing honest that goes to the console is larger than this, bytes. */
export const LARGEST_REQUEST = 4 * 1024 * 1024;
