/**
 * What a client tried and could not do, or had to do another way: a stable code and what happened, as the start of a
 * sentence. Nothing that fails on a client is passed over: it stands with the run.
 */
export const CLIENT_TROUBLES = {
  'download-unanswered': 'a download got no answer',
  'download-refused': 'the far end refused a download',
  'download-unreadable': 'the client could not read what came down',
  'download-broke': 'a download broke off',
  'upload-broke': 'an upload broke off',
  'upload-refused': 'the peer refused an upload',
  'worker-shared': 'the browser starts no worker inside a worker, so downloads were read beside the probes',
  'worker-anew': 'the browser did not begin to measure when it was asked, and was asked once more',
  'self-read-failed': 'how much the browser can take in by itself could not be measured',
  'udp-unreachable': 'no UDP probe came back',
  'udp-refused': 'the peer did not let UDP probes in',
  'channel-unsupported': 'the browser has no data channels, or they are switched off',
  'channel-refused': 'the peer did not open a data channel',
  'channel-not-open': 'the data channel did not open in time',
  'channel-broke': 'the data channel could not be set up',
  'channel-silent': 'the data channel opened and handed over nothing',
} as const;

export type TroubleCode = keyof typeof CLIENT_TROUBLES;
export const TROUBLE_CODES = Object.keys(CLIENT_TROUBLES) as [TroubleCode, ...TroubleCode[]];

/** One kind of trouble in a run: what the system said of it first, how often it came, and when first (run's clock, ms). */
export interface ClientTrouble {
  readonly code: TroubleCode;
  /** In the words of the browser or the system; empty where it had none. */
  readonly detail: string;
  readonly count: number;
  readonly atMs: number;
}

/** So many kinds are kept, and so much of what was said of each: nobody fills a record with errors. */
export const MOST_TROUBLES = 32;
export const LONGEST_DETAIL = 200;

/** Adds one occurrence to those so far: counted where the same was said before. */
export function noteTrouble(
  troubles: readonly ClientTrouble[],
  { code, detail, atMs }: Omit<ClientTrouble, 'count'>,
): readonly ClientTrouble[] {
  const said = detail.slice(0, LONGEST_DETAIL);
  const known = troubles.findIndex((each) => each.code === code && each.detail === said);
  if (known >= 0) return troubles.map((each, index) => (index === known ? { ...each, count: each.count + 1 } : each));
  return troubles.length >= MOST_TROUBLES ? troubles : [...troubles, { code, detail: said, count: 1, atMs }];
}

/** "a download got no answer, 12 times (TypeError: Load failed)". */
export function troubleWords({ code, detail, count }: ClientTrouble): string {
  const times = count === 1 ? '' : `, ${count} times`;
  return `${CLIENT_TROUBLES[code]}${times}${detail === '' ? '' : ` (${detail})`}`;
}

/** Why no loss was measured, as far as the client knows; null when it met no trouble with UDP. */
export function lossTrouble(troubles: readonly ClientTrouble[]): ClientTrouble | null {
  return troubles.find(({ code }) => code.startsWith('channel-') || code.startsWith('udp-')) ?? null;
}
