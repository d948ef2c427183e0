import { readFile } from 'node:fs/promises';
import type { ConsoleContext } from '../console/console-context';

/** The table has 54 000 makers: what was looked up is remembered, the table itself is not kept. */
const known = new Map<string, string | null>();

/** The first 24 bits name the maker (IEEE registry), as the table writes them. */
const prefixOf = (mac: string) => mac.replace(/:/g, '').slice(0, 6).toUpperCase();

/** An address that its device made up by itself (the second lowest bit of the first byte, IEEE 802) has no maker. */
export const isMadeUp = (mac: string) => (Number.parseInt(mac.slice(0, 2), 16) & 2) !== 0;

/** Who made the network interfaces of some hardware addresses, by their prefix; null: the registry does not say. */
export async function makersOf(
  { makersFile, log }: Pick<ConsoleContext, 'makersFile' | 'log'>,
  macs: readonly string[],
): Promise<ReadonlyMap<string, string | null>> {
  const prefixes = [...new Set(macs.filter((mac) => !isMadeUp(mac)).map(prefixOf))];
  if (prefixes.some((prefix) => !known.has(prefix))) {
    try {
      const table = JSON.parse(await readFile(makersFile, 'utf8')) as Readonly<Record<string, string>>;
      for (const prefix of prefixes) known.set(prefix, table[prefix]?.split('\n')[0] ?? null);
    } catch (error) {
      // Without the table nothing is said of makers, and all else goes on.
      log.warn({ err: error }, 'the table of makers cannot be read');
    }
  }
  return new Map(macs.map((mac) => [mac, known.get(prefixOf(mac)) ?? null]));
}
