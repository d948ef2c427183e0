import type { MissedWhy } from '../watch/schedule';

/** Why a time of a schedule brought no run. */
export const MISSED_WORDS: Readonly<Record<MissedWhy, string>> = {
  'console-off': 'the console was off',
  away: 'the device did not stand by',
  hunt: 'a hunt was under way',
  round: 'a technician’s runs were in the queue',
  budget: 'the line’s data volume for the month is used up',
  'no-peer': 'there is no far end that far',
  refused: 'whoever sat at the device said not now',
  withdrawn: 'it was taken out of the queue',
  unfinished: 'the run did not come to its end',
  'no-turn': 'its turn did not come in time',
  gone: 'the device was removed',
};
