import { bandNamed, centreOf, dbmOfPercent, type AirNetwork } from './air-network';

/** Only what is written the same in all languages is gone by: the numbers, their units, and the order. */
const BSSID = /^\s*BSSID \d+\s*:\s((?:[0-9a-f]{2}:){5}[0-9a-f]{2})\s*$/i;
const SSID = /^SSID \d+\s*:(?:\s(.*))?$/;
const VALUE = /^\s+\S.*?\s*:\s+(.*?)\s*$/;

interface Block {
  readonly name: string | null;
  readonly bssid: string;
  readonly values: string[];
}

function blocksOf(text: string): Block[] {
  const blocks: Block[] = [];
  let name: string | null = null;
  let open: Block | null = null;
  for (const line of text.split(/\r?\n/)) {
    const ssid = SSID.exec(line);
    if (ssid !== null) {
      name = ssid[1] === undefined || ssid[1] === '' ? null : ssid[1];
      open = null;
      continue;
    }
    const bssid = BSSID.exec(line)?.[1];
    if (bssid !== undefined) blocks.push((open = { name, bssid: bssid.toLowerCase(), values: [] }));
    else if (open !== null) {
      const value = VALUE.exec(line)?.[1];
      if (value !== undefined) open.values.push(value);
    }
  }
  return blocks;
}

function networkOf({ name, bssid, values }: Block, own: string | null): AirNetwork[] {
  const numberIn = (pattern: RegExp) => values.flatMap((value) => pattern.exec(value)?.[1] ?? []).map(Number);
  const [percent] = numberIn(/^(\d+)\s?%$/);
  // The channel, and behind it where the access point tells them how many stations it has.
  const [channel, stations] = numberIn(/^(\d+)$/);
  if (percent === undefined || channel === undefined) return [];
  const [load] = numberIn(/^\d+ \((\d+)\s?%\)$/);
  const ghz = values.flatMap((value) => /^([\d.,]+)\s?GHz$/i.exec(value)?.[1] ?? [])[0];
  const mhz = centreOf(bandNamed(ghz, channel), channel);
  return [
    {
      ...{
        name,
        bssid,
        primaryMhz: mhz,
        centreMhz: mhz,
        widthMhz: 20,
        signalDbm: dbmOfPercent(percent),
        country: null,
      },
      load: load === undefined ? null : load / 100,
      stations: load === undefined || stations === undefined ? null : stations,
      own: bssid === own,
    },
  ];
}

/**
 * Reads what `netsh wlan show networks mode=bssid` prints on Windows, in any language. It tells no width: 20 MHz are what is
 * known. `own`: the access point that this machine uses, as `netsh wlan show interfaces` names it.
 */
export function readNetsh(text: string, own: string | null): AirNetwork[] {
  return blocksOf(text).flatMap((block) => networkOf(block, own));
}
