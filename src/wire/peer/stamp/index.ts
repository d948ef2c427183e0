export { decodeErrorEstimate, encodeErrorEstimate, type ErrorEstimate } from './error-estimate';
export { stampKey } from './stamp-key';
export { AUTHENTICATED_LAYOUT, MOST_STAMP_BYTES, PLAIN_LAYOUT } from './stamp-layout';
export {
  decodeReflectorPacket,
  decodeSenderPacket,
  encodeReflectorPacket,
  encodeSenderPacket,
  peekSessionId,
  type ReflectorPacket,
  type SenderPacket,
  type StampRejection,
} from './stamp-packet';
