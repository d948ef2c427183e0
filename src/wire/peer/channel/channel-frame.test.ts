import { decodeChannelEcho, encodeChannelEcho, encodeChannelMessage } from './channel-frame';

describe('a message over the data channel', () => {
  it('comes back with its own number and the peer’s', () => {
    const echo = encodeChannelEcho(encodeChannelMessage(4_000_000_000), 7)!;
    expect([...echo]).toEqual([0xee, 0x6b, 0x28, 0x00, 0, 0, 0, 7]);
    expect(decodeChannelEcho(echo.buffer)).toEqual({ sequence: 4_000_000_000, peerSequence: 7 });
  });

  it('is neither echoed nor read when it is of another length', () => {
    for (const bytes of [0, 3, 5, 100]) expect(encodeChannelEcho(new Uint8Array(bytes), 0)).toBeNull();
    expect(decodeChannelEcho(new ArrayBuffer(4))).toBeNull();
  });
});
