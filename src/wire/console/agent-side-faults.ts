import type { FaultCatalogue } from '../fault/fault';

/** What may stand in the way of agents, of what they look at and watch, and of schedules. */
export const AGENT_SIDE_FAULTS = {
  'agent-other-version': {
    status: 409,
    title: 'Agent of another version',
    sentence:
      'The agent of version {version} and this console do not understand each other. Fetch the agent from this console anew, then join again.',
  },
  'agent-unknown': {
    status: 404,
    title: 'No such agent',
    sentence: 'That machine is no agent here, or no more. Load the page again to see which there are.',
  },
  'agent-away': {
    status: 409,
    title: 'Agent away',
    sentence: '{agent} does not stand by just now. See on the page of agents since when, then ask again.',
  },
  'agent-busy': {
    status: 409,
    title: 'Agent busy',
    sentence: '{agent} measures just now, or looks at something else. Ask again when that is done.',
  },
  'line-taken': {
    status: 409,
    title: 'Line taken',
    sentence: '{why}, and this would fill the line too. Ask again when that is over.',
  },
  'agent-cannot': {
    status: 409,
    title: 'Agent cannot do that',
    sentence: '{agent} runs an agent that does not know how to do that. Bring it up to date from the page of agents.',
  },
  'lane-unknown': {
    status: 404,
    title: 'No such lane',
    sentence: 'That lane is not asked any more. Load the page again to see which are.',
  },
  'page-asks-peers': {
    status: 409,
    title: 'A page asks peers only',
    sentence:
      '{device} has no agent, only its page: that can ask peers of this office and nothing else. Choose a peer, or make the machine an agent.',
  },
  'lane-peer-missing': {
    status: 409,
    title: 'No such peer to ask',
    sentence:
      'That peer is no longer one that a page can ask: it was removed, or is no peer of your own. Choose another one in the set-up.',
  },
  'lane-there': {
    status: 409,
    title: 'Lane is there',
    sentence: 'This machine asks there already, as {name}. End that one first if it is to be asked otherwise.',
  },
  'too-many-lanes': {
    status: 409,
    title: 'Too many lanes',
    sentence: 'A machine keeps at most {most} lanes. End one that is not needed any more.',
  },
  'mark-unknown': {
    status: 404,
    title: 'No such mark',
    sentence: 'That mark is gone. Load the page again to see which there are.',
  },
  'look-unknown': {
    status: 404,
    title: 'No such look',
    sentence: 'Nobody asked for that here, or it was long ago. Load the page again to see what was asked.',
  },
  'link-change-unknown': {
    status: 404,
    title: 'Nothing changed there',
    sentence: 'That change is not known here any more. Load the page again.',
  },
  'schedule-unknown': {
    status: 404,
    title: 'No such schedule',
    sentence: 'That schedule was removed meanwhile. Load the page again to see which there are.',
  },
  'schedule-unreadable': {
    status: 400,
    title: 'Schedule cannot be read',
    sentence: '{complaint} Say it like “every 20 minutes from 7 to 19, Monday to Friday, internet, quick”.',
  },
} as const satisfies FaultCatalogue;
