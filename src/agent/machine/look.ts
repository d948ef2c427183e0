import { execFile } from 'node:child_process';
import { arch, release, type as systemType } from 'node:os';
import type { MachineFacts } from '@/core';
import { defaultGateway, readRoutes } from './default-route';
import { readArp, readNeighbours, type Neighbour } from './neighbours';
import { netLinks, readFact } from './net-links';
import { isStub, readResolvConf, readResolvectl } from './resolvers';

const PATIENCE_MS = 4000;

/** What a program printed; null: it is not there, or it failed. */
export function printed(command: string, ...args: string[]): Promise<string | null> {
  return new Promise((resolve) =>
    execFile(command, args, { timeout: PATIENCE_MS }, (error, text) => resolve(error === null ? text : null)),
  );
}

function systemName(): string {
  const pretty = /^PRETTY_NAME="?([^"\n]*)"?/m.exec(readFact('/etc/os-release') ?? '')?.[1];
  return `${pretty ?? `${systemType()} ${release()}`}, ${arch()}`;
}

/** The least round trip of three to an address by the system's own ping, ms. */
async function leastRoundTrip(address: string): Promise<number | null> {
  const text = await printed('ping', '-n', '-c', '3', '-i', '0.2', '-W', '1', address);
  const times = [...(text ?? '').matchAll(/time=([\d.]+) ms/g)].map(([, ms]) => Number(ms));
  return times.length === 0 ? null : Math.min(...times);
}

async function resolvers(): Promise<string[]> {
  const named = readResolvConf(readFact('/etc/resolv.conf') ?? '');
  if (!named.every(isStub)) return named;
  return readResolvectl((await printed('resolvectl', 'dns')) ?? '');
}

/** What this machine sees of itself. */
export async function lookAtMachine(): Promise<MachineFacts> {
  const gateway = defaultGateway(readRoutes(readFact('/proc/net/route') ?? ''));
  const [gatewayMs, servers] = await Promise.all([
    gateway === null ? null : leastRoundTrip(gateway.address),
    resolvers(),
  ]);
  return { system: systemName(), gateway, gatewayMs, resolvers: servers, links: netLinks() };
}

/** Who else the machine has heard on its networks. */
export async function lookAround(): Promise<Neighbour[]> {
  const json = await printed('ip', '-json', 'neigh');
  try {
    return json === null ? readArp(readFact('/proc/net/arp') ?? '') : readNeighbours(json);
  } catch {
    return [];
  }
}
