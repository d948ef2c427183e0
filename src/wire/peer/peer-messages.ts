import * as z from 'zod';
import { KNOCK_STATES } from '@/core';
import { kernelSightingSchema, peerLoadSchema } from './sighting-schemas';

const nonNegative = z.number().nonnegative();

/** What a peer tells about itself to anybody. */
export const peerInfoSchema = z.object({
  product: z.literal('bent-straw-peer'),
  protocol: z.literal(1),
  name: z.string().max(200),
  /** Version, load and congestion control are for whoever shows a ticket of a console that the peer trusts. */
  version: z.string().max(40).optional(),
  clock: z.object({ wallMs: nonNegative, monotonicMs: nonNegative }),
  load: z
    .object({
      activeSessions: nonNegative.int(),
      mostSessions: nonNegative.int(),
      loadAverage1m: nonNegative.nullable(),
      cores: nonNegative.int(),
    })
    .optional(),
  /** The kernel's congestion control for what this peer sends; null where the system does not tell. */
  congestionControl: z.string().max(40).nullable().optional(),
  can: z.object({
    download: z.boolean(),
    upload: z.boolean(),
    probe: z.boolean(),
    udp: z.boolean(),
    dataChannel: z.boolean(),
    /** Whether it tells by which address it was asked, and knocks at ports there; one of before does not. */
    knock: z.boolean().default(false),
  }),
  /** Its answer to the challenge of whoever asked (`?challenge=`); absent where nobody asked. */
  identity: z.object({ publicKey: z.string().max(64), proof: z.string().max(128) }).optional(),
});
export type PeerInfo = z.infer<typeof peerInfoSchema>;

/** Answer to opening a session with a ticket. */
export const sessionOpenedSchema = z.object({
  session: z.string().min(16).max(64),
  /** Whether the client's address is one of the peer's own machine. */
  sameMachine: z.boolean(),
  ipVersion: z.union([z.literal(4), z.literal(6)]),
  /** The client's address as the peer sees it; one of before does not tell. */
  address: z.string().max(64).nullable().default(null),
  /** Rate of the port by which the client came in, bits per second; null where the system does not tell. */
  interfaceBps: z.number().positive().max(1e13).nullable(),
  limits: z.object({ seconds: nonNegative, bytes: nonNegative, streams: z.number().int().min(1).max(16) }),
  info: peerInfoSchema,
});
export type SessionOpened = z.infer<typeof sessionOpenedSchema>;

/** Peer → client over the control WebSocket. Counters are cumulative payload bytes per stream on the peer's clock. */
export const controlMessageSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('upload-counters'),
    atMs: nonNegative,
    bytes: z.array(nonNegative.int()).max(16),
  }),
  z.object({ kind: z.literal('limit-reached'), code: z.string().max(40) }),
  z.object({ kind: z.literal('kernel'), sightings: z.array(kernelSightingSchema).max(64) }),
  z.object({ kind: z.literal('load'), sample: peerLoadSchema }),
  z.object({ kind: z.literal('udp-counts'), received: nonNegative.int() }),
  /** The session is over; what the peer signs for it, null where it signs nothing. */
  z.object({ kind: z.literal('receipt'), receipt: z.string().max(8192).nullable() }),
]);
export type ControlMessage = z.infer<typeof controlMessageSchema>;

/** What came over the control WebSocket; null for anything that is not such a message. */
export function readControlMessage(text: unknown): ControlMessage | null {
  if (typeof text !== 'string') return null;
  try {
    return controlMessageSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

/**
 * Client → peer over the control WebSocket: how many UDP packets of this session have arrived? Or: it is over, what do you
 * sign for?
 */
export const controlQuestionSchema = z.strictObject({ kind: z.enum(['udp-counts', 'receipt']) });
export type ControlQuestion = z.infer<typeof controlQuestionSchema>;

/** Answer to asking for UDP: where to send STAMP packets, as whom, and with what key (base64url; null: plain mode). */
export const udpAdmissionSchema = z.object({
  port: z.number().int().min(1).max(65_535),
  sessionId: z.number().int().min(1).max(65_535),
  key: z.string().max(64).nullable(),
});
export type UdpAdmission = z.infer<typeof udpAdmissionSchema>;

/** What became of one connection to a port of the client's own address. */
export const knockAnswerSchema = z.object({ state: z.enum(KNOCK_STATES) });
export type KnockAnswer = z.infer<typeof knockAnswerSchema>;

/** Answer to an offer of a data channel (SDP, RFC 8866). */
export const channelAnswerSchema = z.object({ answer: z.string().max(65_536) });
export type ChannelAnswer = z.infer<typeof channelAnswerSchema>;
