import { generateKeyPairSync } from 'node:crypto';
import fc from 'fast-check';
import { newSigningKeyPem, publicKeyText, readPublicKey, readSigningKey } from './key-text';
import type { TicketClaims } from './ticket-claims';
import { checkTicket, signTicket } from './ticket-signing';

const { privateKey, publicKey } = generateKeyPairSync('ed25519');
const NOW = 1_700_000_000_000;
const claims: TicketClaims = {
  id: 'ticket-0001',
  runId: 'run-1',
  deviceId: 'device-1',
  peerKey: null,
  directions: ['down', 'up'],
  limits: { seconds: 60, bytes: 1e10, streams: 6 },
  issuedAtMs: NOW,
  expiresAtMs: NOW + 60_000,
};

const codeOf = (text: string | null, nowMs = NOW, keys = [publicKey]) => {
  const checked = checkTicket(text, keys, nowMs);
  return checked.ok ? 'ok' : checked.fault.code;
};

describe('a ticket', () => {
  const ticket = signTicket(claims, privateKey);

  it('carries its claims to a peer that trusts its console', () => {
    const checked = checkTicket(ticket, [publicKey], NOW + 1000);
    expect(checked).toEqual({ ok: true, value: claims });
  });

  it('is refused when missing, unreadable, signed by a stranger, out of time or from the future', () => {
    expect(codeOf(null)).toBe('ticket-missing');
    expect(codeOf('')).toBe('ticket-missing');
    expect(codeOf('nonsense')).toBe('ticket-malformed');
    expect(codeOf(`${ticket}.more`)).toBe('ticket-malformed');
    expect(codeOf(signTicket(claims, generateKeyPairSync('ed25519').privateKey))).toBe('ticket-forged');
    expect(codeOf(ticket, NOW, [])).toBe('ticket-forged');
    expect(codeOf(ticket, NOW + 60_001)).toBe('ticket-expired');
    expect(codeOf(ticket, NOW - 31_000)).toBe('ticket-early');
    expect(codeOf(ticket, NOW - 29_000)).toBe('ok');
  });

  it('is refused when well signed but not of the right shape', () => {
    const odd = { ...claims, limits: { seconds: -1, bytes: 1, streams: 1 } };
    expect(codeOf(signTicket(odd, privateKey))).toBe('ticket-malformed');
  });

  it('does not survive any change of a character', () => {
    fc.assert(
      fc.property(fc.nat(ticket.length - 1), fc.constantFrom(...'ABCabc019_-'), (at, character) => {
        fc.pre(ticket[at] !== character);
        const changed = ticket.slice(0, at) + character + ticket.slice(at + 1);
        // The last character of base64url carries spare bits, so another one may decode to the same signature.
        fc.pre(at !== ticket.length - 1);
        expect(codeOf(changed)).not.toBe('ok');
      }),
    );
  });

  it('never makes the check throw, whatever the text', () => {
    fc.assert(fc.property(fc.string(), (text) => expect(codeOf(text)).not.toBe('ok')));
  });
});

describe('a key as text', () => {
  it('goes through 43 characters and back', () => {
    const text = publicKeyText(publicKey);
    expect(text).toHaveLength(43);
    expect(publicKeyText(readPublicKey(text)!)).toBe(text);
    expect(publicKeyText(readSigningKey(newSigningKeyPem()))).toHaveLength(43);
  });

  it('is refused when it is not one', () => {
    expect(readPublicKey('short')).toBeNull();
    expect(readPublicKey('!'.repeat(43))).toBeNull();
  });
});
