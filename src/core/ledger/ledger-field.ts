import { LINK_KINDS } from '../domain/link';
import { REACHES } from '../domain/reach';
import { BLOAT_RATINGS } from '../judge/bloat-rating';
import { EVIDENCES } from '../judge/evidence';
import { FITNESS_EFFECTS } from '../judge/fitness/fitness-flag';
import { VERDICT_WORDS } from '../judge/verdict';
import { PROFILE_NAMES } from '../run/run-profiles';
import { UNFINISHED_CODES } from '../words/unfinished-reasons';

const RUN_STATES = ['finished', 'unfinished', 'running', 'imported'] as const;
export type RunState = (typeof RUN_STATES)[number];

/** A word that may be typed, and what it stands for in the record. */
export type Choice = readonly [typed: string, value: string];
const asTyped = (values: readonly string[]): Choice[] => values.map((value) => [value, value]);
/** Bands are typed as people say them. */
const LINK_CHOICES: readonly Choice[] = LINK_KINDS.map((kind) => [kind.replace('wifi-', ''), kind]);

/** What the ledger can be narrowed by. `unit`: of the figure that is typed; `perUnit`: of it, in the record's own unit. */
export const LEDGER_FIELDS = {
  device: { kind: 'text', about: 'name of the device' },
  spot: { kind: 'text', about: 'place in the building' },
  peer: { kind: 'text', about: 'name of the far end' },
  line: { kind: 'text', about: "name of the provider's line" },
  note: { kind: 'text', about: 'what was written beside a run' },
  tag: { kind: 'text', about: 'a word that was put on it' },
  link: { kind: 'choice', about: 'cable, band or tunnel', choices: LINK_CHOICES },
  reach: { kind: 'choice', about: 'how far it went', choices: asTyped(REACHES) },
  verdict: {
    kind: 'choice',
    about: 'held against its yardstick',
    choices: VERDICT_WORDS.map((word) => [word === 'no verdict' ? 'none' : word, word] as const),
  },
  delay: { kind: 'choice', about: 'rating of what load adds', choices: asTyped(BLOAT_RATINGS) },
  flag: { kind: 'choice', about: 'why it is not fit to judge', choices: asTyped(Object.keys(FITNESS_EFFECTS)) },
  state: { kind: 'choice', about: 'whether it came to its end', choices: asTyped(RUN_STATES) },
  why: { kind: 'choice', about: 'why it did not', choices: asTyped(UNFINISHED_CODES) },
  profile: { kind: 'choice', about: 'how thorough', choices: asTyped(PROFILE_NAMES) },
  counts: { kind: 'choice', about: 'what it is evidence of', choices: asTyped(EVIDENCES) },
  down: { kind: 'figure', about: 'download', unit: 'Mb/s', perUnit: 1e6 },
  up: { kind: 'figure', about: 'upload', unit: 'Mb/s', perUnit: 1e6 },
  idle: { kind: 'figure', about: 'delay while nothing runs', unit: 'ms', perUnit: 1 },
  added: { kind: 'figure', about: 'delay that load adds', unit: 'ms', perUnit: 1 },
  on: { kind: 'day', about: 'a day' },
  from: { kind: 'day', about: 'that day and later' },
  until: { kind: 'day', about: 'that day and earlier' },
  last: { kind: 'span', about: 'so long back from now: 24h, 7d, 4w' },
  hour: { kind: 'hours', about: 'hours of the day: 19..22 is from 19:00 to 22:00' },
  finding: { kind: 'id', about: 'the runs for and against what stands out' },
  swap: { kind: 'id', about: 'the runs before and after a swap' },
} as const satisfies Record<string, FieldKind>;

type FieldKind =
  | { readonly kind: 'text' | 'day' | 'span' | 'hours' | 'id'; readonly about: string }
  | { readonly kind: 'choice'; readonly about: string; readonly choices: readonly Choice[] }
  | { readonly kind: 'figure'; readonly about: string; readonly unit: string; readonly perUnit: number };

export type LedgerField = keyof typeof LEDGER_FIELDS;
export type FieldOf<Kind extends string> = {
  [Name in LedgerField]: (typeof LEDGER_FIELDS)[Name]['kind'] extends Kind ? Name : never;
}[LedgerField];
export const LEDGER_FIELD_NAMES = Object.keys(LEDGER_FIELDS) as [LedgerField, ...LedgerField[]];

export const fieldNamed = (name: string): LedgerField | null =>
  LEDGER_FIELD_NAMES.find((each) => each === name.toLowerCase()) ?? null;
export const kindOfField = (field: LedgerField): FieldKind => LEDGER_FIELDS[field];
