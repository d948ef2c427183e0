import { hostname, networkInterfaces } from 'node:os';

/** The host of a Host header without its port, in small letters, an IPv6 address without brackets. */
export function hostOf(header: string | undefined): string | null {
  const text = header?.trim().toLowerCase() ?? '';
  const bracketed = /^\[([0-9a-f:.]+)\](?::\d{1,5})?$/.exec(text)?.[1];
  if (bracketed !== undefined) return bracketed;
  return /^([a-z0-9_.-]+)(?::\d{1,5})?$/.exec(text)?.[1]?.replace(/\.$/, '') ?? null;
}

/**
 * Whether a console may be asked for by this Host header: its own addresses and names, and those that it was given. A
 * page of another site whose name was made to lead here (DNS rebinding) carries that name, and is turned away.
 */
export function knowsHost(header: string | undefined, given: readonly string[]): boolean {
  const host = hostOf(header);
  if (host === null) return false;
  if (host === 'localhost' || host === '::1' || /^127\.\d+\.\d+\.\d+$/.test(host)) return true;
  const own = hostname().toLowerCase();
  if (host === own || host === `${own}.local`) return true;
  if (given.some((name) => name.toLowerCase() === host)) return true;
  return Object.values(networkInterfaces()).some((entries) =>
    (entries ?? []).some(({ address }) => address.split('%')[0]!.toLowerCase() === host),
  );
}
