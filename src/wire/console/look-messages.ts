import * as z from 'zod';
import { KNOCK_STATES, MOST_KNOCKS, type LookAsked, type LookFound, type SnmpLogin } from '@/core';

const text = z.string().max(400);
const ms = z.number().nonnegative().max(1e7);
const mhz = z.number().positive().max(10_000);
const bps = z.number().nonnegative().max(1e13);

/** What begins with a dash could be read as an option by the program that is asked. */
const host = z
  .string()
  .trim()
  .regex(/^[A-Za-z0-9_][A-Za-z0-9_.:%-]{0,252}$|^:[0-9a-fA-F:]+$/, 'Give a name or an address, such as 192.0.2.1.');
const resolver = z
  .string()
  .trim()
  .regex(
    /^https:\/\/\S{3,250}$|^(tls:|tcp:)?[0-9a-fA-F.:]{2,45}(#\d{1,5})?$/,
    'Give an address such as 192.0.2.1, tls:192.0.2.1, or one that begins with https://.',
  );
const domain = z
  .string()
  .trim()
  .regex(/^[A-Za-z0-9_-]+(\.[A-Za-z0-9_-]+)*\.?$/, 'Give a name such as example.com.')
  .max(200);

export const NAMES_BY_DEFAULT = ['example.com', 'example.net', 'example.org'] as const;

export const lookAskedSchema = z.discriminatedUnion('what', [
  z.strictObject({
    what: z.literal('share'),
    folder: z.string().trim().min(1, 'Name the folder.').max(400),
    megabytes: z.number().int().min(8, 'At least 8 MB.').max(20_000, 'At most 20 000 MB.').default(512),
    streams: z.number().int().min(1).max(8, 'At most eight files at a time.').default(1),
  }),
  z.strictObject({
    what: z.literal('echo'),
    target: host,
    count: z.number().int().min(1).max(300, 'At most 300.').default(20),
  }),
  z.strictObject({
    what: z.literal('names'),
    resolvers: z.array(resolver).max(8, 'At most eight resolvers.').readonly().default([]),
    names: z
      .array(domain)
      .min(1, 'Give at least one name.')
      .max(12, 'At most twelve names.')
      .readonly()
      .default([...NAMES_BY_DEFAULT]),
  }),
  // Agents of before know nothing of the second: it is left out where it is not wanted.
  z.strictObject({ what: z.literal('path'), target: host, loaded: z.literal(true).optional() }),
  z.strictObject({ what: z.literal('programs'), seconds: z.number().int().min(2).max(60).default(10) }),
  z.strictObject({ what: z.literal('air') }),
  z.strictObject({
    ...{ what: z.literal('ports'), target: host },
    seconds: z.number().int().min(3, 'At least 3 s.').max(60, 'At most 60 s.').default(10),
  }),
  z.strictObject({
    what: z.literal('outside'),
    ports: z
      .array(z.number().int().min(1, 'A port is 1 to 65535.').max(65_535, 'A port is 1 to 65535.'))
      .max(MOST_KNOCKS, 'At most four ports.')
      .readonly()
      .default([]),
  }),
  z.strictObject({
    what: z.literal('line'),
    seconds: z.number().int().min(3, 'At least 3 s.').max(10, 'At most 10 s.').default(10),
  }),
]) satisfies z.ZodType<LookAsked>;

const key = z.string().min(8, 'A key has at least eight characters.').max(200);

/** How a device lets itself be asked by SNMP. */
export const snmpLoginSchema = z.strictObject({
  port: z.number().int().min(1).max(65_535).default(161),
  community: z.string().min(1).max(200).nullable().default(null),
  user: z
    .strictObject({
      name: z.string().min(1).max(100),
      ...{ authKey: key.nullable().default(null), privKey: key.nullable().default(null) },
    })
    .nullable()
    .default(null),
}) satisfies z.ZodType<SnmpLogin>;

/** Who looks at an office from outside: the peer's name, its address as in the set-up, and a ticket for it. */
export const farLookSchema = z.object({ name: text, address: text, ticket: z.string().max(4000) });
export type FarLook = z.infer<typeof farLookSchema>;

/** What is wanted, and the login for a device that is asked by SNMP; absent: the one that it was asked with last. */
export const lookRequestSchema = z.strictObject({ asked: lookAskedSchema, login: snmpLoginSchema.optional() });

const shareSeries = z.strictObject({
  atMs: z.array(ms).max(1000).readonly(),
  bytes: z.array(z.number().nonnegative().max(1e13)).max(1000).readonly(),
});
const rtts = z.array(ms.nullable()).max(300).readonly();

const lineReading = z.strictObject({
  ...{ atMs: z.number(), receivedBytes: z.number().nonnegative(), sentBytes: z.number().nonnegative() },
});
const count = z
  .number()
  .nonnegative()
  .max(2 ** 64)
  .nullable();
const portReading = z.strictObject({
  ...{ atMs: z.number(), upMs: z.number().nonnegative().nullable(), wide: z.boolean() },
  ports: z
    .array(
      z.strictObject({
        ...{ index: z.number().int(), name: text, label: text.nullable(), up: z.boolean().nullable() },
        ...{ speedMbps: z.number().positive().max(1e7).nullable(), duplex: z.enum(['full', 'half']).nullable() },
        ...{
          inBytes: count,
          outBytes: count,
          inErrors: count,
          outErrors: count,
          checksumErrors: count,
          discards: count,
        },
        behind: z.array(z.string().max(20)).max(2000).readonly(),
      }),
    )
    .max(600)
    .readonly(),
});

/** What came of it. An agent says nothing that the console would not look at. */
export const lookFoundSchema = z.discriminatedUnion('what', [
  z.strictObject({
    ...{ what: z.literal('share'), folder: text, fileSystem: text, source: text },
    place: z.enum(['network', 'own-disk', 'memory']),
    ...{ streams: z.number().int().positive(), written: shareSeries, read: shareSeries.nullable() },
  }),
  z.strictObject({
    ...{ what: z.literal('echo'), target: text, address: text.nullable(), rttsMs: rtts },
    ...{ duplicates: z.number().int().nonnegative(), refusal: text.nullable() },
  }),
  z.strictObject({
    what: z.literal('names'),
    resolvers: z
      .array(z.strictObject({ resolver: text, role: z.enum(['own', 'gateway', 'typed']) }))
      .max(32)
      .readonly(),
    answers: z
      .array(
        z.strictObject({
          ...{ resolver: text, name: text, kind: z.enum(['fresh', 'again']), round: z.number().int() },
          ...{ ms: ms.nullable(), code: text.nullable(), addresses: z.array(text).max(64).readonly() },
          ...{ authentic: z.boolean(), trouble: text.nullable() },
        }),
      )
      .max(2000)
      .readonly(),
  }),
  z.strictObject({
    ...{ what: z.literal('path'), target: text, address: text.nullable(), reached: z.boolean() },
    hops: z
      .array(
        z.strictObject({
          place: z.number().int().positive(),
          ...{ addresses: z.array(text).max(8).readonly(), name: text.nullable(), rttsMs: rtts },
        }),
      )
      .max(64)
      .readonly(),
    mtuBytes: z.number().int().positive().max(100_000).nullable(),
    loaded: z
      .strictObject({
        ...{ peer: text, downBps: bps.nullable(), upBps: bps.nullable() },
        hops: z
          .array(
            z.strictObject({
              ...{ place: z.number().int().positive(), address: text },
              ...{ idleMs: rtts, downMs: rtts, upMs: rtts },
            }),
          )
          .max(64)
          .readonly(),
      })
      .optional(),
  }),
  z.strictObject({
    ...{ what: z.literal('programs'), seconds: z.number().positive() },
    programs: z
      .array(z.strictObject({ program: text.nullable(), inside: z.boolean(), upBps: bps, downBps: bps }))
      .max(200)
      .readonly(),
  }),
  z.strictObject({
    ...{ what: z.literal('air'), device: text, by: z.enum(['iw', 'nmcli', 'netsh', 'system_profiler']) },
    networks: z
      .array(
        z.strictObject({
          ...{
            name: text.nullable(),
            bssid: text,
            primaryMhz: mhz,
            centreMhz: mhz,
            widthMhz: z.number().positive().max(640),
          },
          ...{ signalDbm: z.number().min(-200).max(50), load: z.number().min(0).max(1).nullable() },
          ...{ stations: z.number().int().nonnegative().nullable(), country: text.nullable(), own: z.boolean() },
        }),
      )
      .max(500)
      .readonly(),
  }),
  z.strictObject({
    ...{ what: z.literal('ports'), target: text, system: text.nullable() },
    ...{ before: portReading, after: portReading },
  }),
  z.strictObject({
    ...{ what: z.literal('outside'), peer: text, ownAddress: text, ownIpv6: z.boolean() },
    ...{ seenAddress: text.nullable(), routerAddress: text.nullable() },
    ports: z
      .array(z.strictObject({ port: z.number().int().min(1).max(65_535), state: z.enum(KNOCK_STATES) }))
      .max(MOST_KNOCKS)
      .readonly(),
  }),
  z.strictObject({
    ...{ what: z.literal('line'), router: text, address: text, outsideAddress: text.nullable() },
    ...{ linkDownBps: bps.nullable(), linkUpBps: bps.nullable(), before: lineReading, after: lineReading },
  }),
]) satisfies z.ZodType<LookFound>;

/** What became of a look: found, or what kept the machine from it. */
export const lookOutcomeSchema = z.discriminatedUnion('ok', [
  z.strictObject({ ok: z.literal(true), found: lookFoundSchema }),
  z.strictObject({ ok: z.literal(false), code: z.string().max(60), sentence: text }),
]);
export type LookOutcome = z.infer<typeof lookOutcomeSchema>;
