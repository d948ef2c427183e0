import { filledSentence } from '@/wire';

/** What keeps an agent's run from a result: a stable code, an exit code, and a sentence with the next step. */
export const AGENT_FAULTS = {
  'address-malformed': {
    exit: 64,
    sentence: '{address} is not an address of a console. Give the one that the board shows: http://HOST:4870/j/CODE.',
  },
  'option-malformed': { exit: 64, sentence: '{option} cannot be {value}. {wanted}' },
  'console-unreachable': {
    exit: 69,
    sentence: 'No console answers at {origin}. Check the address, and that this machine reaches it.',
  },
  'console-refused': { exit: 77, sentence: '{detail}' },
  'console-odd': {
    exit: 76,
    sentence: '{origin} answers, but not as a console of this version. Bring console and agent to the same version.',
  },
  'not-joined': {
    exit: 78,
    sentence:
      'This machine is no agent of a console yet. Join with the code that the board shows: join http://HOST:4870/j/CODE.',
  },
  'code-missing': {
    exit: 64,
    sentence:
      'The address {address} has no code in it. Copy the whole line from the page of agents: http://HOST:4870/j/CODE.',
  },
  'sent-away': { exit: 77, sentence: '{why}' },
  'unit-refused': {
    exit: 77,
    sentence: 'The unit cannot be written to {file}: {why}. Run it as root, or write it elsewhere.',
  },
  'look-refused': { exit: 73, sentence: '{sentence}' },
  'run-unfinished': { exit: 74, sentence: '{detail}' },
  'hand-in-kept': {
    exit: 75,
    sentence:
      'Measured, and the console does not take the result just now: {why}. It is kept on this machine and handed in by the next start of the agent.',
  },
  'hand-in-lost': {
    exit: 73,
    sentence:
      'Measured, but the console does not take the result: {why}; and it could not be kept on this machine. Make room in the state folder, then run again.',
  },
} as const satisfies Record<string, { exit: number; sentence: string }>;

export type AgentFaultCode = keyof typeof AGENT_FAULTS;

export class AgentFault extends Error {
  readonly exitCode: number;

  constructor(
    readonly code: AgentFaultCode,
    private readonly facts: Readonly<Record<string, string | number>> = {},
  ) {
    super(filledSentence(AGENT_FAULTS[code].sentence, facts));
    this.exitCode = AGENT_FAULTS[code].exit;
  }
}
