import { rmSync, writeFileSync } from 'node:fs';
import type { ConsoleContext } from '@/services';
import type { DataFiles } from '../folder/data-folder';
import { devicePracticeDocument } from './practice-document';
import { demoDevicesOf } from './simulated-devices';

/** Writes down the devices that are to be played, and the practice lines that their links are made of; none: no files. */
export async function writeDemoDevices(
  context: Pick<ConsoleContext, 'store' | 'signingKey' | 'port'>,
  { demoLinks, demoDevices }: Pick<DataFiles, 'demoLinks' | 'demoDevices'>,
  freePort: () => Promise<number>,
): Promise<void> {
  const { devices, lines } = await demoDevicesOf(context, freePort);
  for (const file of [demoLinks, demoDevices]) rmSync(file, { force: true });
  if (devices.length === 0) return;
  const write = (file: string, value: unknown) =>
    writeFileSync(file, `${JSON.stringify(value, null, 2)}\n`, { mode: 0o600 });
  write(demoLinks, devicePracticeDocument(lines));
  write(demoDevices, devices);
}
