import { request as requestPlainly, type IncomingMessage } from 'node:http';
import { request as requestByTls } from 'node:https';

export interface HttpOrder {
  readonly method: 'GET' | 'POST';
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string;
  readonly signal?: AbortSignal;
  /** Whoever says more is not heard to the end. */
  readonly mostBytes?: number;
}

/** As much of an answer as is gone by; the body has been read. */
export interface HttpAnswer {
  readonly status: number;
  readonly ok: boolean;
  readonly setCookies: readonly string[];
  readonly text: string;
  /** Rejects where the body is no JSON. */
  json(): Promise<unknown>;
}

/** Longer than anything that is asked for: what goes on beyond that is given up. */
const MOST_BYTES = 32 * 1024 * 1024;
const MOST_REDIRECTS = 3;
/** Asked again elsewhere, by the same method and with the same body (RFC 9110, 15.4). */
const ELSEWHERE = new Set([307, 308]);

async function bodyOf(answer: IncomingMessage, mostBytes = MOST_BYTES): Promise<string> {
  const parts: Buffer[] = [];
  let bytes = 0;
  for await (const part of answer as AsyncIterable<Buffer>) {
    bytes += part.length;
    if (bytes > mostBytes) throw new Error(`the answer is longer than ${mostBytes / 1024 / 1024} MB`);
    parts.push(part);
  }
  return Buffer.concat(parts).toString();
}

function answered(url: URL, { method, headers, body, signal }: HttpOrder): Promise<IncomingMessage> {
  return new Promise((resolve, reject) => {
    const request = (url.protocol === 'https:' ? requestByTls : requestPlainly)(url, {
      ...{ method, signal },
      // Small devices need not be asked with a body that is none.
      headers: method === 'GET' ? headers : { ...headers, 'Content-Length': Buffer.byteLength(body ?? '') },
    });
    request.once('response', resolve).once('error', reject).end(body);
  });
}

/**
 * One HTTP request by Node's own client. Not `fetch`: to have that costs a process that does nothing else 8 MB for as long as
 * it lives, and an agent lives for months. Follows a console that sends to its own https; rejects where nobody answers.
 */
export async function httpRequest(url: URL, order: HttpOrder, redirects = MOST_REDIRECTS): Promise<HttpAnswer> {
  const answer = await answered(url, order);
  const status = answer.statusCode!;
  const { location } = answer.headers;
  if (ELSEWHERE.has(status) && location !== undefined) {
    answer.resume();
    const next = URL.canParse(location, url.href) ? new URL(location, url) : null;
    // Whoever proves itself by a cookie takes it nowhere else.
    if (redirects === 0 || next?.hostname !== url.hostname || !/^https?:$/.test(next.protocol))
      throw new Error(`${url.host} sends to ${location}`);
    return httpRequest(next, order, redirects - 1);
  }
  const text = await bodyOf(answer, order.mostBytes);
  return {
    ...{ status, ok: status >= 200 && status < 300, setCookies: answer.headers['set-cookie'] ?? [], text },
    json: () => Promise.resolve(text).then((read) => JSON.parse(read) as unknown),
  };
}
