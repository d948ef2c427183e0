import { isSomebody, type Neighbour } from '../machine-view';

/** Reads what `ip -json neigh` prints; entries that did not answer have no hardware address. */
export function readNeighbours(json: string): Neighbour[] {
  const rows = JSON.parse(json) as { dst?: unknown; lladdr?: unknown; dev?: unknown; state?: unknown }[];
  return rows.flatMap(({ dst, lladdr, dev, state }) => {
    const mac = typeof lladdr === 'string' ? lladdr.toLowerCase() : '';
    const failed = Array.isArray(state) && state.some((each) => each === 'FAILED' || each === 'INCOMPLETE');
    return isSomebody(mac) && !failed ? [{ address: String(dst), mac, link: String(dev) }] : [];
  });
}

/** Reads /proc/net/arp (proc(5)), where there is no `ip`: IPv4 alone. */
export function readArp(text: string): Neighbour[] {
  return text
    .split('\n')
    .slice(1)
    .map((line) => line.trim().split(/\s+/))
    .flatMap(([address, , flags, mac, , link]) =>
      mac !== undefined && isSomebody(mac) && flags !== '0x0' ? [{ address: address!, mac, link: link! }] : [],
    );
}
