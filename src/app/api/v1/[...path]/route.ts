import { technician } from '@/app/role';
import { theConsole } from '@/services';
import { failed, OFFICE_OPERATIONS, type Operation } from '@/wire';
import { faultAnswer, readBody } from '../answer';
import { OFFICE_HANDLERS } from './office-handlers';

/** Parameters of a path that fits an operation's; null when it does not fit. */
function idsOf({ path }: Operation, asked: string): string[] | null {
  const pattern = new RegExp(`^${path.replace(/\{\w+\}/g, '([^/]+)')}$`);
  const found = pattern.exec(asked);
  // Ids of ours need no escapes: what is escaped is none of them, and is found missing as it stands.
  return found === null ? null : found.slice(1);
}

/** Carries out the operation that fits method and path: the technician's role, then the body, then one service. */
async function carryOut(request: Request): Promise<Response> {
  const asked = new URL(request.url).pathname;
  const method = request.method.toLowerCase();
  for (const operation of OFFICE_OPERATIONS) {
    const ids = operation.method === method ? idsOf(operation, asked) : null;
    if (ids === null) continue;
    const allowed = await technician();
    if (!allowed.ok) return faultAnswer(allowed.fault);
    const body = operation.request === undefined ? null : await readBody(request, operation.request);
    if (body !== null && !body.ok) return faultAnswer(body.fault);
    const handler = OFFICE_HANDLERS[`${operation.method} ${operation.path}`]!;
    const outcome = await handler({ context: theConsole(), ids, body: body?.value });
    if (!outcome.ok) return faultAnswer(outcome.fault);
    if (operation.method !== 'get') theConsole().changes.tell();
    const status = Number(Object.keys(operation.answers)[0]);
    return status === 204 ? new Response(null, { status }) : Response.json(outcome.value, { status });
  }
  return faultAnswer(failed('operation-unknown', { method: request.method, path: asked }).fault);
}

export { carryOut as DELETE, carryOut as GET, carryOut as POST, carryOut as PUT };
