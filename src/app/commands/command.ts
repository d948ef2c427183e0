import type { AuditCode, AuditNote, ChangedThing, ConsoleContext, Technician } from '@/services';
import type { ConsoleFaultCode, Outcome, TokenScope } from '@/wire';

/** Whoever does something, and from where. */
export interface Actor extends Technician {
  readonly address: string | null;
}

export interface Call<Input> {
  readonly context: ConsoleContext;
  readonly actor: Actor;
  readonly input: Input;
}

/** What is written down of the thing that a command changes: asked before and after it. */
export type Look = Pick<AuditNote, 'siteId' | 'subject'> & { readonly facts: AuditNote['before'] };

/**
 * Something that can be done to the console: the same for a page, the API and a script. Whoever carries it out sees to
 * the role, writes down what was done, and tells boards what has changed; see `perform`.
 */
export interface Command<Input, Value> {
  /** What a token must be allowed for it; `keeper`: only somebody who may add and remove people, never a script. */
  readonly scope: TokenScope | 'keeper' | 'person';
  readonly changes: readonly ChangedThing[];
  readonly audited: AuditCode;
  readonly look?: (call: Call<Input>, value: Value | null) => Promise<Look | null>;
  readonly run: (call: Call<Input>) => Promise<Outcome<Value, ConsoleFaultCode>>;
}
