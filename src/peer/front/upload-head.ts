import { PEER_PATHS } from '@/wire';

/** The head of an upload request, as far as it matters. */
export interface UploadHead {
  readonly url: URL;
  readonly contentLength: number;
  /** Bytes of the head itself, blank line included. */
  readonly headBytes: number;
  /** Whether the client waits for "100 Continue" before it sends. */
  readonly expectsContinue: boolean;
  readonly keepAlive: boolean;
}

const LONGEST_HEAD = 16_384;
const START = Buffer.from(`POST ${PEER_PATHS.up}?`);
const END = '\r\n\r\n';

/**
 * Reads the head of an upload (RFC 9112) from the first bytes of a request. `'partly'`: more bytes are needed.
 * Null for everything else, and for whatever is odd about it: the full HTTP server then decides.
 */
export function readUploadHead(bytes: Buffer): UploadHead | 'partly' | null {
  const known = Math.min(START.length, bytes.length);
  if (START.compare(bytes, 0, known, 0, known) !== 0) return null;
  const end = bytes.indexOf(END);
  if (end < 0) return bytes.length > LONGEST_HEAD ? null : 'partly';
  const [requestLine, ...lines] = bytes.toString('latin1', 0, end).split('\r\n');
  const target = /^POST (\S+) HTTP\/1\.1$/.exec(requestLine!)?.[1];
  if (target === undefined) return null;
  const fields = lines.map((line) => {
    const colon = line.indexOf(':');
    return [line.slice(0, colon).toLowerCase(), line.slice(colon + 1).trim()] as const;
  });
  const headers = new Map(fields);
  // Two lengths, or a name that is none: whoever reads it another way would see another body (RFC 9112 §6.3).
  if (fields.filter(([name]) => name === 'content-length').length > 1) return null;
  if (fields.some(([name]) => !/^[!#$%&'*+.^_`|~\w-]+$/.test(name))) return null;
  const length = headers.get('content-length');
  if (length === undefined || !/^\d{1,15}$/.test(length) || headers.has('transfer-encoding')) return null;
  return {
    url: new URL(target, 'http://peer.invalid'),
    contentLength: Number(length),
    headBytes: end + END.length,
    expectsContinue: headers.get('expect')?.toLowerCase() === '100-continue',
    keepAlive: headers.get('connection')?.toLowerCase() !== 'close',
  };
}
