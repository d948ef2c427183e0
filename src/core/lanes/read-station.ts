/** What a radio says of its access point. Null: it does not tell. */
export interface StationReading {
  readonly bssid: string;
  readonly signalDbm: number | null;
  /** At which it sends, Mb/s. */
  readonly rateMbps: number | null;
  /** Since it joined: frames that were sent, and how often one was sent again. */
  readonly sent: number | null;
  readonly sentAgain: number | null;
}

/** Reads what `iw dev … station dump` prints for a radio that has joined an access point; null: it has joined none. */
export function readStation(text: string): StationReading | null {
  const bssid = /^Station ([0-9a-f:]{17}) /im.exec(text)?.[1];
  if (bssid === undefined) return null;
  const number = (pattern: RegExp) => {
    const found = pattern.exec(text)?.[1];
    return found === undefined ? null : Number(found);
  };
  return {
    bssid: bssid.toLowerCase(),
    signalDbm: number(/^\s*signal:\s*(-\d+)/m),
    rateMbps: number(/^\s*tx bitrate:\s*([\d.]+) MBit/m),
    sent: number(/^\s*tx packets:\s*(\d+)/m),
    sentAgain: number(/^\s*tx retries:\s*(\d+)/m),
  };
}

/** Between two readings: of all that was put on the air, the share that was something once more, in percent. Null: not known. */
export function retriesPercent(before: StationReading, after: StationReading): number | null {
  const grown = (name: 'sent' | 'sentAgain') =>
    before[name] === null || after[name] === null ? null : after[name] - before[name];
  const [sent, again] = [grown('sent'), grown('sentAgain')];
  // Counters begin anew with another access point.
  if (before.bssid !== after.bssid || sent === null || again === null || sent < 0 || again < 0 || sent + again === 0)
    return null;
  return (100 * again) / (sent + again);
}
