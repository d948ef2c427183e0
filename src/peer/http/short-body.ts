import type { IncomingMessage } from 'node:http';

/** The body of a request as text; null when it is longer than `mostBytes` or breaks off. */
export async function readShortBody(request: IncomingMessage, mostBytes: number): Promise<string | null> {
  const parts: Buffer[] = [];
  let bytes = 0;
  try {
    for await (const part of request as AsyncIterable<Buffer>) {
      bytes += part.length;
      if (bytes > mostBytes) return null;
      parts.push(part);
    }
  } catch {
    return null;
  }
  return Buffer.concat(parts).toString();
}
