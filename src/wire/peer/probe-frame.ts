/**
 * Probe and echo over the probe WebSocket, big-endian.
 *
 * | offset | length | field                                   | unit | in           |
 * |--------|--------|-----------------------------------------|------|--------------|
 * | 0      | 4      | sequence number, unsigned               | -    | probe, echo  |
 * | 4      | 8      | peer's monotonic clock at the echo, f64 | ms   | echo         |
 */
export const PROBE_BYTES = 4;
export const ECHO_BYTES = 12;

export function encodeProbe(sequence: number): Uint8Array<ArrayBuffer> {
  const frame = new Uint8Array(PROBE_BYTES);
  new DataView(frame.buffer).setUint32(0, sequence);
  return frame;
}

/** The echo of a probe frame; null when the frame is not a probe. */
export function encodeEcho(probe: Uint8Array, peerMs: number): Uint8Array<ArrayBuffer> | null {
  if (probe.byteLength !== PROBE_BYTES) return null;
  const frame = new Uint8Array(ECHO_BYTES);
  frame.set(probe);
  new DataView(frame.buffer).setFloat64(PROBE_BYTES, peerMs);
  return frame;
}

/** Sequence number and peer's clock of an echo; null when the frame is not an echo. */
export function decodeEcho(frame: ArrayBuffer): { sequence: number; peerMs: number } | null {
  if (frame.byteLength !== ECHO_BYTES) return null;
  const view = new DataView(frame);
  const peerMs = view.getFloat64(PROBE_BYTES);
  return Number.isFinite(peerMs) ? { sequence: view.getUint32(0), peerMs } : null;
}
