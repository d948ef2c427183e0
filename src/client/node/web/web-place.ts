import { isIP } from 'node:net';

/** A page of a web server as it was found before anything is measured. */
export interface WebPlace {
  /** Where it is after any redirects. */
  readonly url: URL;
  /** The machine that all requests and handshakes of a run go to. */
  readonly address: string;
  readonly family: 4 | 6;
  readonly port: number;
  readonly version: 'HTTP/1.1' | 'HTTP/2';
  /** How long it is, bytes; null: the server does not say. */
  readonly sizeBytes: number | null;
  /** Whether parts of it can be asked for (RFC 9110 §14). */
  readonly takesRanges: boolean;
}

/** What goes with every request. */
export interface WebManners {
  readonly userAgent: string;
  /** Certificates that are trusted besides the system's, PEM; absent: none. */
  readonly ca?: string;
}

/** Asks for the bytes themselves, past caches and as they are. */
export function requestHeaders({ userAgent }: WebManners): Record<string, string> {
  return { 'User-Agent': userAgent, Accept: '*/*', 'Accept-Encoding': 'identity', 'Cache-Control': 'no-cache' };
}

/** By which name a certificate is asked for (RFC 6066 §3): an address is none. */
export function serverName(host: string): { servername?: string } {
  return isIP(host) === 0 ? { servername: host } : {};
}

/** "bytes=1000-": from there to the end. */
export const rangeFrom = (fromByte: number): string => `bytes=${fromByte}-`;
