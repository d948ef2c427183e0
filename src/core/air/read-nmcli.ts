import { bandOf, dbmOfPercent, type AirNetwork } from './air-network';

/** Fields are parted by colons; one in a field is written with a backslash before it. */
const fieldsOf = (line: string) => line.split(/(?<!\\):/).map((field) => field.replace(/\\([:\\])/g, '$1'));

/**
 * Reads what `nmcli -t -f IN-USE,BSSID,SSID,FREQ,SIGNAL,BANDWIDTH device wifi list` prints. It tells no centre: what is wider
 * than 20 MHz is taken to lie around its first channel.
 */
export function readNmcli(text: string): AirNetwork[] {
  return text.split('\n').flatMap((line): AirNetwork[] => {
    const [inUse, bssid, name, freq, signal, bandwidth] = fieldsOf(line);
    const mhz = Number.parseInt(freq ?? '', 10);
    if (bssid === undefined || !/^([0-9A-F]{2}:){5}[0-9A-F]{2}$/i.test(bssid) || bandOf(mhz) === null) return [];
    const widthMhz = Number.parseInt(bandwidth ?? '', 10);
    return [
      {
        ...{ name: name === '' || name === undefined || name === '--' ? null : name, bssid: bssid.toLowerCase() },
        ...{ primaryMhz: mhz, centreMhz: mhz, widthMhz: Number.isNaN(widthMhz) ? 20 : widthMhz },
        ...{ signalDbm: dbmOfPercent(Number(signal)), load: null, stations: null, country: null, own: inUse === '*' },
      },
    ];
  });
}
