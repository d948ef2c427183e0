import type { FaultCatalogue } from '../fault/fault';
import { AGENT_SIDE_FAULTS } from './agent-side-faults';
import { FAR_END_FAULTS } from './far-end-faults';
import { BRING_IN_FAULTS } from './import-faults';

/** Everything that the console may answer instead of doing it. The table in docs/errors.md is held against this one. */
export const CONSOLE_FAULTS = {
  'code-unknown': {
    status: 404,
    title: 'Code unknown',
    sentence: 'No office here has the code {code}. Read it again from the board; it has no 0, O, 1, I or L.',
  },
  'code-ended': {
    status: 410,
    title: 'Code no longer valid',
    sentence: 'The code {code} is no longer valid. Read the new one from the board.',
  },
  'too-many-tries': {
    status: 429,
    title: 'Too many tries',
    sentence: 'Too many wrong tries came from this address. Wait {seconds} seconds and try again.',
  },
  'passphrase-wrong': {
    status: 401,
    title: 'Passphrase wrong',
    sentence: 'That name and passphrase do not belong together. Look out for capital letters and type them again.',
  },
  'passphrase-missing': {
    status: 409,
    title: 'No passphrase yet',
    sentence: 'No passphrase is set yet. Open the one-time link that the program printed when it started.',
  },
  'welcome-over': {
    status: 410,
    title: 'Link used or wrong',
    sentence:
      'This link sets the first passphrase only, and there is one already or the link is mistyped. Sign in instead, or copy the link again.',
  },
  'passphrase-link-over': {
    status: 410,
    title: 'Link used or over',
    sentence:
      'This link sets a passphrase once, and for a short time. It was used, a later one was made, or its time is over: have a new one made.',
  },
  'technician-unknown': {
    status: 404,
    title: 'Nobody of that name',
    sentence: 'There is nobody like that here any more. Load the page again to see who there is.',
  },
  'last-keeper': {
    status: 409,
    title: 'Somebody must keep it',
    sentence:
      '{name} is the only one who may add and remove people. Let somebody else do that first, who has set a passphrase.',
  },
  'keeper-only': {
    status: 403,
    title: 'Only for who keeps the console',
    sentence: 'Only somebody who may add and remove people can do this. The page of people says who that is.',
  },
  'token-scope': {
    status: 403,
    title: 'Token may not do this',
    sentence: 'The token {name} is for {scope} only, and this needs {wanted}. Make another token in the set-up.',
  },
  'not-signed-in': {
    status: 401,
    title: 'Not signed in',
    sentence: 'Only the technician may do this. Sign in and do it again.',
  },
  'device-not-yours': {
    status: 403,
    title: 'Another device',
    sentence:
      'This browser is known as another device of the office. Run as that one, or open the address with the code to choose anew.',
  },
  'cross-site': {
    status: 403,
    title: 'Sent from another site',
    sentence:
      'The request was sent from a page of another site and was not carried out. Do it from the console itself.',
  },
  'not-joined': {
    status: 401,
    title: 'Not joined',
    sentence: 'This device has not joined an office. Open the address with the code that the board shows.',
  },
  'site-missing': {
    status: 404,
    title: 'No office yet',
    sentence: 'There is no office yet. Name it in the set-up first.',
  },
  'spot-unknown': {
    status: 404,
    title: 'No such spot',
    sentence: 'That spot is not in this office any more. Load the page again and choose another.',
  },
  'device-unknown': {
    status: 404,
    title: 'Device unknown',
    sentence: 'There is no such device in this office. Choose another or enter it as a new one.',
  },
  'device-busy': {
    status: 409,
    title: 'Device already measuring',
    sentence:
      '{device} is measuring already, in another tab or window. Let that run end or cancel it, then start again.',
  },
  'name-taken': {
    status: 409,
    title: 'Name taken',
    sentence: 'There is another {what} named {name} in this office. Choose that one, or another name.',
  },
  'turn-over': {
    status: 410,
    title: 'Turn over',
    sentence: 'This turn is over: it was withdrawn, refused, or not taken up in time. Ask for a run again.',
  },
  'changed-meanwhile': {
    status: 409,
    title: 'Changed meanwhile',
    sentence:
      'Somebody else changed this since the page was opened, so nothing was saved. Load the page again, look at what is there now, and make the change again.',
  },
  'removal-over': {
    status: 410,
    title: 'Cannot be put back',
    sentence:
      'It was put back already, or removed more than a day ago. Enter it anew; its runs are still in the ledger.',
  },
  ...FAR_END_FAULTS,
  'line-in-use': {
    status: 409,
    title: 'Line in use',
    sentence: 'The line {line} is the one in use. Put another one in use first, then remove this one.',
  },
  'line-unknown': {
    status: 404,
    title: 'Line unknown',
    sentence: 'There is no such line in this office. Load the page again and choose one that is there.',
  },
  'run-unknown': {
    status: 404,
    title: 'Run unknown',
    sentence: 'There is no such run. It may have been removed; look in the ledger.',
  },
  'comparison-unknown': {
    status: 404,
    title: 'No such comparison',
    sentence:
      'There is no such comparison, or its link was revoked. The list of comparisons shows those that there are.',
  },
  'subject-unknown': {
    status: 404,
    title: 'Nothing to look at over time',
    sentence: 'There is no such line or device in this office, or it was removed. Choose another.',
  },
  'case-unknown': {
    status: 404,
    title: 'No such case',
    sentence: 'There is no such case, or it was removed. The list of cases shows those that there are.',
  },
  'runs-missing': {
    status: 404,
    title: 'No such runs',
    sentence: 'None of these runs is there any more, or none of them has ended. Load the ledger anew.',
  },
  'run-key-wrong': {
    status: 401,
    title: 'Run key wrong',
    sentence: 'The key does not belong to this run. Only the device that was granted a run can hand it in.',
  },
  'turn-key-wrong': {
    status: 401,
    title: 'Turn key wrong',
    sentence: 'The key does not belong to this turn. Only the device that waits for a turn can give it back.',
  },
  'device-taken': {
    status: 409,
    title: 'Another browser is this device',
    sentence:
      'Another browser is {device} already. Give this one another name, or have the technician let it take the place: in the set-up, at the device.',
  },
  'too-many-devices': {
    status: 429,
    title: 'Too many new devices',
    sentence:
      'Too many new devices were entered in a short time. Try again in {seconds} s, or choose one that is there.',
  },
  'too-many-runs': {
    status: 429,
    title: 'Too many runs',
    sentence: 'This device has asked for many runs in a short time. Try again in {seconds} s.',
  },
  'finding-unknown': {
    status: 404,
    title: 'No such finding',
    sentence: 'There is no such finding any more. Load the board anew to see what stands out now.',
  },
  'hunt-unknown': {
    status: 404,
    title: 'No such hunt',
    sentence: 'There is no such hunt; its office may have been removed. The list of hunts shows those that there are.',
  },
  'hunt-over': {
    status: 409,
    title: 'The hunt is over',
    sentence: 'This hunt has ended. Go on with it first, then write down what was done.',
  },
  'check-needs-device': {
    status: 409,
    title: 'The check is of one device',
    sentence:
      'This hunt is about no device of its own, and this check is of one. Open a hunt about the device, and tick it there.',
  },
  'swap-unknown': {
    status: 404,
    title: 'No such swap',
    sentence: 'There is no such swap, or it was taken back already. Load the page anew.',
  },
  'swap-twice': {
    status: 409,
    title: 'Written down already',
    sentence: 'The same swap was written down a moment ago. Wait two minutes if it really was done twice.',
  },
  'swap-other-place': {
    status: 422,
    title: 'Not a swap of that place',
    sentence: 'That cannot be changed there. Choose the place first, then what was changed in it.',
  },
  'swap-in-future': {
    status: 422,
    title: 'Not done yet',
    sentence: 'That time has not come. Write a swap down when it is done, or leave the time out for now.',
  },
  'label-unknown': {
    status: 404,
    title: 'No such label',
    sentence: 'This label opens nothing; it may have been revoked. Ask the technician for a new one.',
  },
  'label-busy': {
    status: 429,
    title: 'Said a moment ago',
    sentence: 'It was said a moment ago, and the technician has it. Say it again in {minutes} minutes if it lasts.',
  },
  'plan-unknown': {
    status: 404,
    title: 'No such plan',
    sentence: 'That line has no such plan. Load the set-up anew to see the plans that it has.',
  },
  'plan-day-taken': {
    status: 409,
    title: 'Two plans of one day',
    sentence: 'Another plan of this line begins on that day. Correct that one, or choose another day.',
  },
  'backup-failed': {
    status: 507,
    title: 'No copy made',
    sentence: 'The copy could not be made: {why} Mend that, then try again; nothing that was there has changed.',
  },
  'samples-missing': {
    status: 404,
    title: 'No samples',
    sentence: 'This run ended before anything was measured, so there are no samples. Run it again.',
  },
  'samples-thinned': {
    status: 410,
    title: 'Samples let go',
    sentence:
      'The samples of this run were let go, for they were older than the set-up says they are kept. Its figures stay.',
  },
  'operation-unknown': {
    status: 404,
    title: 'No such operation',
    sentence: 'The API has no {method} {path}. What it has is described at /api/v1/openapi.json.',
  },
  'request-malformed': {
    status: 400,
    title: 'Request malformed',
    sentence: 'The request cannot be read: {complaint}. Correct it and send it again.',
  },
  'request-too-large': {
    status: 413,
    title: 'Request too large',
    sentence: 'The request is larger than {limit} bytes. Send less; a run of ten minutes fits.',
  },
  unexpected: {
    status: 500,
    title: 'Something went wrong here',
    sentence:
      'The console met something it did not expect, and wrote it into its log as {id}. What was there before is still there. Try it once more; if it stays so, look into the log.',
  },
  ...BRING_IN_FAULTS,
  'recipient-unknown': {
    status: 404,
    title: 'Nobody like that is told',
    sentence: 'Whoever was told there was removed meanwhile. Load the page again to see who is told.',
  },
  ...AGENT_SIDE_FAULTS,
  'alternation-over': {
    status: 409,
    title: 'Not at that step',
    sentence: 'Turn and turn about is over, or has gone a step on meanwhile. Look at where it stands now.',
  },
  'report-unknown': {
    status: 404,
    title: 'Nothing to report on',
    sentence: 'The hunt or the swap that this report is about is not here any more. Choose another in the list.',
  },
  'logo-unreadable': {
    status: 422,
    title: 'Picture cannot be used',
    sentence: 'The picture is neither PNG nor JPEG, or larger than {most} kB. Nothing was saved; choose another one.',
  },
  'store-full': {
    status: 507,
    title: 'Disk full or read-only',
    sentence:
      'The console cannot write to its data folder ({reason}). Make room, or make it writable, then do it again; a result that a device has measured is kept there and handed in later.',
  },
} as const satisfies FaultCatalogue;

export type ConsoleFaultCode = keyof typeof CONSOLE_FAULTS;
