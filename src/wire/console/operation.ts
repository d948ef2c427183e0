import type * as z from 'zod';
import type { TokenScope } from '../forms/access-schemas';
import type { ConsoleFaultCode } from './console-faults';

/** Who may use an operation: anybody with a code or a device cookie, or only the technician and scripts with a token. */
type Caller = 'device' | 'technician';

/** One operation of the API, as it is documented and checked. */
export interface Operation {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** As in OpenAPI: `{id}` is a parameter. */
  readonly path: string;
  readonly summary: string;
  readonly caller: Caller;
  /** What a token must be allowed; absent: to read for `get`, everything for the rest. */
  readonly scope?: TokenScope;
  readonly query?: z.ZodObject;
  readonly request?: z.ZodType;
  /** Status → what is answered; null: an empty body, text: another media type. */
  readonly answers: Readonly<Record<number, z.ZodType | string | null>>;
  readonly faults: readonly ConsoleFaultCode[];
}

/** What a token must be allowed for an operation. */
export function scopeOfOperation({ method, scope }: Pick<Operation, 'method' | 'scope'>): TokenScope {
  return scope ?? (method === 'get' ? 'read' : 'everything');
}

/** The parameters of a path, by name: `/sites/{id}/lines/{line}` has `id` and `line`. */
export type PathParameters<Path extends string> = Path extends `${string}{${infer Name}}${infer Rest}`
  ? { readonly [Key in Name]: string } & PathParameters<Rest>
  : unknown;
