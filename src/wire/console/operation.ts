import type { z } from 'zod';
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
  readonly query?: z.ZodObject;
  readonly request?: z.ZodType;
  /** Status → what is answered; null: an empty body, text: another media type. */
  readonly answers: Readonly<Record<number, z.ZodType | string | null>>;
  readonly faults: readonly ConsoleFaultCode[];
}
