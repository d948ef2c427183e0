import * as z from 'zod';
import { DEVICE_KINDS, PEER_REACHES, USUAL_FULL_FROM } from '@/core';
import { linkFormSchema } from './link-form';
import { readDay } from './typed-day';
import { mbps, optionalMbps, typedNumber } from './typed-number';

/** The forms of the set-up page. Rates are typed in Mb/s, as contracts write them. */

const name = (what: string) => z.string().trim().min(1, `Give the ${what} a name.`).max(80, 'At most 80 characters.');

function isTimeZone(zone: string): boolean {
  try {
    return zone === '' || new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

export const officeFormSchema = z.object({
  name: name('office'),
  /** IANA name of the zone whose hours the office has; empty: that of the console's machine. */
  timeZone: z
    .string()
    .trim()
    .max(60)
    .refine(isTimeZone, 'No zone of this name is known. For example Europe/Dublin, or leave it empty.')
    .optional(),
});

/** Nothing is said of a least rate beside an advertised one that is itself no rate. */
const isAtMost = (least: number | null, advertised: number | null) =>
  least === null || advertised === null || !(advertised > 0) || least <= advertised;

/** What a contract promises, and from which day on. */
const promised = {
  downMbps: mbps,
  upMbps: mbps,
  leastDownMbps: optionalMbps,
  leastUpMbps: optionalMbps,
  basis: z.enum(['payload', 'line']),
  /** Day from which the plan holds, in the console's own time zone; blank: as before. */
  validFrom: z
    .string()
    .trim()
    .refine(
      (text) => text === '' || readDay(text) !== null,
      'There is no such day. Write one such as 25.11.2026, 2026-11-25 or today.',
    )
    .transform((text) => (text === '' ? null : readDay(text)))
    .default(null),
  fullFromPercent: typedNumber
    .transform((value) => value ?? USUAL_FULL_FROM * 100)
    .refine((value) => value > 50 && value <= 100, 'More than 50 and at most 100 %.'),
};

export const planFormSchema = z
  .object(promised)
  .refine(({ downMbps, leastDownMbps }) => isAtMost(leastDownMbps, downMbps), {
    path: ['leastDownMbps'],
    message: 'The least rate cannot be above the advertised one.',
  })
  .refine(({ upMbps, leastUpMbps }) => isAtMost(leastUpMbps, upMbps), {
    path: ['leastUpMbps'],
    message: 'The least rate cannot be above the advertised one.',
  });
export type PlanForm = z.infer<typeof planFormSchema>;

export const lineFormSchema = z
  .object({
    ...promised,
    lineName: name('line'),
    provider: z.string().trim().max(80, 'At most 80 characters.'),
    /** What the form showed when it was opened, so that two people do not overwrite each other. */
    shown: z.string().max(500).default(''),
  })
  .refine(({ downMbps, leastDownMbps }) => isAtMost(leastDownMbps, downMbps), {
    path: ['leastDownMbps'],
    message: 'The least rate cannot be above the advertised one.',
  })
  .refine(({ upMbps, leastUpMbps }) => isAtMost(leastUpMbps, upMbps), {
    path: ['leastUpMbps'],
    message: 'The least rate cannot be above the advertised one.',
  });
export type LineForm = z.infer<typeof lineFormSchema>;

/** What the technician writes beside a device or a run. */
const notes = z.string().trim().max(2000, 'At most 2000 characters.').default('');

export const deviceFormSchema = linkFormSchema.extend({
  name: name('device'),
  spotName: z.string().trim().max(80, 'At most 80 characters.'),
  kind: z
    .union([z.enum(DEVICE_KINDS), z.literal('')])
    .default('')
    .transform((kind) => (kind === '' ? null : kind)),
  notes,
});
export type DeviceForm = z.infer<typeof deviceFormSchema>;

export const peerFormSchema = z.object({
  name: name('peer'),
  reach: z.enum(PEER_REACHES),
  address: z
    .string()
    .trim()
    .refine(
      (text) => text === '/' || /^:\d{1,5}$/.test(text) || /^https?:\/\/[^\s/]+\/?$/.test(text),
      'Write an address such as http://198.51.100.7:4870, or / for this machine.',
    ),
  /** Of a tunnel: the office at its other end, when it is one of ours. */
  farSiteId: z
    .string()
    .max(64)
    .default('')
    .transform((id) => (id === '' ? null : id)),
});
export type PeerForm = z.infer<typeof peerFormSchema>;

const MOST_PAGES = 8;
const LARGEST_WEB_RUN_MB = 100_000;

/** A web server as the far end: what may be loaded of it, how much of it a run loads at most, and whom its owner can write to. */
export const webFarEndFormSchema = z.object({
  name: name('web server'),
  /** As typed, a line each, or as a script sends them. */
  pages: z
    .union([z.string(), z.array(z.string())])
    .transform((typed) => [typed].flat().flatMap((text) => text.split(/\s+/).filter((page) => page !== '')))
    .refine((pages) => pages.length >= 1 && pages.length <= MOST_PAGES, `One to ${MOST_PAGES} addresses, a line each.`)
    .refine(
      (pages) => pages.every((page) => URL.canParse(page) && /^https?:$/.test(new URL(page).protocol)),
      'Write whole addresses, such as https://files.example/large.bin.',
    )
    .refine((pages) => pages.every((page) => !/\/\/[^/]*@/.test(page)), 'Leave names and passwords out of addresses.'),
  mostMb: typedNumber.pipe(
    z
      .number('Say how much a run may load at most.')
      .min(10, 'At least 10 MB: less tells no rate.')
      .max(LARGEST_WEB_RUN_MB, `At most ${LARGEST_WEB_RUN_MB} MB.`),
  ),
  contact: z
    .string()
    .trim()
    .min(3, 'Say where its owner can write to: an e-mail address, or a page.')
    .max(120, 'At most 120 characters.')
    .regex(
      /^[\x21-\x27\x2a-\x7e]+$/,
      'Plain letters without blanks or brackets: it goes into the head of each request.',
    ),
});
export type WebFarEndForm = z.infer<typeof webFarEndFormSchema>;

/** How long samples stay; blank: for ever. */
export const keepingFormSchema = z.object({
  sampleDays: typedNumber.refine(
    (value) => value === null || (Number.isInteger(value) && value >= 1 && value <= 36_500),
    'A whole number of days, or nothing.',
  ),
});

/** Bytes of a picture at the head of reports, at most. */
export const LARGEST_LOGO = 300_000;

export const letterheadFormSchema = z.object({
  name: z.string().trim().max(120, 'At most 120 characters.'),
  address: z.string().trim().max(400, 'At most 400 characters.'),
});

export const runNotesSchema = z.object({ notes });
/** Two entries that are one device: this one's runs go to the other. */
export const mergeFormSchema = z.object({ intoId: z.string().min(1, 'Choose the device that it is.').max(64) });
