import { centreOf, type AirBand, type RandomSource } from '@/core';

interface PlayedNetwork {
  readonly name: string;
  readonly band: AirBand;
  readonly channel: number;
  readonly dbm: number;
  readonly load?: number;
  readonly stations?: number;
  readonly widthMhz?: 20 | 40 | 80;
  readonly own?: boolean;
}

/** What is heard in the glue room: our own access point shares its channel with two loud neighbours. */
const HEARD: readonly PlayedNetwork[] = [
  { name: 'Larkspur', band: '2.4', channel: 6, dbm: -58, load: 0.41, stations: 9, own: true },
  { name: 'Larkspur', band: '5', channel: 36, dbm: -67, load: 0.12, stations: 6, widthMhz: 80 },
  { name: 'Copper Kettle guests', band: '2.4', channel: 6, dbm: -61, load: 0.47, stations: 14 },
  { name: 'quilt-and-thread', band: '2.4', channel: 7, dbm: -72, load: 0.33, stations: 5 },
  { name: 'Vane upstairs', band: '2.4', channel: 11, dbm: -83, load: 0.18, stations: 2 },
  { name: '', band: '2.4', channel: 1, dbm: -90 },
  { name: 'Copper Kettle guests', band: '5', channel: 44, dbm: -74, load: 0.21, stations: 8, widthMhz: 80 },
  { name: 'quilt-and-thread', band: '5', channel: 100, dbm: -88, load: 0.05, stations: 1, widthMhz: 80 },
];

/** The same as a radio's listing prints it (iw), with signals that waver. */
export function demoScan(random: RandomSource): string {
  return HEARD.map(({ name, band, channel, dbm, load, stations, widthMhz = 20, own }, place) => {
    const mac = `02:00:5e:00:53:${(0xa0 + place).toString(16)}`;
    const loadLines =
      load === undefined
        ? []
        : [
            '\tBSS Load:',
            `\t\t * station count: ${stations ?? 0}`,
            `\t\t * channel utilisation: ${Math.round(255 * load)}/255`,
          ];
    const wide =
      widthMhz === 80
        ? [
            '\tVHT operation:',
            '\t\t * channel width: 1 (80 MHz)',
            `\t\t * center freq segment 1: ${Math.floor((channel - 36) / 16) * 16 + 42}`,
          ]
        : [];
    return [
      `BSS ${mac}(on wlan0)${own === true ? ' -- associated' : ''}`,
      `\tfreq: ${centreOf(band, channel)}.0`,
      `\tsignal: ${(dbm + 4 * random() - 2).toFixed(2)} dBm`,
      `\tSSID: ${name}`,
      ...loadLines,
      ...wide,
    ].join('\n');
  }).join('\n');
}
