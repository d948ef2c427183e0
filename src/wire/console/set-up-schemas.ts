import { z } from 'zod';
import { REACHES, USUAL_FULL_FROM, USUAL_MTU_BYTES, WIFI_BANDS, type Link } from '@/core';

/** The forms of the set-up page. Rates are typed in Mb/s, as contracts write them. */

const MOST_MBPS = 100_000;
const name = (what: string) => z.string().trim().min(1, `Give the ${what} a name.`).max(80, 'At most 80 characters.');

/** A typed number: a decimal comma counts as a point; a blank is `null`. */
const typedNumber = z
  .string()
  .trim()
  .transform((text) => (text === '' ? null : Number(text.replace(',', '.'))))
  .refine((value) => value === null || Number.isFinite(value), 'Write a number, such as 500 or 2.5.');

const optionalMbps = typedNumber
  .refine((value) => value === null || value > 0, 'A rate is more than 0 Mb/s.')
  .refine((value) => value === null || value <= MOST_MBPS, `At most ${MOST_MBPS} Mb/s.`);
const mbps = optionalMbps.refine((value) => value !== null, 'Write the rate in Mb/s.').transform((value) => value);

export const tokenFormSchema = z.object({ name: name('script') });

export const officeFormSchema = z.object({ name: name('office') });

export const lineFormSchema = z
  .object({
    lineName: name('line'),
    provider: z.string().trim().max(80, 'At most 80 characters.'),
    downMbps: mbps,
    upMbps: mbps,
    leastDownMbps: optionalMbps,
    leastUpMbps: optionalMbps,
    basis: z.enum(['payload', 'line']),
    /** Day from which the plan holds, in the console's own time zone; blank: the plan in force is corrected. */
    validFrom: z
      .string()
      .trim()
      .refine((text) => text === '' || /^\d{4}-\d{2}-\d{2}$/.test(text), 'Write a day such as 2026-11-24.')
      .transform((text) => (text === '' ? null : new Date(`${text}T00:00:00`).getTime()))
      .refine((atMs) => atMs === null || Number.isFinite(atMs), 'There is no such day.')
      .default(null),
    /** What the form showed when it was opened, so that two people do not overwrite each other. */
    shown: z.string().max(500).default(''),
    fullFromPercent: typedNumber
      .transform((value) => value ?? USUAL_FULL_FROM * 100)
      .refine((value) => value > 50 && value <= 100, 'More than 50 and at most 100 %.'),
  })
  .refine(({ downMbps, leastDownMbps }) => leastDownMbps === null || leastDownMbps <= downMbps, {
    path: ['leastDownMbps'],
    message: 'The least rate cannot be above the advertised one.',
  })
  .refine(({ upMbps, leastUpMbps }) => leastUpMbps === null || leastUpMbps <= upMbps, {
    path: ['leastUpMbps'],
    message: 'The least rate cannot be above the advertised one.',
  });
export type LineForm = z.infer<typeof lineFormSchema>;

/** How a link is chosen in a form: one field for the kind, one for the rate of a cable. */
export const LINK_CHOICES = [
  'wired',
  'wifi',
  ...WIFI_BANDS.map((band) => `wifi-${band}` as const),
  'tunnel',
  'unknown',
] as const;
export type LinkChoice = (typeof LINK_CHOICES)[number];

export const linkFormSchema = z.object({ linkChoice: z.enum(LINK_CHOICES), negotiatedMbps: optionalMbps });

/** The link that a form describes; a rate counts only for a cable. */
export function linkOfForm({ linkChoice, negotiatedMbps }: z.infer<typeof linkFormSchema>): Link {
  switch (linkChoice) {
    case 'wired':
      return {
        medium: 'wired',
        negotiatedBps: negotiatedMbps === null ? null : negotiatedMbps * 1e6,
        mtuBytes: USUAL_MTU_BYTES,
      };
    case 'tunnel':
    case 'unknown':
      return { medium: linkChoice };
    case 'wifi':
      return { medium: 'wifi', band: null, linkRateBps: null };
    case 'wifi-2.4':
    case 'wifi-5':
    case 'wifi-6':
      return { medium: 'wifi', band: WIFI_BANDS.find((band) => linkChoice === `wifi-${band}`)!, linkRateBps: null };
  }
}

export const deviceFormSchema = linkFormSchema.extend({
  name: name('device'),
  spotName: z.string().trim().max(80, 'At most 80 characters.'),
});
export type DeviceForm = z.infer<typeof deviceFormSchema>;

export const peerFormSchema = z.object({
  name: name('peer'),
  reach: z.enum(REACHES),
  address: z
    .string()
    .trim()
    .refine(
      (text) => text === '/' || /^:\d{1,5}$/.test(text) || /^https?:\/\/[^\s/]+\/?$/.test(text),
      'Write an address such as http://198.51.100.7:4870, or / for this machine.',
    ),
});
export type PeerForm = z.infer<typeof peerFormSchema>;
