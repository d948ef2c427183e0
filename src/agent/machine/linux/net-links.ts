import { existsSync, readdirSync, readlinkSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { basename, join } from 'node:path';
import type { NetLink } from '@/core';
import { positiveFact, readFact } from '../printed';

/** Whether an interface is a radio, by its folder in sysfs. */
export const isRadio = (folder: string) => existsSync(join(folder, 'wireless')) || existsSync(join(folder, 'phy80211'));

/** What tunnel an interface is, by its folder in sysfs; null: none. */
export function tunnelOf(folder: string): 'wireguard' | 'tun' | null {
  if (/DEVTYPE=wireguard/.test(readFact(join(folder, 'uevent')) ?? '')) return 'wireguard';
  return existsSync(join(folder, 'tun_flags')) ? 'tun' : null;
}

function mediumOf(folder: string): NetLink['medium'] {
  if (isRadio(folder)) return 'wifi';
  if (tunnelOf(folder) !== null) return 'tunnel';
  // ARPHRD_ETHER; a bridge, a bond and a virtual pair are Ethernet too.
  return readFact(join(folder, 'type')) === '1' ? 'wired' : 'other';
}

function driverOf(folder: string): string | null {
  try {
    return basename(readlinkSync(join(folder, 'device', 'driver')));
  } catch {
    return null;
  }
}

/** The interfaces of this machine but loopback, from sysfs (Linux, Documentation/ABI/testing/sysfs-class-net). */
export function netLinks(root = '/sys/class/net', addresses = networkInterfaces()): NetLink[] {
  const names = existsSync(root) ? readdirSync(root).filter((name) => name !== 'lo') : [];
  return names.sort().map((name) => {
    const folder = join(root, name);
    const duplex = readFact(join(folder, 'duplex'));
    const medium = mediumOf(folder);
    return {
      name,
      medium,
      up: readFact(join(folder, 'operstate')) === 'up' || readFact(join(folder, 'carrier')) === '1',
      // What a radio or a tunnel writes there means nothing.
      speedMbps: medium === 'wired' ? positiveFact(join(folder, 'speed')) : null,
      duplex: duplex === 'full' || duplex === 'half' ? duplex : null,
      mtuBytes: positiveFact(join(folder, 'mtu')),
      driver: driverOf(folder),
      addresses: (addresses[name] ?? []).filter(({ internal }) => !internal).map(({ address }) => address),
    };
  });
}
