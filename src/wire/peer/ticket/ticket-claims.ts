import * as z from 'zod';

/** What a ticket allows. Times are UTC epoch ms. */
export const ticketClaimsSchema = z.strictObject({
  /** Unique; a peer lets each be used once. */
  id: z.string().min(8).max(64),
  runId: z.string().min(1).max(64),
  deviceId: z.string().min(1).max(64),
  /** The peer that it is for, by its public key; null where the console does not know it yet. */
  peerKey: z.string().max(64).nullable().default(null),
  directions: z.array(z.enum(['down', 'up'])).min(1),
  limits: z.strictObject({
    seconds: z.number().positive().max(3600),
    bytes: z.number().positive(),
    streams: z.number().int().min(1).max(16),
  }),
  /** For probes alone, for long: such a session counts as nobody that measures. `runId` names the lane. */
  watch: z.boolean().optional(),
  issuedAtMs: z.number().nonnegative(),
  expiresAtMs: z.number().nonnegative(),
});
export type TicketClaims = z.infer<typeof ticketClaimsSchema>;

/** How far the console's clock may be ahead of the peer's before a ticket counts as from the future. */
export const CLOCK_LEEWAY_MS = 30_000;
