import * as z from 'zod';
import { TUNNEL_KINDS, TUNNEL_RIDES, USUAL_MTU_BYTES, WIFI_BANDS, WIFI_WIDTHS_MHZ, type Link } from '@/core';
import { optionalMbps, typedNumber } from './typed-number';

/** How a link is chosen in a form: one field for the kind, further ones for what is known of it. */
export const LINK_CHOICES = [
  'wired',
  'wifi',
  ...WIFI_BANDS.map((band) => `wifi-${band}` as const),
  'tunnel',
  'unknown',
] as const;
export type LinkChoice = (typeof LINK_CHOICES)[number];

const whole = (least: number, most: number, what: string) =>
  typedNumber
    .refine(
      (value) => value === null || (Number.isInteger(value) && value >= least && value <= most),
      `${what}: a whole number from ${least} to ${most}.`,
    )
    .default(null);
/** A box in a form, or true and false from a script. */
const ticked = z
  .union([z.string(), z.boolean()])
  .optional()
  .transform((value) => value === 'on' || value === true);
/** One of a list, or blank for "not known". */
const oneOf = <Value extends string>(values: readonly [Value, ...Value[]]) =>
  z
    .union([z.enum(values), z.literal('')])
    .default('')
    .transform((value) => (value === '' ? null : value));

/** Fields of a link in a form; those that do not belong to the chosen kind are passed over. */
export const linkFormSchema = z.object({
  linkChoice: z.enum(LINK_CHOICES),
  negotiatedMbps: optionalMbps,
  mtuBytes: whole(576, 9216, 'MTU'),
  vlan: ticked,
  pppoe: ticked,
  accessPoint: z.string().trim().max(80, 'At most 80 characters.').default(''),
  channel: whole(1, 233, 'Channel'),
  widthMHz: typedNumber
    .refine((value) => value === null || (WIFI_WIDTHS_MHZ as readonly number[]).includes(value), 'No such width.')
    .default(null),
  linkRateMbps: optionalMbps.default(null),
  signalDbm: typedNumber
    .refine((value) => value === null || (value >= -120 && value <= 0), 'From -120 to 0 dBm, such as -58.')
    .default(null),
  sharedAir: ticked,
  tunnelKind: oneOf(TUNNEL_KINDS),
  carrierMbps: optionalMbps.default(null),
  rides: oneOf(TUNNEL_RIDES),
});
export type LinkForm = z.infer<typeof linkFormSchema>;

const bps = (mbps: number | null) => (mbps === null ? null : mbps * 1e6);

function wifiOf(form: LinkForm): Link {
  const band = WIFI_BANDS.find((each) => form.linkChoice === `wifi-${each}`) ?? null;
  return {
    ...{ medium: 'wifi', band, linkRateBps: bps(form.linkRateMbps) },
    ...(form.sharedAir && { sharedAir: true }),
    ...(form.channel !== null && { channel: form.channel }),
    ...(form.widthMHz !== null && { widthMHz: form.widthMHz }),
    ...(form.signalDbm !== null && { signalDbm: form.signalDbm }),
    ...(form.accessPoint !== '' && { accessPoint: form.accessPoint }),
  };
}

/** The link that a form describes. What nobody knows is left out. */
export function linkOfForm(form: LinkForm): Link {
  switch (form.linkChoice) {
    case 'wired':
      return {
        ...{ medium: 'wired', negotiatedBps: bps(form.negotiatedMbps), mtuBytes: form.mtuBytes ?? USUAL_MTU_BYTES },
        ...(form.vlan && { vlan: true }),
        ...(form.pppoe && { pppoe: true }),
      };
    case 'tunnel':
      return {
        medium: 'tunnel',
        ...(form.tunnelKind !== null && { kind: form.tunnelKind }),
        ...(form.carrierMbps !== null && { carrierBps: form.carrierMbps * 1e6 }),
        ...(form.rides !== null && { rides: form.rides }),
      };
    case 'unknown':
      return { medium: 'unknown' };
    case 'wifi':
    case 'wifi-2.4':
    case 'wifi-5':
    case 'wifi-6':
      return wifiOf(form);
  }
}
