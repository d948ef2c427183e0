import type * as z from 'zod';
import { guarded } from '@/app/guarded';
import {
  CONSOLE_FAULTS,
  LARGEST_REQUEST,
  type ConsoleFaultCode,
  done,
  failed,
  type Fault,
  type Outcome,
  PROBLEM_MEDIA_TYPE,
  problemOf,
} from '@/wire';

export function faultAnswer(fault: Fault<ConsoleFaultCode>): Response {
  const problem = problemOf(CONSOLE_FAULTS, fault);
  return Response.json(problem, { status: problem.status, headers: { 'Content-Type': PROBLEM_MEDIA_TYPE } });
}

const tooLarge = () => failed('request-too-large', { limit: LARGEST_REQUEST });

/** A body of limited size as it is. */
export async function readBytes(request: Request): Promise<Outcome<Uint8Array, 'request-too-large'>> {
  if (request.body === null) return done(new Uint8Array());
  const reader = request.body.getReader() as ReadableStreamDefaultReader<Uint8Array>;
  const parts: Uint8Array[] = [];
  let bytes = 0;
  for (;;) {
    const { done: ended, value } = await reader.read();
    if (ended) return done(Buffer.concat(parts));
    bytes += value.byteLength;
    if (bytes > LARGEST_REQUEST) {
      await reader.cancel();
      return tooLarge();
    }
    parts.push(value);
  }
}

async function readText(request: Request): Promise<Outcome<string, 'request-too-large'>> {
  const bytes = await readBytes(request);
  return bytes.ok ? done(new TextDecoder().decode(bytes.value)) : bytes;
}

/** Reads a JSON body of limited size and checks it. The complaint names the first place that is wrong. */
export async function readBody<Schema extends z.ZodType>(
  request: Request,
  schema: Schema,
): Promise<Outcome<z.infer<Schema>, 'request-malformed' | 'request-too-large'>> {
  const text = await readText(request);
  if (!text.ok) return text;
  let json: unknown;
  try {
    json = JSON.parse(text.value);
  } catch {
    return failed('request-malformed', { complaint: 'it is not JSON' });
  }
  return checked(json, schema);
}

/** Reads a form of limited size, as a page sends it (application/x-www-form-urlencoded), and checks it. */
export async function readForm<Schema extends z.ZodType>(
  request: Request,
  schema: Schema,
): Promise<Outcome<z.infer<Schema>, 'request-malformed' | 'request-too-large'>> {
  const text = await readText(request);
  return text.ok ? checked(Object.fromEntries(new URLSearchParams(text.value)), schema) : text;
}

/** The query of an address, checked. */
export function readQuery<Schema extends z.ZodType>(request: Request, schema: Schema) {
  return checked(Object.fromEntries(new URL(request.url).searchParams), schema);
}

function checked<Schema extends z.ZodType>(
  value: unknown,
  schema: Schema,
): Outcome<z.infer<Schema>, 'request-malformed'> {
  const parsed = schema.safeParse(value);
  if (parsed.success) return done(parsed.data);
  const [issue] = parsed.error.issues;
  const complaint =
    issue === undefined ? 'it has another shape' : `${issue.path.join('.') || 'body'}: ${issue.message}`;
  return failed('request-malformed', { complaint });
}

/** A route handler that answers with problem details also to what it did not expect; nobody on the way keeps its answers. */
export function answering<Arguments extends readonly unknown[]>(
  handle: (...args: Arguments) => Promise<Response>,
): (...args: Arguments) => Promise<Response> {
  return async (...args) => {
    const outcome = await guarded(async () => done(await handle(...args)));
    const response = outcome.ok ? outcome.value : faultAnswer(outcome.fault);
    if (!response.headers.has('Cache-Control')) response.headers.set('Cache-Control', 'no-store');
    return response;
  };
}
