import fc from 'fast-check';
import { offersChannel, withOwnCandidates } from './own-candidates';

const candidate = (address: string, port: number) => `a=candidate:1 1 udp 2122260223 ${address} ${port} typ host`;
const offer = (...lines: string[]) =>
  ['v=0', 'm=application 9 UDP/DTLS/SCTP webrtc-datachannel', ...lines, ''].join('\r\n');
const addresses = (text: string) =>
  [...text.matchAll(/a=candidate:\S+ \d+ \S+ \d+ (\S+)/g)].map(([, address]) => address);

const WHOLE = offer('a=ice-ufrag:Ab1+', 'a=ice-pwd:0123456789abcdefghijkl', 'a=fingerprint:sha-256 AB:CD');

describe('an offer', () => {
  it('is one of a data channel', () => {
    expect(offersChannel(WHOLE)).toBe(true);
    expect(offersChannel(WHOLE.replaceAll('\r\n', '\n'))).toBe(true);
  });

  it('is none without any of its parts, nor with sound or pictures beside it', () => {
    const lines = WHOLE.trim().split('\r\n');
    for (const left of lines) expect(offersChannel(lines.filter((line) => line !== left).join('\r\n'))).toBe(false);
    expect(offersChannel(`${WHOLE}m=audio 9 UDP/TLS/RTP/SAVPF 111\r\n`)).toBe(false);
    expect(offersChannel('')).toBe(false);
    fc.assert(fc.property(fc.string(), (text) => !offersChannel(text)));
  });
});

describe('the candidates of an offer', () => {
  it('are kept where they lie at the client’s own address, and nowhere else', () => {
    const lines = [candidate('192.0.2.7', 5000), candidate('198.51.100.1', 53), candidate('abc.local', 5001)];
    expect(addresses(withOwnCandidates(offer(...lines), '::ffff:192.0.2.7'))).toEqual(['192.0.2.7']);
    expect(withOwnCandidates(offer(...lines), '192.0.2.7')).toContain('webrtc-datachannel');
  });

  it('are at most eight, however many are named', () => {
    const many = Array.from({ length: 150 }, (_, index) => candidate('192.0.2.7', 5000 + index));
    expect(addresses(withOwnCandidates(offer(...many), '192.0.2.7'))).toHaveLength(8);
  });

  it('lead to no other address, whatever the offer says', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            fc.string(),
            fc.ipV4().map((ip) => candidate(ip, 53)),
          ),
        ),
        (lines) => {
          const found = addresses(withOwnCandidates(offer(...lines), '192.0.2.7'));
          expect(found.every((address) => address === '192.0.2.7')).toBe(true);
        },
      ),
    );
  });
});
