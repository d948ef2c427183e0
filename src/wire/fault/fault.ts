import { filledSentence } from './filled-sentence';

/** An expected failure as a value: a stable code and the facts of this case. Wording happens at the edge. */
export interface Fault<Code extends string = string> {
  readonly code: Code;
  readonly facts: Readonly<Record<string, string | number>>;
}

/** One row of a catalogue: the HTTP status and a sentence with the next step; `{name}` is replaced by a fact. */
export interface FaultEntry {
  readonly status: number;
  readonly title: string;
  readonly sentence: string;
}

export type FaultCatalogue<Code extends string = string> = Readonly<Record<Code, FaultEntry>>;

/** Problem details as of RFC 9457, with the catalogue's code. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly code: string;
  readonly detail: string;
}

export const PROBLEM_MEDIA_TYPE = 'application/problem+json';

/** Either a value or an expected failure. */
export type Outcome<Value, Code extends string = string> =
  | { readonly ok: true; readonly value: Value }
  | { readonly ok: false; readonly fault: Fault<Code> };

export function done<Value>(value: Value): { readonly ok: true; readonly value: Value } {
  return { ok: true, value };
}

export function failed<Code extends string>(
  code: Code,
  facts: Fault['facts'] = {},
): { readonly ok: false; readonly fault: Fault<Code> } {
  return { ok: false, fault: { code, facts } };
}

/** Fills the catalogue's sentence with the facts of a fault. */
export function problemOf<Code extends string>(catalogue: FaultCatalogue<Code>, fault: Fault<Code>): Problem {
  const { status, title, sentence } = catalogue[fault.code];
  const detail = filledSentence(sentence, fault.facts);
  return { type: `urn:bent-straw:${fault.code}`, title, status, code: fault.code, detail };
}
