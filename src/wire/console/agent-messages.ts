import * as z from 'zod';
import type { MachineFacts } from '@/core';
import { linkSchema } from './link-schema';

/** What agent and console understand of each other. Another version of the program with the same number goes on working. */
export const AGENT_PROTOCOL = 1;

const short = z.string().max(120);
const positive = z.number().positive().max(1e7).nullable();

export const machineFactsSchema = z.strictObject({
  system: short,
  gateway: z.strictObject({ address: short, link: short }).nullable(),
  gatewayMs: z.number().nonnegative().max(1e5).nullable(),
  resolvers: z.array(short).max(16).readonly(),
  links: z
    .array(
      z.strictObject({
        name: short,
        medium: z.enum(['wired', 'wifi', 'tunnel', 'other']),
        up: z.boolean(),
        speedMbps: positive,
        duplex: z.enum(['full', 'half']).nullable(),
        mtuBytes: positive,
        driver: short.nullable(),
        addresses: z.array(short).max(16).readonly(),
      }),
    )
    .max(64)
    .readonly(),
}) satisfies z.ZodType<MachineFacts>;

/** What an agent says of itself each time that it begins to stand by, and when something of it changed. */
export const agentHelloSchema = z.strictObject({
  version: short,
  protocol: z.number().int().positive(),
  facts: machineFactsSchema,
  /** Its clock when it said so, ms since 1970. */
  clockMs: z.number(),
  /** What it can be asked beyond measuring: kinds of looks, `lanes`, `web` (load a web server), `far-end` (be one). */
  can: z.array(short).max(32).readonly().default([]),
  /** Results that it still has to hand in. */
  outbox: z.number().int().nonnegative(),
  /** Who else it has heard on its networks; one hardware address may have several addresses. */
  neighbours: z
    .array(
      z.strictObject({
        address: short,
        mac: z.string().regex(/^([0-9a-f]{2}:){5}[0-9a-f]{2}$/),
        name: short.nullable(),
      }),
    )
    .max(256)
    .readonly()
    .default([]),
});
export type AgentHello = z.infer<typeof agentHelloSchema>;

/** A machine enrols, with a code that the board shows. */
export const joinAgentSchema = z.strictObject({
  code: z.string().max(20),
  name: z.string().trim().min(1, 'give it a name').max(80, 'at most 80 characters'),
  spotName: z.string().trim().max(80, 'at most 80 characters').default(''),
  link: linkSchema,
  hello: agentHelloSchema,
});
export type JoinAgent = z.infer<typeof joinAgentSchema>;

export const joinedAgentSchema = z.object({ deviceId: z.string(), deviceName: z.string(), officeName: z.string() });
export type JoinedAgent = z.infer<typeof joinedAgentSchema>;
