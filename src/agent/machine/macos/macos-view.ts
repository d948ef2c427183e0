import { release } from 'node:os';
import { bandOf, channelOf, readAirport } from '@/core';
import { onceAMoment } from '../at-hand';
import type { MachineView, Printed } from '../machine-view';
import {
  macLink,
  readAirportRate,
  readArpTable,
  readHardwarePorts,
  readIfconfig,
  readRouteGet,
  readScutil,
} from './read-macos';

/** A report goes through all channels. */
const PATIENCE_MS = 30_000;

/** macOS, by networksetup, ifconfig, route, scutil, arp and system_profiler. */
export function macosView(printed: Printed): MachineView {
  const text = async (command: string, ...args: string[]) => (await printed(command, args)) ?? '';
  const links = onceAMoment(async () =>
    readIfconfig(await text('ifconfig'), readHardwarePorts(await text('networksetup', '-listallhardwareports'))),
  );
  const airport = onceAMoment(
    async () => (await printed('system_profiler', ['SPAirPortDataType', '-json'], PATIENCE_MS)) ?? '',
  );
  return {
    looks: ['names', 'air', 'ports', 'line', 'outside'],
    keepsLanes: false,
    systemName: async () => {
      const version = (await text('sw_vers', '-productVersion')).trim();
      return version === '' ? `macOS (Darwin ${release()})` : `macOS ${version}`;
    },
    gateway: async () => {
      const route = readRouteGet(await text('route', '-n', 'get', 'default'));
      const address = route?.gateway ?? null;
      return address === null ? null : { address, link: route!.link };
    },
    resolvers: async () => readScutil(await text('scutil', '--dns')),
    links,
    neighbours: async () => readArpTable(await text('arp', '-an')),
    linkTowards: async (address) => {
      const words = address.includes(':') ? ['-n', 'get', '-inet6', address] : ['-n', 'get', address];
      const route = readRouteGet(await text('route', ...words));
      const link = (await links()).find(({ name }) => name === route?.link);
      if (link?.medium !== 'wifi') return macLink(link, null);
      const report = await airport();
      const own = readAirport(report)?.networks.find((network) => network.own);
      const place =
        own === undefined ? null : { band: bandOf(own.primaryMhz), channel: channelOf(own.primaryMhz) ?? undefined };
      return macLink(link, { own, rateBps: readAirportRate(report), place });
    },
    roundTripMs: async (address) => {
      const said = await text('ping', '-n', '-c', '3', '-i', '0.2', '-W', '1000', address);
      const times = [...said.matchAll(/time=([\d.]+) ms/g)].map(([, ms]) => Number(ms));
      return times.length === 0 ? null : Math.min(...times);
    },
    air: async () => {
      const report = await airport();
      const heard = readAirport(report);
      if (heard === null) return { trouble: 'no-radio' };
      if (heard.networks.length === 0) return { trouble: 'no-scan', device: heard.device };
      return { what: 'air', by: 'system_profiler', ...heard };
    },
  };
}
