import { existsSync, readdirSync, readFileSync, readlinkSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { basename, join } from 'node:path';
import type { NetLink } from '@/core';

/** A file of sysfs without its line end; null: it is not there, or the kernel refuses it (the speed of a cable that is out). */
export function readFact(file: string): string | null {
  try {
    return readFileSync(file, 'utf8').trim();
  } catch {
    return null;
  }
}

const positive = (text: string | null) => {
  const value = Number(text ?? '');
  return text !== null && text !== '' && value > 0 ? value : null;
};

function mediumOf(folder: string): NetLink['medium'] {
  if (existsSync(join(folder, 'wireless')) || existsSync(join(folder, 'phy80211'))) return 'wifi';
  const isTunnel =
    existsSync(join(folder, 'tun_flags')) || /DEVTYPE=wireguard/.test(readFact(join(folder, 'uevent')) ?? '');
  if (isTunnel) return 'tunnel';
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
      speedMbps: medium === 'wired' ? positive(readFact(join(folder, 'speed'))) : null,
      duplex: duplex === 'full' || duplex === 'half' ? duplex : null,
      mtuBytes: positive(readFact(join(folder, 'mtu'))),
      driver: driverOf(folder),
      addresses: (addresses[name] ?? []).filter(({ internal }) => !internal).map(({ address }) => address),
    };
  });
}
