/** A row of the kernel's IPv4 routing table. Addresses as 32-bit numbers in network order. */
export interface Route {
  readonly link: string;
  readonly destination: number;
  readonly gateway: number;
  readonly metric: number;
  readonly mask: number;
}

/** The kernel writes each address as a hexadecimal number in the byte order of the machine: little-endian where Node runs. */
function addressOf(hex: string): number {
  const bytes = Buffer.from(hex, 'hex');
  return bytes.length === 4 ? bytes.readUInt32LE() : 0;
}

/** Reads /proc/net/route (proc(5)). */
export function readRoutes(text: string): Route[] {
  return text
    .split('\n')
    .slice(1)
    .map((line) => line.trim().split(/\s+/))
    .filter(({ length }) => length >= 8)
    .map(([link, destination, gateway, , , , metric, mask]) => ({
      link: link!,
      destination: addressOf(destination!),
      gateway: addressOf(gateway!),
      metric: Number(metric),
      mask: addressOf(mask!),
    }));
}

const dotted = (address: number) => [24, 16, 8, 0].map((shift) => (address >>> shift) & 255).join('.');

function numberOf(address: string): number | null {
  const parts = address.split('.').map(Number);
  const isAddress = parts.length === 4 && parts.every((part) => Number.isInteger(part) && part >= 0 && part <= 255);
  return isAddress ? parts.reduce((sum, part) => sum * 256 + part, 0) : null;
}

/** The row that an IPv4 address goes by: the longest mask, then the least metric. Null: none, or no IPv4 address. */
export function routeTo(routes: readonly Route[], address: string): Route | null {
  const to = numberOf(address);
  if (to === null) return null;
  const fitting = routes.filter(({ destination, mask }) => (to & mask) >>> 0 === destination);
  return fitting.sort((a, b) => b.mask - a.mask || a.metric - b.metric)[0] ?? null;
}

/** Where packets to everywhere else go; null: nowhere. */
export function defaultGateway(routes: readonly Route[]): { readonly address: string; readonly link: string } | null {
  const route = routeTo(
    routes.filter(({ mask }) => mask === 0),
    '192.0.2.1',
  );
  return route === null || route.gateway === 0 ? null : { address: dotted(route.gateway), link: route.link };
}
