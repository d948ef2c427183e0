import { networkInterfaces } from 'node:os';

/** Addresses of this machine by which other devices can reach it: IPv4 of every interface that is not loopback. */
export function lanAddresses(): string[] {
  return Object.values(networkInterfaces()).flatMap((entries) =>
    (entries ?? []).filter((entry) => entry.family === 'IPv4' && !entry.internal).map((entry) => entry.address),
  );
}
