import { sign, verify, type KeyObject } from 'node:crypto';
import * as z from 'zod';
import type { Receipt } from '@/core';
import { readPublicKey } from './ticket/key-text';

/** Signed bytes begin with this, so that a signature made for something else never passes as a receipt. */
const CONTEXT = 'bent-straw receipt 1\n';
/** Sixteen streams in each direction take about 3 kB. */
export const LONGEST_RECEIPT = 8192;

const nonNegative = z.number().nonnegative();
const id = z.string().max(64);
const directionSchema = z.strictObject({
  bytes: nonNegative.int(),
  activeMs: nonNegative,
  streams: z
    .array(
      z.strictObject({
        stream: z.number().int().min(0).max(15),
        bytes: nonNegative.int(),
        firstMs: nonNegative,
        lastMs: nonNegative,
      }),
    )
    .max(16),
});

const receiptSchema: z.ZodType<Receipt> = z.strictObject({
  session: id,
  runId: id,
  ticketId: id,
  openedMs: nonNegative,
  endedMs: nonNegative,
  down: directionSchema,
  up: directionSchema,
  echoes: nonNegative.int(),
  sameMachine: z.boolean(),
  ipVersion: z.union([z.literal(4), z.literal(6)]),
  minRttMs: nonNegative.nullable(),
  otherSessions: nonNegative.int(),
});

/** A receipt as text: base64url(JSON) "." base64url(Ed25519 signature of the peer, RFC 8032). */
export function signReceipt(receipt: Receipt, peerKey: KeyObject): string {
  const body = Buffer.from(JSON.stringify(receipt)).toString('base64url');
  return `${body}.${sign(null, Buffer.from(CONTEXT + body), peerKey).toString('base64url')}`;
}

/** The receipt, if this peer signed it; null for everything else. `publicKey`: as in `publicKeyText`. */
export function readReceipt(text: string, publicKey: string): Receipt | null {
  const [body, signature, ...rest] = text.split('.');
  const key = readPublicKey(publicKey);
  if (key === null || !body || !signature || rest.length > 0 || text.length > LONGEST_RECEIPT) return null;
  try {
    if (!verify(null, Buffer.from(CONTEXT + body), key, Buffer.from(signature, 'base64url'))) return null;
    return receiptSchema.safeParse(JSON.parse(Buffer.from(body, 'base64url').toString())).data ?? null;
  } catch {
    return null;
  }
}
