/**
 * STUN Binding (RFC 8489), big-endian.
 *
 * | offset | length | field                                       |
 * |--------|--------|---------------------------------------------|
 * | 0      | 2      | message type: request 0x0001, success 0x0101 |
 * | 2      | 2      | length of the attributes                    |
 * | 4      | 4      | magic cookie 0x2112A442                     |
 * | 8      | 12     | transaction id                              |
 * | 20     | …      | attributes: type 2, length 2, value, padded to 4 |
 */
const HEADER_BYTES = 20;
const MAGIC_COOKIE = 0x2112a442;
const BINDING_REQUEST = 0x0001;
const BINDING_SUCCESS = 0x0101;
const XOR_MAPPED_ADDRESS = 0x0020;
const FAMILY_IPV4 = 0x01;
const MOST_BYTES = 548;

const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

/** The transaction id of a Binding request; null when the bytes are anything else (§5, §6.3). */
export function readBindingRequest(bytes: Uint8Array): Uint8Array | null {
  if (bytes.byteLength < HEADER_BYTES || bytes.byteLength > MOST_BYTES || bytes.byteLength % 4 !== 0) return null;
  const view = viewOf(bytes);
  if (view.getUint16(0) !== BINDING_REQUEST || view.getUint32(4) !== MAGIC_COOKIE) return null;
  return view.getUint16(2) === bytes.byteLength - HEADER_BYTES ? bytes.subarray(8, HEADER_BYTES) : null;
}

/** A Binding success response with the XOR-MAPPED-ADDRESS of an IPv4 source (§14.2). */
export function writeBindingSuccess(transactionId: Uint8Array, address: string, port: number): Uint8Array {
  const bytes = new Uint8Array(HEADER_BYTES + 12);
  const view = viewOf(bytes);
  view.setUint16(0, BINDING_SUCCESS);
  view.setUint16(2, 12);
  view.setUint32(4, MAGIC_COOKIE);
  bytes.set(transactionId, 8);
  view.setUint16(HEADER_BYTES, XOR_MAPPED_ADDRESS);
  view.setUint16(HEADER_BYTES + 2, 8);
  view.setUint8(HEADER_BYTES + 5, FAMILY_IPV4);
  view.setUint16(HEADER_BYTES + 6, port ^ (MAGIC_COOKIE >>> 16));
  const plain = address.split('.').reduce((value, part) => value * 256 + Number(part), 0);
  view.setUint32(HEADER_BYTES + 8, (plain ^ MAGIC_COOKIE) >>> 0);
  return bytes;
}
