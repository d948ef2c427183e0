import { lookup } from 'node:dns/promises';
import type { Link } from '@/core';
import { thisMachine } from './machine/this-machine';

/** How this machine reaches a host, as its system tells; null where that cannot be told. */
export async function linkTowards(host: string): Promise<Link | null> {
  const found = await lookup(host).catch(() => null);
  return found === null ? null : thisMachine.linkTowards(found.address);
}
