import { reverse } from 'node:dns/promises';

const PATIENCE_MS = 1500;
const MOST_LETTERS = 120;

/** The name that an address has by reverse lookup; null: none, or not in time. */
export async function reverseName(address: string): Promise<string | null> {
  const late = new Promise<null>((resolve) => setTimeout(() => resolve(null), PATIENCE_MS).unref());
  const [name] = (await Promise.race([reverse(address).catch(() => null), late])) ?? [];
  return name === undefined ? null : name.slice(0, MOST_LETTERS);
}
