import * as z from 'zod';
import { isLoad, isRadioLane, LANE_KINDS, LANE_ROLES, type LaneKind, type LaneRole } from '@/core';
import { typedNumber } from './typed-number';

const LOAD = [
  /^(igd|[A-Za-z0-9_:][A-Za-z0-9_.:-]{0,252}\/\d{1,10})$/,
  'Give igd for this network’s router, or an address and the index of a port, such as 192.0.2.1/3.',
] as const;

const RADIO = [/^[A-Za-z0-9_][A-Za-z0-9_.-]{0,14}$/, 'Give the name of its radio, such as wlan0.'] as const;

/** What begins with a dash could be read as an option by the program that asks. */
const TARGETS = {
  echo: [/^[A-Za-z0-9_:][A-Za-z0-9_.:%-]{0,252}$/, 'Give a name or an address, such as 192.0.2.1.'],
  stamp: [
    /^(\[[0-9a-fA-F:]+\]|[A-Za-z0-9_][A-Za-z0-9_.-]{0,252})(:\d{1,5})?$/,
    'Give a name or an address, with a port where it is not 862, such as 192.0.2.1:862.',
  ],
  connect: [
    /^(\[[0-9a-fA-F:]+\]|[A-Za-z0-9_.-]+):\d{1,5}$/,
    'Give a name or an address and a port, such as 192.0.2.1:443.',
  ],
  'load-in': LOAD,
  'load-out': LOAD,
  signal: RADIO,
  'link-rate': RADIO,
  retries: RADIO,
  probe: [/^[\w-]{1,64}$/, 'Choose a peer.'],
  web: [/^https?:\/\/[^\s/]+\S*$/, 'Give a web address, such as https://example.com.'],
} as const;

/** Characters of the key of STAMP's authenticated mode, at most. */
export const MOST_LANE_KEY = 128;
const key = z
  .string()
  .trim()
  .max(MOST_LANE_KEY, `At most ${MOST_LANE_KEY} characters.`)
  .refine(
    (text) => !/^0x/i.test(text) || /^0x([0-9a-f]{2})+$/i.test(text),
    'After 0x come pairs of hexadecimal digits.',
  )
  .nullish();

const laneFields = {
  name: z.string().trim().min(1, 'Give it a name.').max(80, 'At most 80 characters.'),
  kind: z.enum(LANE_KINDS),
  target: z.string().trim().min(1, 'Say whom to ask.').max(300),
  role: z.enum(LANE_ROLES),
  /** What STAMP is authenticated with (RFC 8762 §4.4), as text, or in hexadecimal digits after 0x; it is never told again. */
  key,
};

/** A page costs whoever serves it more than a packet does. */
const LEAST_SECONDS_OF_PAGE = 5;
const polite = ({ kind, everySeconds }: { kind: string; everySeconds: number }) =>
  kind !== 'web' || everySeconds >= LEAST_SECONDS_OF_PAGE;
/** A phone lives on its battery, and a radio changes slowly. */
const patient = ({ kind, everySeconds }: { kind: LaneKind; everySeconds: number }) =>
  !(kind === 'probe' || isRadioLane(kind)) || everySeconds >= 1;
const impatient = { path: ['everySeconds'], message: 'A page, or a radio, is asked once a second at most.' };
const rude = { path: ['everySeconds'], message: `A page is asked every ${LEAST_SECONDS_OF_PAGE} seconds at most.` };

/** A small switch is not to feel it. */
const LEAST_SECONDS_OF_LOAD = 10;
const sparing = ({ kind, everySeconds }: { kind: LaneKind; everySeconds: number }) =>
  !isLoad(kind) || everySeconds >= LEAST_SECONDS_OF_LOAD;
const unsparing = { path: ['everySeconds'], message: `A port is read every ${LEAST_SECONDS_OF_LOAD} seconds at most.` };
/** A load lies on the line or inside, a radio inside; no delay lies on the line. */
const placed = ({ kind, role }: { kind: LaneKind; role: LaneRole }) =>
  isRadioLane(kind) ? role === 'inside' : isLoad(kind) ? role === 'line' || role === 'inside' : role !== 'line';
const misplaced = {
  path: ['role'],
  message: 'A load is one of the line or of a port inside, a radio is inside; a delay is not of the line.',
};

const fitting = ({ kind, target }: { kind: keyof typeof TARGETS; target: string }) => TARGETS[kind][0].test(target);
/** Only packets of STAMP are proven by a key. */
const keyed = ({ kind, key: given }: { kind: string; key?: string | null | undefined }) => kind === 'stamp' || !given;
const keyless = { path: ['key'], message: 'Only STAMP takes a key. Leave it empty.' };
const complaint = {
  error: ({ input }: { input?: unknown }) => TARGETS[(input as { kind: keyof typeof TARGETS }).kind][1],
  path: ['target'],
};

/** One more lane of a machine. */
export const newLaneSchema = z
  .strictObject({ ...laneFields, deviceId: z.string().max(64), everySeconds: z.number().min(0.2).max(60).default(1) })
  .refine(fitting, complaint)
  .refine(polite, rude)
  .refine(patient, impatient)
  .refine(sparing, unsparing)
  .refine(placed, misplaced)
  .refine(keyed, keyless);
export type NewLaneForm = z.infer<typeof newLaneSchema>;

const everySeconds = typedNumber
  .refine((value) => value !== null && value >= 0.2 && value <= 60, 'From 0.2 to 60 seconds.')
  .transform((value) => value ?? 1);

/** The same as it is typed. */
export const laneFormSchema = z
  .object({ ...laneFields, deviceId: z.string().max(64), everySeconds })
  .refine(fitting, complaint)
  .refine(polite, rude)
  .refine(patient, impatient)
  .refine(sparing, unsparing)
  .refine(placed, misplaced)
  .refine(keyed, keyless);

const label = z.string().trim().min(1, 'Say what begins.').max(80, 'At most 80 characters.');
export const markFormSchema = z.object({ label });
export const newMarkSchema = z.strictObject({ label });
