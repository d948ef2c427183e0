import { existsSync, readdirSync } from 'node:fs';
import { release } from 'node:os';
import { join } from 'node:path';
import { LOOK_KINDS, readIwScan, readNmcli } from '@/core';
import type { MachineView } from '../machine-view';
import { printed, readFact } from '../printed';
import { defaultGateway, readRoutes } from './default-route';
import { linuxLinkTowards } from './linux-link';
import { readArp, readNeighbours } from './linux-neighbours';
import { netLinks } from './net-links';
import { isStub, readResolvConf, readResolvectl } from './resolvers';

const LINKS = '/sys/class/net';
/** A scan goes through all channels and waits on each. */
const SCAN_MS = 20_000;
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
 * Linux, by /sys, /proc, ip, iw and resolvectl. What its radio hears: by a scan of iw, where this user may; else what the kernel
 * has heard lately; else by NetworkManager. `folder`: where the kernel lists interfaces.
 */
export function linuxView(folder = LINKS): MachineView {
  return {
    looks: LOOK_KINDS,
    keepsLanes: true,
    systemName: () => {
      const pretty = /^PRETTY_NAME="?([^"\n]*)"?/m.exec(readFact('/etc/os-release') ?? '')?.[1];
      return Promise.resolve(pretty ?? `Linux ${release()}`);
    },
    gateway: () => Promise.resolve(defaultGateway(readRoutes(readFact('/proc/net/route') ?? ''))),
    // Behind a stub of its own, whom that asks.
    resolvers: async () => {
      const named = readResolvConf(readFact('/etc/resolv.conf') ?? '');
      if (!named.every(isStub)) return named;
      return readResolvectl((await printed('resolvectl', ['dns'])) ?? '');
    },
    links: () => Promise.resolve(netLinks(folder)),
    neighbours: async () => {
      const json = await printed('ip', ['-json', 'neigh']);
      try {
        return json === null ? readArp(readFact('/proc/net/arp') ?? '') : readNeighbours(json);
      } catch {
        return [];
      }
    },
    linkTowards: linuxLinkTowards,
    roundTripMs: async (address) => {
      const text = await printed('ping', ['-n', '-c', '3', '-i', '0.2', '-W', '1', address]);
      const times = [...(text ?? '').matchAll(/time=([\d.]+) ms/g)].map(([, ms]) => Number(ms));
      return times.length === 0 ? null : Math.min(...times);
    },
    air: async () => {
      const device = radio(folder);
      if (device === null) return { trouble: 'no-radio' };
      for (const words of [['scan'], ['scan', 'dump']]) {
        const text = await printed('iw', ['dev', device, ...words], SCAN_MS);
        if (text !== null && text.trim() !== '') return { what: 'air', device, by: 'iw', networks: readIwScan(text) };
      }
      const listed = await printed('nmcli', [...NMCLI, device], SCAN_MS);
      if (listed === null) return { trouble: 'no-scan', device };
      return { what: 'air', device, by: 'nmcli', networks: readNmcli(listed) };
    },
  };
}
