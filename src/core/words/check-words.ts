import type { CheckCode } from '../diagnose/said';

/** What a look has shown, as it is ticked and as it stands in a story. */
export const CHECK_WORDS: Readonly<Record<CheckCode, string>> = {
  backup: 'no backup runs on it',
  update: 'no update is being fetched on it',
  'photo-upload': 'no photos or files are being sent up from it',
  'own-tunnel': 'its own tunnel is off',
  'others-idle': 'nobody else loads the line',
};

/** Others on the network of an office, as its agents hear them. */
export interface OthersHeard {
  readonly count: number;
  /** Those that have one, the newest comers first. */
  readonly names: readonly string[];
  /** Of them nobody has said yet that he knows them. */
  readonly fresh: number;
}

const MOST_NAMED = 4;

function newWords(count: number, fresh: number): string {
  if (fresh === 0) return '';
  if (fresh === count) return count === 1 ? '; it is new here' : '; all of them are new here';
  return fresh === 1 ? '; one of them is new here' : `; ${fresh} of them are new here`;
}

/** Who might load the line: a look around is easier with names. */
export function othersHeardWords({ count, names, fresh }: OthersHeard): string {
  if (count === 0) return 'Nobody else was heard on this network in the last quarter of an hour.';
  const who = count === 1 ? 'One other was' : `${count} others were`;
  const named = names.slice(0, MOST_NAMED).join(', ');
  const all = names.length === count && count <= MOST_NAMED;
  const among = named === '' ? '' : `${all ? ':' : ', among them'} ${named}`;
  return `${who} heard on this network in the last quarter of an hour${among}${newWords(count, fresh)}.`;
}
