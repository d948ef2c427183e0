import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { readIwScan, readNmcli, type AirFound } from '@/core';
import { printed } from '../machine/printed';
import { LookFault } from './look-fault';

const LINKS = '/sys/class/net';
/** A scan goes through all channels and waits on each. */
const PATIENCE_MS = 20_000;
const NMCLI = ['-t', '-f', 'IN-USE,BSSID,SSID,FREQ,SIGNAL,BANDWIDTH', 'device', 'wifi', 'list', 'ifname'];

/** The first radio of this machine, as the kernel knows it; null: it has none. */
function radio(folder: string): string | null {
  try {
    return readdirSync(folder).find((name) => existsSync(join(folder, name, 'phy80211'))) ?? null;
  } catch {
    return null;
  }
}

/**
 * Networks that a radio of this machine hears: by a scan of iw, where this user may; else what the kernel has heard lately; else by
 * NetworkManager. Throws LookFault. `folder`: where the kernel lists interfaces.
 */
export async function lookAtAir(folder = LINKS): Promise<AirFound> {
  const device = radio(folder);
  if (device === null) throw new LookFault('no-radio');
  for (const words of [['scan'], ['scan', 'dump']]) {
    const text = await printed('iw', ['dev', device, ...words], PATIENCE_MS);
    if (text !== null && text.trim() !== '') return { what: 'air', device, by: 'iw', networks: readIwScan(text) };
  }
  const listed = await printed('nmcli', [...NMCLI, device], PATIENCE_MS);
  if (listed !== null) return { what: 'air', device, by: 'nmcli', networks: readNmcli(listed) };
  throw new LookFault('no-scan', { device });
}
