import { sign, verify, type KeyObject } from 'node:crypto';
import { done, failed, type Outcome } from '../../fault/fault';
import { CLOCK_LEEWAY_MS, ticketClaimsSchema, type TicketClaims } from './ticket-claims';

/** Signed bytes begin with this, so that a signature made for something else never passes as a ticket. */
const CONTEXT = 'bent-straw ticket 1\n';
const LONGEST_TICKET = 2048;

export type TicketFaultCode =
  | 'ticket-missing'
  | 'ticket-malformed'
  | 'ticket-forged'
  | 'ticket-expired'
  | 'ticket-early';

/** A ticket as text: base64url(claims as JSON) "." base64url(Ed25519 signature, RFC 8032). */
export function signTicket(claims: TicketClaims, signingKey: KeyObject): string {
  const body = Buffer.from(JSON.stringify(claims)).toString('base64url');
  const signature = sign(null, Buffer.from(CONTEXT + body), signingKey);
  return `${body}.${signature.toString('base64url')}`;
}

function readClaims(body: string): TicketClaims | null {
  try {
    return ticketClaimsSchema.safeParse(JSON.parse(Buffer.from(body, 'base64url').toString())).data ?? null;
  } catch {
    return null;
  }
}

/** Checks signature first, then shape, then time (`nowMs`: UTC epoch ms by the peer's clock). */
export function checkTicket(
  text: string | null,
  trusted: readonly KeyObject[],
  nowMs: number,
): Outcome<TicketClaims, TicketFaultCode> {
  if (text === null || text === '') return failed('ticket-missing');
  const [body, signature, ...rest] = text.split('.');
  if (!body || !signature || rest.length > 0 || text.length > LONGEST_TICKET) return failed('ticket-malformed');
  const signed = Buffer.from(CONTEXT + body);
  const signatureBytes = Buffer.from(signature, 'base64url');
  if (!trusted.some((key) => verify(null, signed, key, signatureBytes))) return failed('ticket-forged');
  const claims = readClaims(body);
  if (claims === null) return failed('ticket-malformed');
  if (nowMs > claims.expiresAtMs)
    return failed('ticket-expired', { secondsAgo: Math.ceil((nowMs - claims.expiresAtMs) / 1000) });
  if (claims.issuedAtMs > nowMs + CLOCK_LEEWAY_MS)
    return failed('ticket-early', { secondsAhead: Math.round((claims.issuedAtMs - nowMs) / 1000) });
  return done(claims);
}
