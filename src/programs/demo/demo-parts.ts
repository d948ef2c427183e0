import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { demoDevicesOf, demoPracticeDocument, devicePracticeDocument } from '@/programs/demo';
import { openStore } from '@/store';
import { readSigningKey } from '@/wire/peer/ticket';
import { dataFiles } from '../folder/data-folder';
import { distinctLoopbackPorts } from '../supervise/free-port';
import { Part } from '../supervise/part';

const onTrouble = (sentence: string) => console.error(sentence);

function writeJson(file: string, value: unknown): void {
  writeFileSync(file, `${JSON.stringify(value, null, 2)}\n`, { mode: 0o600 });
}

/** What stands in for the providers' lines and the tunnel. */
export function practiceLines(port: number, dataFolder: string): Part {
  const file = join(dataFolder, 'practice-lines.json');
  writeJson(file, demoPracticeDocument(port));
  return new Part('practice lines', 'practice-main.js', [file], onTrouble);
}

/** What plays the devices of the demo, once the console has them; nothing where they were removed. */
export async function demoDeviceParts(port: number, dataFolder: string): Promise<Part[]> {
  const files = dataFiles(dataFolder);
  const store = await openStore(files.database);
  const signingKey = readSigningKey(readFileSync(files.signingKey, 'utf8'));
  const { devices, lines } = await demoDevicesOf({ store, signingKey, port }, distinctLoopbackPorts());
  await store.close();
  if (devices.length === 0) return [];
  const [linksFile, devicesFile] = [join(dataFolder, 'demo-links.json'), join(dataFolder, 'demo-devices.json')];
  writeJson(linksFile, devicePracticeDocument(lines));
  writeJson(devicesFile, devices);
  return [
    new Part('links of the demo devices', 'practice-main.js', [linksFile], onTrouble),
    new Part('demo devices', 'demo-devices-main.js', [`http://127.0.0.1:${port}`, devicesFile], onTrouble),
  ];
}
