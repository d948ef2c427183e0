import { AIR_BANDS, bandOf, centreOf, channelOf, type AirBand, type AirNetwork } from './air-network';

/** A channel of 20 MHz, with who is on it. */
export interface ChannelEntry {
  readonly band: AirBand;
  readonly channel: number;
  /** Networks that use it, with all that they are wide. */
  readonly networks: number;
  readonly strongestDbm: number | null;
  /** The highest load that one of them tells; null: none does. */
  readonly load: number | null;
  /** How much of the air there is taken, in networks that talk all the time; see `pressureAt`. */
  readonly pressure: number;
  /** Radar has the right of way there (DFS): an access point waits a minute before it may talk, and may have to leave. */
  readonly radar: boolean;
  /** One of the channels at which devices look first (preferred scanning, 6 GHz). */
  readonly preferred: boolean;
}

const CHANNELS: Readonly<Record<AirBand, readonly number[]>> = {
  '2.4': [1, 6, 11],
  '5': [36, 40, 44, 48, 52, 56, 60, 64, 100, 104, 108, 112, 116, 120, 124, 128, 132, 136, 140, 149, 153, 157, 161, 165],
  // Those at which devices look; access points live there.
  '6': Array.from({ length: 15 }, (_, place) => 5 + 16 * place),
};
const isRadar = (band: AirBand, channel: number) => band === '5' && channel >= 52 && channel <= 144;

/** From this signal on a radio holds still for another one (carrier sense, IEEE 802.11: -82 dBm for 20 MHz). */
const HOLDS_STILL_DBM = -82;
/** Below this nobody hears it, and it disturbs nobody. */
const UNHEARD_DBM = -95;
/** A network of which nothing is told is taken to talk for a fifth of the time. */
const USUAL_LOAD = 0.2;
/** Beacons alone take some of it. */
const LEAST_LOAD = 0.05;

/** How much a network that is heard so loudly takes: all of its time from -82 dBm on, less below. */
const heardShare = (dbm: number) => Math.min(1, Math.max(0, (dbm - UNHEARD_DBM) / (HOLDS_STILL_DBM - UNHEARD_DBM)));

/** How many MHz two stretches have in common. */
function overlapMhz(centreA: number, widthA: number, centreB: number, widthB: number): number {
  const [low, high] = [
    Math.max(centreA - widthA / 2, centreB - widthB / 2),
    Math.min(centreA + widthA / 2, centreB + widthB / 2),
  ];
  return Math.max(0, high - low);
}

/** A part of a channel is as bad as all of it once a quarter of it is taken: whoever talks holds the whole. */
const SHARE_THAT_HOLDS = 0.25;

/**
 * How much of the air a stretch shares with others: for each network its load, times how loudly it is heard, times how far it
 * reaches into the stretch (1 from a quarter of the narrower of both on). 1 is one neighbour that talks all the time.
 */
export function pressureAt(networks: readonly AirNetwork[], centreMhz: number, widthMhz: number): number {
  return networks.reduce((sum, network) => {
    const common = overlapMhz(centreMhz, widthMhz, network.centreMhz, network.widthMhz);
    const reach = Math.min(1, common / Math.min(widthMhz, network.widthMhz) / SHARE_THAT_HOLDS);
    return sum + Math.max(LEAST_LOAD, network.load ?? USUAL_LOAD) * heardShare(network.signalDbm) * reach;
  }, 0);
}

