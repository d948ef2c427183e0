import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

const GIGABYTE = 1e9;

/** Says how much scheduled runs may move over a line in a month. */
export async function setBudget(
  { store }: ConsoleContext,
  lineId: string,
  gigabytes: number | null,
): Promise<Outcome<null, 'line-unknown'>> {
  const line = await store.sites.line(lineId);
  if (line === null) return failed('line-unknown');
  await store.sites.saveLine({ ...line, budgetBytes: gigabytes === null ? null : gigabytes * GIGABYTE });
  return done(null);
}
