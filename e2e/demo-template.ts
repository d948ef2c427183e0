import { rmSync } from 'node:fs';
import { makeDemoTemplate } from './program';

/** Below the ranges of the workers (ports.ts). */
const PORT = 19_900;

/** Runs once before all tests: the demo data that every worker copies. */
export default async function prepareDemoData(): Promise<() => void> {
  const data = await makeDemoTemplate(PORT);
  return () => rmSync(data, { recursive: true, force: true });
}
