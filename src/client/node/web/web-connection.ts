import { connect as connectHttp2, constants, type ClientHttp2Session, type ClientHttp2Stream } from 'node:http2';
import { request as requestHttp, Agent as HttpAgent, type ClientRequest } from 'node:http';
import { request as requestHttps, Agent as HttpsAgent } from 'node:https';
import { connect as connectTls } from 'node:tls';
import { requestHeaders, serverName, type WebManners, type WebPlace } from './web-place';

/** What of a place has to be known to ask it for something. */
export type Asked = Pick<WebPlace, 'url' | 'address' | 'family' | 'port' | 'version'>;

export interface AnswerHead {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | readonly string[] | number | undefined>>;
}

export interface AnswerEvents {
  readonly onHead: (head: AnswerHead) => void;
  readonly onBody: (bytes: number) => void;
  /** Once, whatever became of it. `trouble`: what the system said when it did not end well. */
  readonly onEnd: (trouble: string | null) => void;
}

/** One connection to a web server, kept from one request to the next. */
export interface WebConnection {
  /** `range`: as in RFC 9110 §14.2; null: the whole. Answers what breaks it off. */
  get(range: string | null, events: AnswerEvents): () => void;
  close(): void;
}

/** What one connection may have under way: the default of 64 kB would hold back any long path (RFC 9113 §6.9). */
const WINDOW_BYTES = 16 * 1024 * 1024;

function once(events: AnswerEvents): AnswerEvents['onEnd'] {
  let ended = false;
  return (trouble) => {
    if (ended) return;
    ended = true;
    events.onEnd(trouble);
  };
}

function openHttp1({ url, address, family, port }: Asked, manners: WebManners): WebConnection {
  const secure = url.protocol === 'https:';
  const options = { keepAlive: true, maxSockets: 1 };
  const agent = secure ? new HttpsAgent(options) : new HttpAgent(options);
  const lookup = (_: string, wanted: { all?: boolean }, done: (...answer: unknown[]) => void) =>
    wanted.all === true ? done(null, [{ address, family }]) : done(null, address, family);
  return {
    get: (range, events) => {
      const end = once(events);
      const headers = { ...requestHeaders(manners), ...(range !== null && { Range: range }) };
      const asked: ClientRequest = (secure ? requestHttps : requestHttp)(url, {
        ...{ agent, port, headers, lookup: lookup as never },
        ...(manners.ca !== undefined && { ca: manners.ca }),
      });
      asked.once('response', (answer) => {
        events.onHead({ status: answer.statusCode ?? 0, headers: answer.headers });
        answer.on('data', (part: Buffer) => events.onBody(part.length));
        answer.once('close', () => end(answer.complete ? null : 'the connection ended in the middle'));
        answer.once('error', (error) => end(error.message));
      });
      asked.once('error', (error) => end(error.message));
      asked.end();
      return () => asked.destroy();
    },
    close: () => agent.destroy(),
  };
}

function openHttp2({ url, address, port }: Asked, manners: WebManners): WebConnection {
  let session: ClientHttp2Session | null = null;
  const sessionNow = (): ClientHttp2Session => {
    if (session !== null && !session.closed && !session.destroyed) return session;
    const opened = connectHttp2(url.origin, {
      settings: { initialWindowSize: WINDOW_BYTES, enablePush: false },
      createConnection: () =>
        connectTls({
          ...{ host: address, port, ALPNProtocols: ['h2'], ...serverName(url.hostname) },
          ...(manners.ca !== undefined && { ca: manners.ca }),
        }),
    });
    opened.on('error', () => undefined);
    opened.once('connect', () => opened.setLocalWindowSize(WINDOW_BYTES));
    session = opened;
    return opened;
  };
  return {
    get: (range, events) => {
      const end = once(events);
      const own = sessionNow();
      const failed = (error: Error) => end(error.message);
      const headers = {
        ...requestHeaders(manners),
        ...(range !== null && { Range: range }),
        [constants.HTTP2_HEADER_PATH]: `${url.pathname}${url.search}`,
      };
      let stream: ClientHttp2Stream;
      try {
        stream = own.request(headers);
      } catch (error) {
        // It was taken back between two requests.
        queueMicrotask(() => failed(error as Error));
        return () => undefined;
      }
      own.once('error', failed);
      stream.once('response', (headers) => events.onHead({ status: Number(headers[':status'] ?? 0), headers }));
      stream.on('data', (part: Buffer) => events.onBody(part.length));
      stream.once('error', failed);
      stream.once('close', () => {
        own.off('error', failed);
        end(stream.rstCode === constants.NGHTTP2_NO_ERROR ? null : `the stream was reset (${stream.rstCode})`);
      });
      return () => stream.close(constants.NGHTTP2_CANCEL);
    },
    close: () => session?.destroy(),
  };
}

/** A connection of its own to the machine that was found for a place. Nothing is sent before the first request. */
export function openWebConnection(place: Asked, manners: WebManners): WebConnection {
  return place.version === 'HTTP/2' ? openHttp2(place, manners) : openHttp1(place, manners);
}
