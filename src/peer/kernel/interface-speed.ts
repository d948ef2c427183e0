import { readFileSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { plainAddress } from '@/wire/address';

/**
 * Rate at which the port with a local address came up, bits per second, as Linux tells it. Null for loopback, Wi-Fi,
 * virtual ports and other systems, which have no such rate.
 */
export function interfaceBps(localAddress: string | undefined): number | null {
  const address = plainAddress(localAddress ?? '');
  const [name] =
    Object.entries(networkInterfaces()).find(([, entries]) => entries?.some((entry) => entry.address === address)) ??
    [];
  if (name === undefined || name === 'lo') return null;
  try {
    const folder = `/sys/class/net/${name}`;
    // A virtual pair claims a rate that nothing holds it to.
    if (readFileSync(`${folder}/uevent`, 'utf8').includes('DEVTYPE=veth')) return null;
    const mbps = Number(readFileSync(`${folder}/speed`, 'utf8'));
    const isVirtual = !hasDevice(folder);
    return isVirtual || !(mbps > 0) ? null : mbps * 1e6;
  } catch {
    return null;
  }
}

/** Only real ports have a device behind them. */
function hasDevice(folder: string): boolean {
  try {
    readFileSync(`${folder}/device/uevent`);
    return true;
  } catch {
    return false;
  }
}
