import { createHmac } from 'node:crypto';
import fc from 'fast-check';
import {
  decodeErrorEstimate,
  decodeReflectorPacket,
  decodeSenderPacket,
  encodeErrorEstimate,
  encodeReflectorPacket,
  encodeSenderPacket,
} from '.';

const KEY = Buffer.from('000102030405060708090a0b0c0d0e0f101112131415161718191a1b1c1d1e1f', 'hex');
// 2026-11-25T00:00:00.500Z: 1 795 564 800.5 s of Unix time; + 2 208 988 800 = 4 004 553 600 = 0xEEB0A380 of NTP.
const AT_MS = 1_795_564_800_500;
const SENDER = { sequence: 5, sentMs: AT_MS, error: { synchronised: true, errorMs: 1 }, sessionId: 0xabcd };
const hex = (bytes: Uint8Array) => Buffer.from(bytes).toString('hex');
// 1 ms is 4 294 967 units of 2⁻³² s, rounded up to 132 × 2^15: S bit, scale 15, multiplier 0x84.
const ERROR_HEX = '8f84';

describe('a plain STAMP packet', () => {
  it('of a session-sender lies as in RFC 8762 §4.2.1, with the identifier of RFC 8972 §3', () => {
    expect(hex(encodeSenderPacket(SENDER, null))).toBe(
      `${'00000005'}${'eeb0a38080000000'}${ERROR_HEX}${'abcd'}${'00'.repeat(28)}`,
    );
  });

  it('of a session-reflector lies as in §4.3.1 and copies the sender’s fields', () => {
    const request = encodeSenderPacket(SENDER, null);
    const reply = encodeReflectorPacket(
      { ...SENDER, sequence: 2, sentMs: AT_MS + 250, receivedMs: AT_MS + 125, senderTtl: 255 },
      request,
      null,
    );
    expect(hex(reply)).toBe(
      `${'00000002'}${'eeb0a380c0000000'}${ERROR_HEX}${'abcd'}${'eeb0a380a0000000'}` +
        `${'00000005'}${'eeb0a38080000000'}${ERROR_HEX}${'0000'}${'ff'}${'000000'}`,
    );
    const decoded = decodeReflectorPacket(reply, null);
    expect(decoded).toMatchObject({ ok: true, packet: { sequence: 2, sender: { sequence: 5 }, senderTtl: 255 } });
  });

  it('is answered with just its own size, padding returned', () => {
    const request = encodeSenderPacket(SENDER, null, 200);
    request.fill(7, 44);
    const reply = encodeReflectorPacket({ ...SENDER, sequence: 0, receivedMs: AT_MS, senderTtl: 255 }, request, null);
    expect(reply).toHaveLength(200);
    expect(reply.subarray(44)).toEqual(request.subarray(44));
  });
});

describe('an authenticated STAMP packet', () => {
  it('lies as in §4.2.2, with the HMAC of its first 96 bytes', () => {
    const bytes = encodeSenderPacket(SENDER, KEY);
    const head = `${'00000005'}${'00'.repeat(12)}${'eeb0a38080000000'}${ERROR_HEX}${'abcd'}${'00'.repeat(68)}`;
    expect(hex(bytes.subarray(0, 96))).toBe(head);
    const hmac = createHmac('sha256', KEY).update(Buffer.from(head, 'hex')).digest('hex').slice(0, 32);
    expect(hex(bytes.subarray(96))).toBe(hmac);
  });

  it('of a reflector lies as in §4.3.2', () => {
    const request = encodeSenderPacket(SENDER, KEY);
    const reply = encodeReflectorPacket(
      { ...SENDER, sequence: 2, receivedMs: AT_MS + 125, senderTtl: 64 },
      request,
      KEY,
    );
    const view = Buffer.from(reply);
    expect(view.toString('hex', 32, 40)).toBe('eeb0a380a0000000');
    expect(view.readUInt32BE(48)).toBe(5);
    expect(view.toString('hex', 64, 72)).toBe('eeb0a38080000000');
    expect(view.toString('hex', 72, 74)).toBe(ERROR_HEX);
    expect(view[80]).toBe(64);
    expect(decodeReflectorPacket(reply, KEY).ok).toBe(true);
  });

  it('is refused with another key, and with any byte of its first 96 changed', () => {
    const bytes = encodeSenderPacket(SENDER, KEY);
    expect(decodeSenderPacket(bytes, Buffer.alloc(32))).toEqual({ ok: false, why: 'hmac-wrong' });
    fc.assert(
      fc.property(fc.nat(111), fc.integer({ min: 1, max: 255 }), (at, change) => {
        const changed = Uint8Array.from(bytes);
        changed[at]! ^= change;
        expect(decodeSenderPacket(changed, KEY)).toEqual({ ok: false, why: 'hmac-wrong' });
      }),
    );
  });
});

describe('what is no STAMP packet', () => {
  it.each([
    ['too-short', new Uint8Array(43), null],
    ['too-short', new Uint8Array(111), KEY],
    ['too-short', new Uint8Array(0), null],
    ['too-long', new Uint8Array(9001), null],
    ['timestamp-missing', new Uint8Array(44), null],
  ] as const)('is refused as %s', (why, bytes, key) => {
    expect(decodeSenderPacket(bytes, key)).toEqual({ ok: false, why });
    expect(decodeReflectorPacket(bytes, key)).toEqual({ ok: false, why });
  });

  it('never makes the decoder throw', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), fc.boolean(), (bytes, authenticated) => {
        expect(() => decodeReflectorPacket(bytes, authenticated ? KEY : null)).not.toThrow();
      }),
    );
  });
});

describe('a STAMP packet', () => {
  it('comes back as it was sent', () => {
    const error = fc.record({ synchronised: fc.boolean(), errorMs: fc.double({ min: 0.001, max: 1e6, noNaN: true }) });
    fc.assert(
      fc.property(
        fc.nat(0xffffffff),
        fc.double({ min: 1e12, max: 2e12, noNaN: true }),
        error,
        fc.nat(0xffff),
        fc.boolean(),
        (sequence, sentMs, errorEstimate, sessionId, authenticated) => {
          const key = authenticated ? KEY : null;
          const decoded = decodeSenderPacket(
            encodeSenderPacket({ sequence, sentMs, error: errorEstimate, sessionId }, key),
            key,
          );
          if (!decoded.ok) throw new Error(decoded.why);
          expect(decoded.packet).toMatchObject({ sequence, sessionId });
          expect(Math.abs(decoded.packet.sentMs - sentMs)).toBeLessThan(0.001);
          expect(decoded.packet.error.synchronised).toBe(errorEstimate.synchronised);
        },
      ),
    );
  });

  it('claims no smaller error of its clock than it has, and at most 1 % more', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-4, max: 1e7, noNaN: true }), (errorMs) => {
        const told = decodeErrorEstimate(encodeErrorEstimate({ synchronised: false, errorMs })).errorMs;
        expect(told).toBeGreaterThanOrEqual(errorMs * 0.999999);
        expect(told).toBeLessThan(errorMs * 1.01 + 2e-6);
      }),
    );
  });
});
