import fc from 'fast-check';
import { readBindingRequest, writeBindingSuccess } from './stun-message';

const REQUEST = Buffer.from('000100002112a442b7e7a701bc34d686fa87dfae', 'hex');

describe('a STUN Binding', () => {
  it('answers with the address of the test vector of RFC 5769 §2.2: 192.0.2.1, port 32853', () => {
    const answer = Buffer.from(writeBindingSuccess(readBindingRequest(REQUEST)!, '192.0.2.1', 32_853));
    expect(answer.toString('hex')).toBe('0101000c2112a442b7e7a701bc34d686fa87dfae002000080001a147e112a643');
  });

  it.each([
    ['too short', REQUEST.subarray(0, 19)],
    ['of another kind', Buffer.concat([Buffer.from('0101', 'hex'), REQUEST.subarray(2)])],
    ['without the cookie', Buffer.concat([REQUEST.subarray(0, 4), Buffer.alloc(4), REQUEST.subarray(8)])],
    ['of a wrong length', Buffer.concat([REQUEST, Buffer.alloc(4)])],
    ['oversized', Buffer.concat([REQUEST, Buffer.alloc(800)])],
  ])('is not seen in what is %s', (_, bytes) => {
    expect(readBindingRequest(bytes)).toBeNull();
  });

  it('never makes the reader throw', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 600 }), (bytes) => expect(() => readBindingRequest(bytes)).not.toThrow()),
    );
  });
});
