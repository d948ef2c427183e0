/** Bands of Wi-Fi, GHz. */
export const AIR_BANDS = ['2.4', '5', '6'] as const;
export type AirBand = (typeof AIR_BANDS)[number];

/** A network as a radio hears it. */
export interface AirNetwork {
  /** Null: it hides its name. */
  readonly name: string | null;
  /** Of its access point; where a system keeps that to itself, something that tells it apart. */
  readonly bssid: string;
  /** Centre of its first 20 MHz, MHz. */
  readonly primaryMhz: number;
  /** Centre of all that it uses, and how much that is, MHz. */
  readonly centreMhz: number;
  readonly widthMhz: number;
  readonly signalDbm: number;
  /** Share of the time in which the air was busy, as the access point tells (BSS Load, IEEE 802.11); null: it does not. */
  readonly load: number | null;
  readonly stations: number | null;
  /** ISO 3166; null: not told. */
  readonly country: string | null;
  /** Whether this machine uses it. */
  readonly own: boolean;
}

export function bandOf(mhz: number): AirBand | null {
  if (mhz >= 2400 && mhz < 2500) return '2.4';
  if (mhz >= 5150 && mhz < 5925) return '5';
  return mhz >= 5925 && mhz <= 7125 ? '6' : null;
}

/** The band that a system names in GHz, by the first digit; where it names none, by the number of the channel, which 6 GHz has too. */
export function bandNamed(ghz: string | undefined, channel: number): AirBand {
  const [digit] = ghz ?? '';
  const named = AIR_BANDS.find((band) => band[0] === digit);
  return named ?? (channel <= 14 ? '2.4' : '5');
}

/** The signal that a system tells in percent: 100 is one of -50 dBm or better, 0 is -100 (Windows and NetworkManager alike). */
export const dbmOfPercent = (percent: number) => percent / 2 - 100;

/** The number of a channel of 20 MHz by its centre (IEEE 802.11, annex E); null: no channel lies there. */
export function channelOf(mhz: number): number | null {
  switch (bandOf(mhz)) {
    case '2.4':
      return mhz === 2484 ? 14 : Math.round((mhz - 2407) / 5);
    case '5':
      return Math.round((mhz - 5000) / 5);
    case '6':
      return mhz === 5935 ? 2 : Math.round((mhz - 5950) / 5);
    case null:
      return null;
  }
}

/** The centre of a channel, MHz. */
export function centreOf(band: AirBand, channel: number): number {
  if (band === '2.4') return channel === 14 ? 2484 : 2407 + 5 * channel;
  return (band === '5' ? 5000 : 5950) + 5 * channel;
}
