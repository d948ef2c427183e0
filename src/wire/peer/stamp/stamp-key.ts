/** The key of authenticated mode (RFC 8762 §4.4) as bytes: hexadecimal digits after 0x, else the text itself (UTF-8). Null: there is none. */
export function stampKey(text: string | null | undefined): Uint8Array | null {
  const key = text?.trim() ?? '';
  if (key === '') return null;
  return /^0x/i.test(key) ? Buffer.from(key.slice(2), 'hex') : Buffer.from(key, 'utf8');
}
