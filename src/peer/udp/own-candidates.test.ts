import fc from 'fast-check';
import { withOwnCandidates } from './own-candidates';

const candidate = (address: string, port: number) => `a=candidate:1 1 udp 2122260223 ${address} ${port} typ host`;
const offer = (...lines: string[]) =>
  ['v=0', 'm=application 9 UDP/DTLS/SCTP webrtc-datachannel', ...lines, ''].join('\r\n');
const addresses = (text: string) =>
  [...text.matchAll(/a=candidate:\S+ \d+ \S+ \d+ (\S+)/g)].map(([, address]) => address);

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
