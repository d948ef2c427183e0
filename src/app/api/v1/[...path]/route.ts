import { technician } from '@/app/role';
import { theConsole } from '@/services';
import {
  type ConsoleFaultCode,
  failed,
  OFFICE_OPERATIONS,
  type OfficeOperationName,
  type Operation,
  type Outcome,
  scopeOfOperation,
} from '@/wire';
import { answering, faultAnswer, readBody } from '../answer';
import { OFFICE_HANDLERS } from './office-handlers';

/** Parameters of a path that fits an operation's, by name; null when it does not fit. */
function idsOf({ path }: Operation, asked: string): Readonly<Record<string, string>> | null {
  const pattern = new RegExp(`^${path.replace(/\{(\w+)\}/g, '(?<$1>[^/]+)')}$`);
  // Ids of ours need no escapes: what is escaped is none of them, and is found missing as it stands.
  const found = pattern.exec(asked);
  return found === null ? null : { ...found.groups };
}

/** What the table of handlers knows by types, and what the path and the schema have just shown to hold. */
type AnyHandler = (request: {
  readonly context: ReturnType<typeof theConsole>;
  readonly ids: Readonly<Record<string, string>>;
  readonly body: unknown;
}) => Promise<Outcome<unknown, ConsoleFaultCode>>;

/** Carries out the operation that fits method and path: the role first, then the body, then a view or a command. */
async function carryOut(request: Request): Promise<Response> {
  const asked = new URL(request.url).pathname;
  const method = request.method.toLowerCase();
  for (const [name, operation] of Object.entries<Operation>(OFFICE_OPERATIONS)) {
    const ids = operation.method === method ? idsOf(operation, asked) : null;
    if (ids === null) continue;
    const allowed = await technician(scopeOfOperation(operation));
    if (!allowed.ok) return faultAnswer(allowed.fault);
    const body = operation.request === undefined ? null : await readBody(request, operation.request);
    if (body !== null && !body.ok) return faultAnswer(body.fault);
    const handler = OFFICE_HANDLERS[name as OfficeOperationName] as AnyHandler;
    const outcome = await handler({ context: theConsole(), ids, body: body?.value ?? null });
    if (!outcome.ok) return faultAnswer(outcome.fault);
    const status = Number(Object.keys(operation.answers)[0]);
    return status === 204 ? new Response(null, { status }) : Response.json(outcome.value, { status });
  }
  return faultAnswer(failed('operation-unknown', { method: request.method, path: asked }).fault);
}

const answer = answering(carryOut);
export { answer as DELETE, answer as GET, answer as POST, answer as PUT };
