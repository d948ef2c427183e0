import { lookAtPath } from '@/agent/look/path';
import { lookUnderLoad } from '@/agent/look/path-load';
import type { FarLook } from '@/wire';

/** A path and what a full line adds on it, as an agent looks; it goes to standard output as JSON. */
export async function runPathClient(target: string, far: FarLook): Promise<void> {
  const { signal } = new AbortController();
  const { hops } = await lookAtPath({ target }, signal);
  const loaded = await lookUnderLoad(hops, far, { signal, origin: far.address });
  process.stdout.write(JSON.stringify(loaded), () => process.exit(0));
}
