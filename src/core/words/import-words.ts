import type { ImportFault } from '../import/import-reading';
import type { ImportField } from '../import/import-field';

const FIELD_WORDS: Readonly<Record<ImportField, string>> = {
  started: 'when',
  time: 'time of day',
  ended: 'ended',
  device: 'device',
  spot: 'spot',
  link: 'link',
  reach: 'reach',
  peer: 'peer',
  line: 'line',
  profile: 'profile',
  down: 'down',
  up: 'up',
  idle: 'idle delay',
  jitter: 'jitter',
  addedDown: 'added by a download',
  addedUp: 'added by an upload',
  addedWorst: 'added at worst',
  loss: 'loss',
  notes: 'notes',
  tags: 'tags',
  set: 'occasion',
  id: 'id',
};

/** What a column of a file is read as, in a word or three. */
export const importFieldWords = (field: ImportField): string => FIELD_WORDS[field];

/** Why a line of a file cannot be a run, and what to do about it. */
export function importFaultWords({ code, field, typed }: ImportFault): string {
  const name = field === null ? '' : FIELD_WORDS[field];
  switch (code) {
    case 'line-broken':
      return 'it is broken: a quote that nobody closes, a line of millions of signs, or no object where one should be';
    case 'cells-missing':
      return `it has only ${typed} columns`;
    case 'moment-missing':
      return 'nothing says when it was';
    case 'moment-unreadable':
      return `“${typed}” is no time in the order that days are read in`;
    case 'moment-skipped':
      return `“${typed}” never was: daylight saving left that hour out at this office`;
    case 'moment-ahead':
      return `“${typed}” lies ahead of now`;
    case 'ends-before':
      return 'it ended before it began';
    case 'device-missing':
      return 'nothing says which device it was; name one for all lines that do not';
    case 'name-long':
      return `what stands under ${name} is too long: “${typed}…”`;
    case 'choice-unknown':
      return `“${typed}” is none that is known under ${name}`;
    case 'figure-unreadable':
      return `“${typed}” is no figure under ${name}; look at the decimal sign and the unit`;
    case 'figure-impossible':
      return `“${typed}” cannot be under ${name}; look at the unit`;
  }
}