/** All channels, the quietest of each band first; those that radar may take after those of the same quiet. */
export function channelLedger(networks: readonly AirNetwork[]): ChannelEntry[] {
  return AIR_BANDS.flatMap((band) => {
    const here = networks.filter(({ primaryMhz }) => bandOf(primaryMhz) === band);
    return CHANNELS[band]
      .map((channel): ChannelEntry => {
        const centre = centreOf(band, channel);
        const on = here.filter((network) => overlapMhz(centre, 20, network.centreMhz, network.widthMhz) > 0);
        const loads = on.flatMap(({ load }) => load ?? []);
        return {
          ...{ band, channel, networks: on.length, radar: isRadar(band, channel), preferred: band === '6' },
          strongestDbm: on.length === 0 ? null : Math.max(...on.map(({ signalDbm }) => signalDbm)),
          load: loads.length === 0 ? null : Math.max(...loads),
          pressure: pressureAt(here, centre, 20),
        };
      })
      .sort((a, b) => a.pressure - b.pressure || Number(a.radar) - Number(b.radar) || a.channel - b.channel);
  });
}

/** Channels that an access point of a width could use, by their centre. */
function placesFor(band: AirBand, widthMhz: number): { channel: number; centreMhz: number; radar: boolean }[] {
  const per = Math.max(1, Math.round(widthMhz / 20));
  if (per === 1 || band !== '5')
    return CHANNELS[band].map((channel) => ({
      ...{ channel, centreMhz: centreOf(band, channel), radar: isRadar(band, channel) },
    }));
  // Wider ones begin at fixed places: 36, 52, 100 … for 80 MHz.
  const channels = CHANNELS['5'];
  const blocks: { channel: number; centreMhz: number; radar: boolean }[] = [];
  for (let at = 0; at + per <= channels.length; at += 1) {
    const block = channels.slice(at, at + per);
    const isWhole = block.at(-1)! - block[0]! === 4 * (per - 1);
    const start = block[0]! < 149 ? (block[0]! - 36) % (4 * per) === 0 : (block[0]! - 149) % (4 * per) === 0;
    if (!isWhole || !start) continue;
    blocks.push({
      ...{ channel: block[0]!, radar: block.some((channel) => isRadar('5', channel)) },
      centreMhz: (centreOf('5', block[0]!) + centreOf('5', block.at(-1)!)) / 2,
    });
  }
  return blocks;
}

/** Less than this is not worth the trouble of moving: half a neighbour that talks all the time, and half of what is there. */
const WORTH_PRESSURE = 0.3;
const WORTH_SHARE = 0.5;

export type AirAdvice =
  /** No network of ours is known, so nothing can be moved. */
  | { readonly kind: 'none' }
  | { readonly kind: 'stay'; readonly network: AirNetwork; readonly pressure: number }
  | {
      readonly kind: 'move';
      readonly network: AirNetwork;
      readonly pressure: number;
      readonly toChannel: number;
      readonly toPressure: number;
      readonly radar: boolean;
    };

/** Where our access point would have it quieter, at the same width; one without radar where both are about as quiet. */
export function airAdvice(networks: readonly AirNetwork[]): AirAdvice {
  const network = networks.find(({ own }) => own);
  const band = network === undefined ? null : bandOf(network.primaryMhz);
  if (network === undefined || band === null) return { kind: 'none' };
  // Other access points of the same name take turns with it on purpose, but take their part of the air all the same.
  const others = networks.filter(({ bssid }) => bssid !== network.bssid);
  const pressure = pressureAt(others, network.centreMhz, network.widthMhz);
  const [best] = placesFor(band, network.widthMhz)
    .map((place) => ({ ...place, pressure: pressureAt(others, place.centreMhz, network.widthMhz) }))
    .sort((a, b) => a.pressure + (a.radar ? 0.1 : 0) - (b.pressure + (b.radar ? 0.1 : 0)) || a.channel - b.channel);
  const gain = best === undefined ? 0 : pressure - best.pressure;
  if (best === undefined || best.channel === channelOf(network.primaryMhz)) return { kind: 'stay', network, pressure };
  if (gain < WORTH_PRESSURE || gain < WORTH_SHARE * pressure) return { kind: 'stay', network, pressure };
  return { kind: 'move', network, pressure, toChannel: best.channel, toPressure: best.pressure, radar: best.radar };
}
