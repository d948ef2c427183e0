/**
 * Message and echo over the data channel, big-endian.
 *
 * | offset | length | field                            | in            |
 * |--------|--------|----------------------------------|---------------|
 * | 0      | 4      | the client's sequence number     | message, echo |
 * | 4      | 4      | the peer's own sequence number   | echo          |
 */
export const CHANNEL_MESSAGE_BYTES = 4;
export const CHANNEL_ECHO_BYTES = 8;

export function encodeChannelMessage(sequence: number): Uint8Array<ArrayBuffer> {
  const frame = new Uint8Array(CHANNEL_MESSAGE_BYTES);
  new DataView(frame.buffer).setUint32(0, sequence);
  return frame;
}

/** The echo of a message; null when it is not one. */
export function encodeChannelEcho(message: Uint8Array, peerSequence: number): Uint8Array<ArrayBuffer> | null {
  if (message.byteLength !== CHANNEL_MESSAGE_BYTES) return null;
  const frame = new Uint8Array(CHANNEL_ECHO_BYTES);
  frame.set(message);
  new DataView(frame.buffer).setUint32(CHANNEL_MESSAGE_BYTES, peerSequence);
  return frame;
}

/** The two numbers of an echo; null when it is not one. */
export function decodeChannelEcho(frame: ArrayBuffer): { sequence: number; peerSequence: number } | null {
  if (frame.byteLength !== CHANNEL_ECHO_BYTES) return null;
  const view = new DataView(frame);
  return { sequence: view.getUint32(0), peerSequence: view.getUint32(CHANNEL_MESSAGE_BYTES) };
}
