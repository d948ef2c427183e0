import { networkInterfaces, release } from 'node:os';
import { readNetsh } from '@/core';
import { onceAMoment } from '../at-hand';
import type { MachineView, Printed } from '../machine-view';
import {
  isRadio,
  readNetshInterface,
  readWindows,
  windowsGateway,
  windowsLink,
  windowsLinks,
  windowsNeighbours,
  windowsResolvers,
  WINDOWS_SCRIPT,
  type WindowsFacts,
} from './read-windows';

/** It takes its time to start. */
const PATIENCE_MS = 20_000;
const NOTHING: WindowsFacts = { adapters: [], routes: [], resolvers: [], neighbours: [], system: '' };
const SHELL = ['-NoProfile', '-NonInteractive', '-Command'];

const addressesOf = (link: string) =>
  (networkInterfaces()[link] ?? []).filter(({ internal }) => !internal).map(({ address }) => address);

/** Windows, by PowerShell and netsh. */
export function windowsView(printed: Printed): MachineView {
  const facts = onceAMoment(
    async () =>
      readWindows((await printed('powershell.exe', [...SHELL, WINDOWS_SCRIPT], PATIENCE_MS)) ?? '') ?? NOTHING,
  );
  const radioOf = async () => (await facts()).adapters.find(isRadio);
  const connectionOf = async (name: string) =>
    readNetshInterface((await printed('netsh', ['wlan', 'show', 'interfaces'])) ?? '', name);
  return {
    looks: ['names', 'air', 'ports', 'line', 'outside'],
    keepsLanes: false,
    systemName: async () => (await facts()).system || `Windows ${release()}`,
    gateway: async () => windowsGateway(await facts()),
    resolvers: async () => windowsResolvers(await facts()),
    links: async () => windowsLinks(await facts(), addressesOf),
    neighbours: async () => windowsNeighbours(await facts()),
    linkTowards: async (address) => {
      // An address of ours or of the other side: nothing that a shell could read otherwise.
      if (!/^[0-9a-fA-F:.]+$/.test(address)) return null;
      const script = `(Find-NetRoute -RemoteIPAddress '${address}' | Select-Object -First 1).InterfaceAlias`;
      const name = (await printed('powershell.exe', [...SHELL, script], PATIENCE_MS))?.trim();
      const adapter = (await facts()).adapters.find((each) => each.name === name);
      const connection = adapter !== undefined && isRadio(adapter) ? await connectionOf(adapter.name) : null;
      return windowsLink(adapter, connection);
    },
    roundTripMs: async (address) => {
      const text = await printed('ping', ['-n', '3', '-w', '1000', address]);
      // Whole milliseconds; what took less than one is told as one, in any language.
      const times = [...(text ?? '').matchAll(/[=<]\s?(\d+) ?ms/g)].map(([, ms]) => Number(ms));
      return times.length === 0 ? null : Math.min(...times);
    },
    air: async () => {
      const radio = await radioOf();
      if (radio === undefined) return { trouble: 'no-radio' };
      const listed = await printed('netsh', ['wlan', 'show', 'networks', 'mode=bssid'], PATIENCE_MS);
      if (listed === null) return { trouble: 'no-scan', device: radio.name };
      const { accessPoint = null } = await connectionOf(radio.name);
      return { what: 'air', device: radio.name, by: 'netsh', networks: readNetsh(listed, accessPoint) };
    },
  };
}
