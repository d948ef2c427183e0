import { existsSync, writeFileSync } from 'node:fs';
import { dataFiles } from '../folder/data-folder';
import { Part } from '../supervise/part';
import { demoPracticeDocument } from './practice-document';

const onTrouble = (sentence: string) => console.error(sentence);

/** What stands in for the providers' lines and the tunnel. */
export function practiceLines(port: number, dataFolder: string): Part {
  const { practiceLines: file } = dataFiles(dataFolder);
  writeFileSync(file, `${JSON.stringify(demoPracticeDocument(port), null, 2)}\n`, { mode: 0o600 });
  return new Part('practice lines', 'practice-main.js', [file], onTrouble);
}

/** What plays the devices of the demo, as the console wrote them down; nothing where they were removed. */
export function demoDeviceParts(port: number, dataFolder: string): Part[] {
  const { demoLinks, demoDevices } = dataFiles(dataFolder);
  if (!existsSync(demoDevices)) return [];
  return [
    new Part('links of the demo devices', 'practice-main.js', [demoLinks], onTrouble),
    new Part('demo devices', 'demo-devices-main.js', [`http://127.0.0.1:${port}`, demoDevices], onTrouble),
  ];
}
