import { createHmac } from 'node:crypto';
import { lookup } from 'node:dns';
import { request as plainRequest } from 'node:http';
import { request as safeRequest } from 'node:https';
import { isIP, type LookupFunction } from 'node:net';
import { isPrivateAddress } from '@/wire/address';
import type { Senders } from '../console/senders';

const PATIENCE_MS = 10_000;
export const SIGNATURE_HEADER = 'X-Bent-Straw-Signature';

/** HMAC-SHA-256 (RFC 2104) of the body: by it the receiver knows that the console sent it, and nobody changed it. */
export function signatureOf(secret: string, body: string): string {
  return `sha256=${createHmac('sha256', secret).update(body).digest('hex')}`;
}

const REFUSED = 'its address is private; allow that for this recipient if it is meant';

/** Looks a name up and refuses what is private, at the moment of the connection: another answer later changes nothing. */
const publicOnly: LookupFunction = (hostname, options, callback) => {
  lookup(hostname, { ...options, all: true }, (error, addresses) => {
    if (error !== null) return callback(error, '', 0);
    const found = addresses.filter(({ address }) => !isPrivateAddress(address));
    const [first] = found;
    if (first === undefined) return callback(new Error(REFUSED), '', 0);
    if (options.all === true) return callback(null, found);
    callback(null, first.address, first.family);
  });
};

/** What posts messages as JSON. Follows no redirect; takes 2xx for an answer that it arrived, and nothing else. */
export const webhookSender =
  (patienceMs: number): Senders['webhook'] =>
  ({ url, secret, allowPrivate }, message) => {
    const target = new URL(url);
    const host = target.hostname.replace(/^\[|\]$/g, '');
    const body = JSON.stringify({
      ...{ id: message.id, phase: message.phase, office: message.office, kind: message.kind },
      ...{ at: new Date(message.atMs).toISOString(), subject: message.subject, text: message.text },
    });
    return new Promise((resolve, reject) => {
      // An address is not looked up, so it is looked at here.
      if (!allowPrivate && isIP(host) !== 0 && isPrivateAddress(host)) return reject(new Error(REFUSED));
      const send = target.protocol === 'https:' ? safeRequest : plainRequest;
      const request = send(
        target,
        {
          method: 'POST',
          headers: {
            'Content-Type': 'application/json',
            'Content-Length': Buffer.byteLength(body),
            'User-Agent': 'bent-straw',
            [SIGNATURE_HEADER]: signatureOf(secret, body),
            'Idempotency-Key': message.id,
          },
          ...(allowPrivate ? {} : { lookup: publicOnly }),
          signal: AbortSignal.timeout(patienceMs),
        },
        (response) => {
          response.resume();
          const status = response.statusCode ?? 0;
          if (status >= 200 && status < 300) return resolve();
          const redirects = status >= 300 && status < 400;
          reject(
            new Error(
              redirects ? `it answered ${status} and led elsewhere, which is not followed` : `it answered ${status}`,
            ),
          );
        },
      );
      request.on('error', (error) =>
        reject(
          error.name === 'TimeoutError' || error.name === 'AbortError'
            ? new Error(`it did not answer in ${patienceMs / 1000} s`)
            : error,
        ),
      );
      request.end(body);
    });
  };

export const sendWebhook = webhookSender(PATIENCE_MS);
