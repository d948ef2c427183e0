import { filledSentence } from '@/wire';

/** What keeps a machine from what it was asked to look at: a stable code and a sentence with the next step. */
export const LOOK_FAULTS = {
  'share-missing': 'There is no folder {folder} on this machine. Mount the share, or name another folder.',
  'share-refused': 'Nothing can be written to {folder}. Give the user of the agent the right to write there.',
  'share-small': '{folder} has {free} MB free, and {wanted} MB were asked for. Ask for fewer, or make room.',
  'share-full':
    '{folder} was full before all was written. What was written is removed again; make room, then try again.',
  'share-lost': '{folder} went away meanwhile. Look whether the store is still there, then try again.',
  'look-stopped': 'It was stopped before it was done.',
  'look-busy': 'This machine measures just now, or looks at something else. Try again when that is done.',
  'no-ping': 'This machine has no ping that may be used. Install iputils-ping, then try again.',
  'no-ss': 'This machine has no ss, which tells what programs move. Install iproute2, then try again.',
  'no-radio': 'This machine has no radio. Ask one that has, or walk with a phone from spot to spot.',
  'no-scan':
    'The radio {device} cannot be asked what it hears. Install iw, or let the agent have the right to (CAP_NET_ADMIN).',
  'snmp-silent':
    '{target} does not answer by SNMP. Switch it on there for reading, let this machine ask, and look whether the community is right: a wrong one is met with silence.',
  'snmp-refused': '{target} refuses the user or its keys. Look at the name, and whether it wants SHA and AES.',
  'snmp-odd': '{target} answers by SNMP, but not as it should: {why}.',
  'snmp-no-ports':
    '{target} answers by SNMP, but tells nothing of ports (IF-MIB). Ask the router or the switch itself.',
  'igd-none':
    'No router of this network tells of its line by UPnP IGD. Switch that on for reading, or ask its ports by SNMP.',
  'igd-odd': '{target} speaks UPnP IGD, but tells nothing of its line. Ask its ports by SNMP.',
  'no-outside':
    'This office has no peer outside that could look. Set one up, or let another office be its far end, then try again.',
  'outside-away': 'The peer {peer} does not answer. Look in the set-up whether it does, then try again.',
  'outside-busy':
    'The peer {peer} takes nothing more just now, or does not trust this console. Run a measurement to see which.',
  'outside-old': 'The peer {peer} is of an earlier version that can not look. Bring it up to date, then try again.',
  'target-unknown': 'No address is known for {target}. Look for a mistyped name.',
  'look-failed': 'It could not be done: {why}. The log of the agent says more.',
  'look-unknown': 'This agent does not know how to look at that. Fetch it from the console anew.',
} as const;
export type LookFaultCode = keyof typeof LOOK_FAULTS;

export class LookFault extends Error {
  constructor(
    readonly code: LookFaultCode,
    facts: Readonly<Record<string, string | number>> = {},
  ) {
    super(filledSentence(LOOK_FAULTS[code], facts));
  }
}
