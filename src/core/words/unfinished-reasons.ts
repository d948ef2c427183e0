/** Why a run ended without a result: a stable code, what happened, and what to do next. */
export const UNFINISHED_REASONS = {
  cancelled: { what: 'The run was cancelled.', nextStep: 'Start it again when ready.' },
  'tab-closed': {
    what: 'The page was closed while it measured.',
    nextStep: 'Keep the page open until the result is there.',
  },
  'device-vanished': {
    what: 'The device stopped answering while it measured.',
    nextStep: 'Wake it, check that it is connected, and run again.',
  },
  'peer-unreachable': {
    what: 'The peer could not be reached.',
    nextStep: 'Check that the peer runs and that its address in the set-up is right.',
  },
  'web-unreachable': {
    what: 'The web server could not be reached.',
    nextStep: 'Check its address in the set-up, and that this machine resolves and reaches it.',
  },
  'web-refused': {
    what: 'The web server did not hand over what was asked for.',
    nextStep:
      'The page of the run names its answer. Check the address in the set-up: it has to be open without signing in.',
  },
  'peer-refused': {
    what: 'The peer refused the run.',
    nextStep: 'Check in the set-up that the peer is paired with this console.',
  },
  'peer-busy': { what: 'The peer is serving as many runs as it can.', nextStep: 'Wait a minute and run again.' },
  'peer-gone': {
    what: 'The connection to the peer broke during the run.',
    nextStep: 'Check that the peer still runs and that the device is still connected, then run again.',
  },
  'no-download': {
    what: 'Nothing came down from the far end.',
    nextStep: 'Look for a firewall between the device and the far end.',
  },
  'download-unreadable': {
    what: 'Data came down, and this browser could not read it.',
    nextStep: 'The page of the run names what failed. Try another browser on this device.',
  },
  'no-upload': {
    what: 'Nothing that was sent up reached the peer.',
    nextStep: 'Look for a firewall between the device and the peer.',
  },
  'no-echo': {
    what: 'No probe was answered.',
    nextStep: 'Check that WebSocket connections to the peer are let through.',
  },
  'browser-lacks': {
    what: 'This browser lacks what the measurement needs.',
    nextStep: 'Open the page in a current browser.',
  },
  'browser-silent': {
    what: 'The browser stopped measuring in the middle, without saying why.',
    nextStep: 'Load the page again and measure once more; if it comes back, try another browser.',
  },
  'no-udp': {
    what: 'This run needs UDP, and the peer or this client cannot use it.',
    nextStep: 'Start the peer with --udp PORT, and run from the agent.',
  },
  'too-slow': {
    what: 'So little came through that no rate can be told.',
    nextStep: 'Look at the samples of the run, and run again with a longer profile.',
  },
} as const satisfies Record<string, { what: string; nextStep: string }>;

export type UnfinishedReason = keyof typeof UNFINISHED_REASONS;
export const UNFINISHED_CODES = Object.keys(UNFINISHED_REASONS) as [UnfinishedReason, ...UnfinishedReason[]];

/** The sentence and the next step of a reason, as one text. */
export function unfinishedWords(reason: UnfinishedReason): string {
  const { what, nextStep } = UNFINISHED_REASONS[reason];
  return `${what} ${nextStep}`;
}
