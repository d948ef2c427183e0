import { z } from 'zod';

const nonNegative = z.number().nonnegative();

/** What a peer tells about itself to anybody. */
export const peerInfoSchema = z.object({
  product: z.literal('bent-straw-peer'),
  protocol: z.literal(1),
  name: z.string().max(200),
  version: z.string().max(40),
  clock: z.object({ wallMs: nonNegative, monotonicMs: nonNegative }),
  load: z.object({
    activeSessions: nonNegative.int(),
    mostSessions: nonNegative.int(),
    loadAverage1m: nonNegative.nullable(),
    cores: nonNegative.int(),
  }),
  /** The kernel's congestion control for what this peer sends; null where the system does not tell. */
  congestionControl: z.string().max(40).nullable(),
  can: z.object({ download: z.boolean(), upload: z.boolean(), probe: z.boolean(), udp: z.boolean() }),
});
export type PeerInfo = z.infer<typeof peerInfoSchema>;

/** Answer to opening a session with a ticket. */
export const sessionOpenedSchema = z.object({
  session: z.string().min(16).max(64),
  /** Whether the client's address is one of the peer's own machine. */
  sameMachine: z.boolean(),
  ipVersion: z.union([z.literal(4), z.literal(6)]),
  limits: z.object({ seconds: nonNegative, bytes: nonNegative, streams: z.number().int().min(1).max(16) }),
  info: peerInfoSchema,
});
export type SessionOpened = z.infer<typeof sessionOpenedSchema>;

/** Peer → client over the control WebSocket. Counters are cumulative payload bytes per stream on the peer's clock. */
export const controlMessageSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('upload-counters'),
    atMs: nonNegative,
    bytes: z.array(nonNegative).max(16),
  }),
  z.object({ kind: z.literal('limit-reached'), code: z.string().max(40) }),
]);
export type ControlMessage = z.infer<typeof controlMessageSchema>;
