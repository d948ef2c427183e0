import { createHmac, timingSafeEqual } from 'node:crypto';
import { decodeErrorEstimate, encodeErrorEstimate, type ErrorEstimate } from './error-estimate';
import { readNtpTime, writeNtpTime } from './ntp-time';
import { HMAC_BYTES, HMAC_OFFSET, layoutFor, MOST_STAMP_BYTES } from './stamp-layout';

/** What a session-sender sends. Times are UTC epoch ms. */
export interface SenderPacket {
  readonly sequence: number;
  readonly sentMs: number;
  readonly error: ErrorEstimate;
  /** 0: none (RFC 8762 alone). */
  readonly sessionId: number;
}

/** What a session-reflector answers. */
export interface ReflectorPacket extends SenderPacket {
  readonly receivedMs: number;
  readonly sender: { readonly sequence: number; readonly sentMs: number; readonly error: ErrorEstimate };
  readonly senderTtl: number;
}

export type StampRejection = 'too-short' | 'too-long' | 'hmac-wrong' | 'timestamp-missing';
export type Decoded<Packet> =
  | { readonly ok: true; readonly packet: Packet }
  | { readonly ok: false; readonly why: StampRejection };

const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

function hmacOf(bytes: Uint8Array, key: Uint8Array): Buffer {
  return createHmac('sha256', key).update(bytes.subarray(0, HMAC_OFFSET)).digest().subarray(0, HMAC_BYTES);
}

/** Checks length first, then the HMAC, then that there is a timestamp at all. */
function complaintOf(bytes: Uint8Array, key: Uint8Array | null): StampRejection | null {
  const layout = layoutFor(key);
  if (bytes.byteLength < layout.bytes) return 'too-short';
  if (bytes.byteLength > MOST_STAMP_BYTES) return 'too-long';
  if (key !== null && !timingSafeEqual(hmacOf(bytes, key), bytes.subarray(HMAC_OFFSET, HMAC_OFFSET + HMAC_BYTES)))
    return 'hmac-wrong';
  return viewOf(bytes).getUint32(layout.timestamp) === 0 ? 'timestamp-missing' : null;
}

function writeHead(bytes: Uint8Array, packet: SenderPacket, key: Uint8Array | null): DataView {
  const view = viewOf(bytes);
  const layout = layoutFor(key);
  view.setUint32(0, packet.sequence);
  writeNtpTime(view, layout.timestamp, packet.sentMs);
  view.setUint16(layout.errorEstimate, encodeErrorEstimate(packet.error));
  view.setUint16(layout.sessionId, packet.sessionId);
  return view;
}

function sign(bytes: Uint8Array, key: Uint8Array | null): Uint8Array {
  if (key !== null) bytes.set(hmacOf(bytes, key), HMAC_OFFSET);
  return bytes;
}

/** A sender's packet of `sizeBytes` (at least the base packet), zero-padded; authenticated when a key is given. */
export function encodeSenderPacket(packet: SenderPacket, key: Uint8Array | null, sizeBytes = 0): Uint8Array {
  const bytes = new Uint8Array(Math.max(layoutFor(key).bytes, sizeBytes));
  writeHead(bytes, packet, key);
  return sign(bytes, key);
}

export function decodeSenderPacket(bytes: Uint8Array, key: Uint8Array | null): Decoded<SenderPacket> {
  const why = complaintOf(bytes, key);
  if (why !== null) return { ok: false, why };
  const view = viewOf(bytes);
  const layout = layoutFor(key);
  return {
    ok: true,
    packet: {
      sequence: view.getUint32(0),
      sentMs: readNtpTime(view, layout.timestamp),
      error: decodeErrorEstimate(view.getUint16(layout.errorEstimate)),
      sessionId: view.getUint16(layout.sessionId),
    },
  };
}

/** The session identifier of a packet whose mode is not known yet; 0 when it is too short to hold one. */
export function peekSessionId(bytes: Uint8Array, authenticated: boolean): number {
  const { sessionId } = layoutFor(authenticated ? bytes : null);
  return bytes.byteLength < sessionId + 2 ? 0 : viewOf(bytes).getUint16(sessionId);
}

/**
 * A reflector's answer to `request`, of the same size as it (§4.3): it never sends more than it got. The sender's own
 * fields are copied to the bit.
 */
export function encodeReflectorPacket(
  packet: Omit<ReflectorPacket, 'sender'>,
  request: Uint8Array,
  key: Uint8Array | null,
): Uint8Array {
  const layout = layoutFor(key);
  const bytes = new Uint8Array(request.byteLength);
  bytes.set(request.subarray(layout.bytes), layout.bytes);
  const view = writeHead(bytes, packet, key);
  writeNtpTime(view, layout.received, packet.receivedMs);
  bytes.set(request.subarray(0, 4), layout.senderSequence);
  bytes.set(request.subarray(layout.timestamp, layout.timestamp + 8), layout.senderTimestamp);
  bytes.set(request.subarray(layout.errorEstimate, layout.errorEstimate + 2), layout.senderErrorEstimate);
  view.setUint8(layout.senderTtl, packet.senderTtl);
  return sign(bytes, key);
}

export function decodeReflectorPacket(bytes: Uint8Array, key: Uint8Array | null): Decoded<ReflectorPacket> {
  const head = decodeSenderPacket(bytes, key);
  if (!head.ok) return head;
  const view = viewOf(bytes);
  const layout = layoutFor(key);
  return {
    ok: true,
    packet: {
      ...head.packet,
      receivedMs: readNtpTime(view, layout.received),
      sender: {
        sequence: view.getUint32(layout.senderSequence),
        sentMs: readNtpTime(view, layout.senderTimestamp),
        error: decodeErrorEstimate(view.getUint16(layout.senderErrorEstimate)),
      },
      senderTtl: view.getUint8(layout.senderTtl),
    },
  };
}
